import { partsToRemove } from '../bench/closure';
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
  const picked = { ...state.pickedWays, [part]: way ?? '' };
  try {
    // With nothing off and all picks together: then they lead there from any bench.
    partsToRemove(machine, Object.keys(picked), new Set(), picked);
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    refuse('/body/way', `"${known.name}" cannot come off that way: what must be off before it waits for it.`);
  }
  return picked;
}
