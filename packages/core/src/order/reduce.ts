import type { Catalogue } from '../catalogue/types';
import { type Machine } from '../path/machine';
import type { EventBodies, OrderEvent } from './events';
import { closingFaults, openFaults } from './closing';
import { heatSpoiled } from './heatSpoiled';
import { refuse, RefusedEvent } from './refuse';
import { emptyOrder, type OrderState } from './state';

import { HANDLERS, possibleCause } from './handlers';

export { placesOf } from './findings';
export { RefusedEvent } from './refuse';

type Step = (state: OrderState, event: OrderEvent, machine: Machine, catalogue: Catalogue) => OrderState;

const AFTER_CLOSING: readonly OrderEvent['type'][] = ['note-added', 'photo-added', 'photo-marked'];

/** One event on a state. @throws RefusedEvent when it does not fit. */
const apply: Step = (state, event, machine, catalogue) => {
  const atMs = Date.parse(event.at);
  const next = { ...state, lastMs: Math.max(state.lastMs, atMs) };
  if (event.type !== 'taken-in' && !state.intake) refuse('/type', 'The order has not been taken in yet.');
  if (state.closed && !AFTER_CLOSING.includes(event.type))
    refuse('/type', 'The order is closed; only notes and pictures can be added.');
  const handle = HANDLERS[event.type] as (at: object) => OrderState;
  const after = handle({ state, next, event, machine, catalogue, atMs });
  const spoiled = heatSpoiled(catalogue, after);
  return spoiled === after.heatSpoiled ? after : { ...after, heatSpoiled: spoiled };
};

/** Events that count: those not withdrawn. The taking-in itself cannot be withdrawn. */
export function liveEvents(events: readonly OrderEvent[]): readonly OrderEvent[] {
  const withdrawn = new Set(events.flatMap((event) => (event.type === 'event-withdrawn' ? [event.body.eventId] : [])));
  return events.filter((event) => event.type === 'taken-in' || !withdrawn.has(event.id));
}

/**
 * The state of an order: its live events, in order. An event that no longer fits because an earlier one was withdrawn is
 * passed over; new ones are judged by `judge` before they are stored.
 */
export function reduceOrder(machine: Machine, catalogue: Catalogue, events: readonly OrderEvent[]): OrderState {
  return liveEvents(events).reduce((state, event) => {
    try {
      return apply(state, event, machine, catalogue);
    } catch (error) {
      if (error instanceof RefusedEvent) return state;
      throw error;
    }
  }, emptyOrder(machine));
}

/**
 * Whether an event may be added to an order, and the state with it.
 *
 * @param state what `events` reduce to, where it is known already
 * @throws RefusedEvent naming the field and what to do
 */
export function judge(
  machine: Machine,
  catalogue: Catalogue,
  events: readonly OrderEvent[],
  event: OrderEvent,
  state: OrderState = reduceOrder(machine, catalogue, events),
): OrderState {
  if (event.type === 'event-withdrawn') {
    const target = events.find((known) => known.id === event.body.eventId);
    if (!target) refuse('/body/eventId', 'There is no such event in this order.');
    if (target?.type === 'taken-in')
      refuse('/body/eventId', 'The taking-in cannot be withdrawn; close the order instead.');
    if (state.closed && target?.type !== 'closed')
      refuse('/type', 'The order is closed; withdraw the closing first, or add a note.');
    return reduceOrder(machine, catalogue, [...events, event]);
  }
  const next = apply(state, event, machine, catalogue);
  if (event.type === 'cause-chosen' || event.type === 'cause-added') possibleCause(event.body, machine, catalogue);
  if (event.type === 'proof-recorded') mayProve(state, event.body, machine, catalogue);
  if (event.type === 'closed' && event.body.outcome === 'cured') {
    const [first, ...more] = closingFaults(machine, catalogue, state);
    if (first)
      refuse(
        '/body/outcome',
        `It cannot be closed as cured. ${first.text}${more.length ? ` And ${more.length} more.` : ''} Or close it as not cured, scrapped or given back.`,
      );
  }
  return next;
}

/** Nothing is proved while the machine stands open, nor short of where it had failed. @throws RefusedEvent */
function mayProve(
  state: OrderState,
  { proof: id, passed, ranMinutes, reachedMm, wholeJob }: EventBodies['proof-recorded'],
  machine: Machine,
  catalogue: Catalogue,
): void {
  if (!passed) return;
  const open = openFaults(machine, state)[0];
  if (open) refuse('/type', `A proof is taken on the closed machine. ${open.text}`);
  if (catalogue.proofs.find((proof) => proof.id === id)?.form !== 'run') return;
  // The job that had failed, run to its own end, went past wherever that was.
  if (wholeJob) return;
  const { failedAfterMinutes: minutes, failedAtMm: height } = state.intake ?? {};
  if (minutes !== undefined && (ranMinutes === undefined || ranMinutes <= minutes))
    refuse('/body/ranMinutes', `The fault needed ${minutes} min to show: it is proved only after more than that.`);
  if (height !== undefined && (reachedMm === undefined || reachedMm <= height))
    refuse('/body/reachedMm', `The fault showed at ${height} mm: it is proved only past that height.`);
}
