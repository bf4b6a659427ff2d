import { waysTo } from '../access/closure';
import type { Machine } from '../path/machine';
import type { EventBodies } from './events';
import { refuse } from './refuse';
import type { OrderState } from './state';

/** The ways in which parts are to come off, with one more picked. @throws RefusedEvent when it does not come off so */
export function wayPicked(
  state: OrderState,
  { part, way }: EventBodies['way-picked'],
  machine: Machine,
): OrderState['pickedWays'] {
  const known = machine.parts.find((item) => item.id === part);
  if (!known || (way !== undefined && !known.ways?.some((item) => item.id === way)))
    return refuse('/body/part', `This machine has no part "${part}"${way ? ` that comes off "${way}"` : ''}.`);
  if (!waysTo(machine, part, new Set(state.off)).some((item) => item.way === (way ?? '')))
    refuse('/body/way', `"${known.name}" cannot come off that way: what must be off before it waits for it.`);
  return { ...state.pickedWays, [part]: way ?? '' };
}
