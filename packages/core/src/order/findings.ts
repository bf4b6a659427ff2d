import { checkById } from '../catalogue/index';
import type { Catalogue } from '../catalogue/types';
import type { Machine } from '../path/machine';
import { routeOf } from '../path/route';
import { NOT_SURE } from '../bench/places';
import { checksOnLane, type CheckAtPlace } from '../bench/places';
import type { OrderEvent } from './events';
import { refuse } from './refuse';
import type { OrderState } from './state';

/** The checks of an order's route. */
export const placesOf = (state: OrderState, machine: Machine, catalogue: Catalogue): readonly CheckAtPlace[] =>
  checksOnLane(catalogue, machine, state.intake?.lane);

export function knownCheck(state: OrderState, key: string, machine: Machine, catalogue: Catalogue) {
  const place = placesOf(state, machine, catalogue).find((candidate) => candidate.key === key);
  if (place) return place;
  const [check = '', station = ''] = key.split('@');
  if (!checkById(catalogue, check)) return refuse('/body/key', `The catalogue has no check "${check}".`);
  return refuse(
    '/body/key',
    `This machine has no place "${station}" for the check "${check}" on the path of this order.`,
  );
}

export function finding(
  state: OrderState,
  event: OrderEvent & { type: 'finding-recorded' },
  machine: Machine,
  catalogue: Catalogue,
) {
  const { key, result, value } = event.body;
  const place = knownCheck(state, key, machine, catalogue);
  const { check } = place;
  const answers: readonly { id: string; depth?: boolean }[] = check.asks
    ? catalogue.onsets
    : [...check.results, ...(check.earlier ?? [])];
  const answer = answers.find((candidate) => candidate.id === result);
  if (!answer && result !== NOT_SURE) refuse('/body/result', `"${place.name}" has no result "${result}".`);
  for (const [i, id] of (event.body.also ?? []).entries()) {
    if (!check.items) refuse('/body/also', `"${place.name}" has one result at a time.`);
    if (!check.results.slice(0, -1).some((candidate) => candidate.id === id))
      refuse(`/body/also/${i}`, `"${place.name}" has no result "${id}" beside others.`);
  }
  const quantity = check.quantity;
  if (answer && quantity) {
    if (value === undefined) refuse('/body/value', `Enter the value in ${quantity.unit}.`);
    else if (value < quantity.min || value > quantity.max)
      refuse('/body/value', `The value must lie between ${quantity.min} and ${quantity.max} ${quantity.unit}.`);
  }
  if (answer?.depth && value !== undefined) {
    const [from, to] = place.reachMm ?? [0, 0];
    const longest = Math.round(to - (place.entryMm ?? from) + 50);
    if (value < 0 || value > longest) refuse('/body/value', `A depth here lies between 0 and ${longest} mm.`);
  }
  return { id: event.id, at: event.at, by: event.by, ...event.body };
}

/** What a check leaves of the strand: one that pushes a fresh strand in draws it out again, or knows where it stopped. */
export function strandAfter(
  state: OrderState,
  event: OrderEvent & { type: 'finding-recorded' },
  machine: Machine,
  catalogue: Catalogue,
): OrderState['strand'] {
  const { check } = knownCheck(state, event.body.key, machine, catalogue);
  if (!check.does?.includes('draws-out')) return state.strand;
  const lane = routeOf(machine, state.intake?.lane).lane;
  const stopped = check.results.some(({ id, depth, leaves }) => id === event.body.result && (depth || leaves));
  return { ...state.strand, [lane]: stopped ? 'remnant' : 'out' };
}
