import type { Machine } from '../path/machine';
import type { EventBodies } from './events';
import { refuse } from './refuse';
import type { OrderState } from './state';

/** Screws and clips taken out, put back, or left out with a reason. @throws RefusedEvent */
export function fastenersMoved(
  state: OrderState,
  { part, way, out = [], in: back = [], left = [] }: EventBodies['fasteners-moved'],
  machine: Machine,
): OrderState['fasteners'] {
  const found = machine.parts.find((item) => item.id === part);
  const removal = way === undefined ? found : found?.ways?.find((item) => item.id === way);
  if (!removal)
    return refuse('/body/part', `This machine has no part "${part}"${way ? ` that comes off "${way}"` : ''}.`);
  const count = (removal.fasteners ?? []).reduce((sum, fastener) => sum + fastener.count, 0);
  const wrong = [...out, ...back, ...left.map(({ index }) => index)].find((index) => index >= count);
  if (wrong !== undefined) refuse('/body', `"${part}" has ${count} fasteners; there is no number ${wrong}.`);
  const key = way === undefined ? part : `${part}/${way}`;
  return {
    ...state.fasteners,
    [key]: {
      ...state.fasteners[key],
      ...Object.fromEntries(out.map((index) => [index, { now: 'out' as const }])),
      ...Object.fromEntries(back.map((index) => [index, { now: 'in' as const }])),
      ...Object.fromEntries(left.map(({ index, why }) => [index, { now: 'left' as const, why }])),
    },
  };
}
