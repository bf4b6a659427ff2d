import { modeById, remedyById } from '../catalogue/index';
import { mayBeAbsent } from '../bench/state';
import type { Catalogue } from '../catalogue/types';
import { stationById, type Machine } from '../path/machine';
import { routeOf } from '../path/route';
import { finding, knownCheck, strandAfter } from './findings';
import type { EventBodies, OrderEvent } from './events';
import { closingFaults, openFaults } from './closing';
import { partsMoved, stateChanged } from './moves';
import { causesUnderWork, clearedSoFar, triesAt } from './causes';
import { fastenersMoved } from './fasteners';
import { benchChanged } from './heat';
import { refuse, RefusedEvent } from './refuse';
import { emptyOrder, type OrderState } from './state';
import { wayPicked } from './wayPicked';

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
  switch (event.type) {
    case 'taken-in':
      return takeIn(next, event, machine, catalogue);
    case 'finding-recorded':
      return {
        ...next,
        findings: [...state.findings, finding(state, event, machine, catalogue)],
        strand: strandAfter(state, event, machine, catalogue),
      };
    case 'check-not-done':
      knownCheck(state, event.body.key, machine, catalogue);
      return { ...next, notDone: [...state.notDone, { id: event.id, ...event.body }] };
    case 'event-withdrawn':
      return next;
    case 'bench-changed':
      return {
        ...next,
        ...benchChanged(state, event.body, atMs, machine),
        ...stateChanged(state, event.body, machine),
      };
    case 'cooling-measured': {
      const { tauS, tauSd, readings } = event.body;
      return { ...next, heat: { ...state.heat, cooling: { tauS, tauSd, readings } } };
    }
    case 'parts-moved':
      return partsMoved(next, event.body, machine);
    case 'fasteners-moved':
      return { ...next, fasteners: fastenersMoved(state, event.body, machine) };
    case 'cause-added': {
      const { station, mode } = event.body;
      if (!state.cause) refuse('/type', 'Choose a cause first.');
      knownCause(event.body, machine, catalogue);
      if (causesUnderWork(state).some((known) => known.station === station && known.mode === mode))
        refuse('/body/mode', 'This is under work already.');
      return { ...next, also: [...state.also, { eventId: event.id, station, mode, advised: false }] };
    }
    case 'rung-picked':
      if (
        !causesUnderWork(state).some(({ station, mode }) => station === event.body.station && mode === event.body.mode)
      )
        refuse('/body/mode', 'This cause is not under work.');
      if (!remedyById(catalogue, event.body.remedy))
        refuse('/body/remedy', `The catalogue has no remedy "${event.body.remedy}".`);
      return { ...next, picked: event.body };
    case 'way-picked':
      return { ...next, pickedWays: wayPicked(state, event.body, machine) };
    case 'solvent-tried':
      if (!catalogue.solvents.some(({ id }) => id === event.body.solvent))
        refuse('/body/solvent', `The catalogue has no solvent "${event.body.solvent}".`);
      return { ...next, solvents: { ...state.solvents, [event.body.solvent]: event.body.softened } };
    case 'step-skipped':
      if (!state.cause) refuse('/type', 'There is no work plan: choose a cause first.');
      return {
        ...next,
        absent: [...state.absent, ...notHere(state, event.body.stepId, machine)],
        steps: { ...state.steps, [event.body.stepId]: { ...stamp(event), skipped: event.body.why } },
      };
    case 'cause-chosen': {
      const { station, mode, advised } = event.body;
      knownCause(event.body, machine, catalogue);
      const cause = { eventId: event.id, station, mode, advised };
      return { ...fresh(next), cause, cured: [...state.cured, ...clearedSoFar(state)] };
    }
    case 'cause-dropped':
      if (!state.cause) refuse('/type', 'No cause is chosen.');
      return withoutCause(next);
    case 'step-done':
      if (!state.cause) refuse('/type', 'There is no work plan: choose a cause first.');
      return { ...next, steps: { ...state.steps, [event.body.stepId]: stamp(event, event.body.override) } };
    case 'rung-tried': {
      if (!state.cause) refuse('/type', 'There is no work plan: choose a cause first.');
      if (!remedyById(catalogue, event.body.remedy))
        refuse('/body/remedy', `The catalogue has no remedy "${event.body.remedy}".`);
      const { station = state.cause?.station ?? '', mode = state.cause?.mode ?? '' } = event.body;
      const { picked: _tried, ...rest } = next;
      return {
        ...rest,
        proofs: {},
        tries: [...state.tries, { ...event.body, station, mode, at: event.at }],
        steps: { ...state.steps, [event.body.stepId]: stamp(event) },
      };
    }
    case 'timer-started': {
      const { timerId: id, label, minutes } = event.body;
      return {
        ...next,
        timers: [...state.timers.filter((timer) => timer.id !== id), { id, label, endsMs: atMs + minutes * 60_000 }],
      };
    }
    case 'timer-stopped':
      return { ...next, timers: state.timers.filter((timer) => timer.id !== event.body.timerId) };
    case 'part-replaced':
      if (!stationById(machine, event.body.station))
        refuse('/body/station', `This machine has no station "${event.body.station}".`);
      return { ...next, proofs: {}, parts: [...state.parts, { ...event.body, at: event.at }] };
    case 'proof-recorded': {
      const { proof } = event.body;
      if (!state.cause) refuse('/type', 'Nothing was repaired yet: there is nothing to prove.');
      if (!catalogue.proofs.some((known) => known.id === proof))
        refuse('/body/proof', `The catalogue has no proof "${proof}".`);
      // A strand was run through it: whether one is in it now is looked at again.
      return { ...next, strand: {}, proofs: { ...state.proofs, [proof]: { ...event.body, at: event.at } } };
    }
    case 'curve-measured':
      return { ...next, curve: event.body.points };
    case 'not-cured': {
      if (!state.cause) refuse('/type', 'Nothing was repaired yet.');
      const { proof } = event.body;
      const failures = causesUnderWork(state).map(({ station, mode }, i) => ({
        id: i === 0 ? event.id : `${event.id}/${i}`,
        station,
        mode,
        remedies: triesAt(state, { station, mode }).map((item) => item.remedy),
        ...(proof ? { proof } : {}),
      }));
      return { ...withoutCause(next), strand: {}, failures: [...state.failures, ...failures] };
    }
    case 'photo-added':
      if (state.photos.some(({ photoId }) => photoId === event.body.photoId))
        refuse('/body/photoId', 'This picture is in the order already.');
      return {
        ...next,
        photos: [...state.photos, { ...event.body, at: event.at, by: event.by, eventId: event.id, markers: [] }],
      };
    case 'photo-marked': {
      const { photoId, markers } = event.body;
      if (!state.photos.some((photo) => photo.photoId === photoId))
        refuse('/body/photoId', 'There is no such picture in this order.');
      return {
        ...next,
        photos: state.photos.map((photo) => (photo.photoId === photoId ? { ...photo, markers } : photo)),
      };
    }
    case 'note-added':
      return { ...next, notes: [...state.notes, { at: event.at, by: event.by, text: event.body.text }] };
    case 'closed':
      return { ...next, timers: [], closed: { ...event.body, eventId: event.id, at: event.at, by: event.by } };
  }
};

const stamp = (event: OrderEvent, override?: string) => ({
  at: event.at,
  by: event.by,
  ...(override === undefined ? {} : { override }),
});

function knownCause(body: { readonly station: string; readonly mode: string }, machine: Machine, catalogue: Catalogue) {
  if (!stationById(machine, body.station)) refuse('/body/station', `This machine has no station "${body.station}".`);
  if (!modeById(catalogue, body.mode)) refuse('/body/mode', `The catalogue has no failure mode "${body.mode}".`);
}

/** Nothing planned, tried or proved yet. */
function fresh(state: OrderState): OrderState {
  const { picked: _picked, ...rest } = state;
  return { ...rest, also: [], steps: {}, tries: [], proofs: {} };
}

function withoutCause(state: OrderState): OrderState {
  const { cause: _dropped, ...rest } = fresh(state);
  return rest;
}

const takeIn = (
  state: OrderState,
  event: OrderEvent & { type: 'taken-in' },
  machine: Machine,
  catalogue: Catalogue,
): OrderState => {
  const { body } = event;
  if (state.intake) refuse('/type', 'The order was taken in already.');
  if (body.machineId !== machine.id) refuse('/body/machineId', `The order belongs to machine "${machine.id}".`);
  try {
    routeOf(machine, body.lane);
  } catch (error) {
    refuse('/body/lane', (error as Error).message);
  }
  const known = (path: string, ids: readonly string[], list: readonly { readonly id: string }[]): void =>
    ids.forEach(
      (id, i) => list.some((item) => item.id === id) || refuse(`${path}/${i}`, `The catalogue has no "${id}".`),
    );
  known('/body/symptoms', body.symptoms, catalogue.symptoms);
  known('/body/before', body.before, catalogue.before);
  if (body.onset !== undefined) known('/body/onset', [body.onset], catalogue.onsets);
  if (body.material !== undefined) known('/body/material', [body.material], catalogue.materials);
  return {
    ...state,
    intake: { ...body, at: event.at, by: event.by },
    heat: { ...state.heat, atMs: Date.parse(event.at) },
  };
};

/** The part that a skipped step would have taken off: this machine has not got it, or it need not come off. */
function notHere(state: OrderState, stepId: string, machine: Machine): readonly string[] {
  const [kind, rest = ''] = stepId.replace(/#\d+$/, '').split(/:(.*)/s);
  const part = rest.split('/')[0] ?? '';
  if (kind !== 'open' || state.off.includes(part)) return [];
  if (!mayBeAbsent(machine, part))
    refuse(
      '/body/stepId',
      'What carries plugs, heat or the strand is not passed over: take it off, or say that it is off already.',
    );
  return [part];
}

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

/** Whether an event may be added to an order. @throws RefusedEvent naming the field and what to do. */
export function judge(
  machine: Machine,
  catalogue: Catalogue,
  events: readonly OrderEvent[],
  event: OrderEvent,
): OrderState {
  const state = reduceOrder(machine, catalogue, events);
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
  { proof: id, passed, ranMinutes, reachedMm }: EventBodies['proof-recorded'],
  machine: Machine,
  catalogue: Catalogue,
): void {
  if (!passed) return;
  const open = openFaults(machine, state)[0];
  if (open) refuse('/type', `A proof is taken on the closed machine. ${open.text}`);
  if (catalogue.proofs.find((proof) => proof.id === id)?.form !== 'run') return;
  const { failedAfterMinutes: minutes, failedAtMm: height } = state.intake ?? {};
  if (minutes !== undefined && (ranMinutes === undefined || ranMinutes <= minutes))
    refuse('/body/ranMinutes', `The fault needed ${minutes} min to show: it is proved only after more than that.`);
  if (height !== undefined && (reachedMm === undefined || reachedMm <= height))
    refuse('/body/reachedMm', `The fault showed at ${height} mm: it is proved only past that height.`);
}
