import { checkById, modeById, remedyById } from '../catalogue/index';
import type { Catalogue } from '../catalogue/types';
import { stationById, type Machine } from '../path/machine';
import { routeOf } from '../path/route';
import { NOT_SURE } from '../trace/context';
import { checksFor } from '../trace/places';
import type { OrderEvent } from './events';
import { causesUnderWork, clearedSoFar, triesAt } from './causes';
import { fastenersMoved } from './fasteners';
import { benchChanged } from './heat';
import { refuse, RefusedEvent } from './refuse';
import { emptyOrder, type OrderState } from './state';
import { wayPicked } from './wayPicked';

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
      return { ...next, findings: [...state.findings, finding(state, event, machine, catalogue)] };
    case 'check-not-done':
      knownCheck(state, event.body.key, machine, catalogue);
      return { ...next, notDone: [...state.notDone, { id: event.id, ...event.body }] };
    case 'event-withdrawn':
      return next;
    case 'bench-changed':
      return { ...next, ...benchChanged(state, event.body, atMs, machine) };
    case 'cooling-measured': {
      const { tauS, tauSd, readings } = event.body;
      return { ...next, heat: { ...state.heat, cooling: { tauS, tauSd, readings } } };
    }
    case 'parts-moved': {
      const { off = [], on = [], ways = {} } = event.body;
      [...off, ...on].forEach((id, i) => {
        if (!machine.parts.some((part) => part.id === id))
          refuse(i < off.length ? `/body/off/${i}` : `/body/on/${i - off.length}`, `This machine has no part "${id}".`);
      });
      for (const [id, way] of Object.entries(ways))
        if (!machine.parts.find((part) => part.id === id)?.ways?.some((known) => known.id === way))
          refuse(`/body/ways/${id}`, `"${id}" does not come off "${way}".`);
      return {
        ...next,
        off: [...new Set([...state.off, ...off])].filter((id) => !on.includes(id)),
        opened: [...new Set([...state.opened, ...off])],
        ways: Object.fromEntries(Object.entries({ ...state.ways, ...ways }).filter(([id]) => !on.includes(id))),
      };
    }
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
      return { ...next, steps: { ...state.steps, [event.body.stepId]: { ...stamp(event), skipped: event.body.why } } };
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
      return { ...next, parts: [...state.parts, { ...event.body, at: event.at }] };
    case 'proof-recorded': {
      const { proof } = event.body;
      if (!state.cause) refuse('/type', 'Nothing was repaired yet: there is nothing to prove.');
      if (!catalogue.proofs.some((known) => known.id === proof))
        refuse('/body/proof', `The catalogue has no proof "${proof}".`);
      const { passed, ranMinutes } = event.body;
      const failed = state.intake?.failedAfterMinutes;
      if (passed && ranMinutes !== undefined && failed !== undefined && ranMinutes <= failed)
        refuse('/body/ranMinutes', `The fault needed ${failed} min to show: it is proved only after more than that.`);
      return { ...next, proofs: { ...state.proofs, [proof]: { ...event.body, at: event.at } } };
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
      return { ...withoutCause(next), failures: [...state.failures, ...failures] };
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
    case 'closed': {
      if (event.body.outcome === 'cured' && !Object.values(state.proofs).some((proof) => proof.passed))
        refuse(
          '/body/outcome',
          'An order without a passed proof is not closed as cured. Record a proof, or close it as given back.',
        );
      if (event.body.outcome === 'cured' && Object.values(state.proofs).some((proof) => !proof.passed))
        refuse('/body/outcome', 'A proof failed. Repeat it, or say that the repair did not cure.');
      return { ...next, timers: [], closed: { ...event.body, eventId: event.id, at: event.at, by: event.by } };
    }
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

type Places = ReturnType<typeof checksFor>;
const placesCache = new WeakMap<Catalogue, WeakMap<Machine, Map<string, Places>>>();

/** The checks of an order's route; kept, since every event of an order asks for them. */
export function placesOf(state: OrderState, machine: Machine, catalogue: Catalogue) {
  const lane = state.intake?.lane ?? '';
  const byMachine = placesCache.get(catalogue) ?? new WeakMap<Machine, Map<string, Places>>();
  placesCache.set(catalogue, byMachine);
  const byLane = byMachine.get(machine) ?? new Map<string, Places>();
  byMachine.set(machine, byLane);
  const known = byLane.get(lane) ?? checksFor(catalogue, machine, routeOf(machine, state.intake?.lane));
  byLane.set(lane, known);
  return known;
}

function knownCheck(state: OrderState, key: string, machine: Machine, catalogue: Catalogue) {
  const place = placesOf(state, machine, catalogue).find((candidate) => candidate.key === key);
  if (place) return place;
  const [check = '', station = ''] = key.split('@');
  if (!checkById(catalogue, check)) return refuse('/body/key', `The catalogue has no check "${check}".`);
  return refuse(
    '/body/key',
    `This machine has no place "${station}" for the check "${check}" on the path of this order.`,
  );
}

function finding(
  state: OrderState,
  event: OrderEvent & { type: 'finding-recorded' },
  machine: Machine,
  catalogue: Catalogue,
) {
  const { key, result, value } = event.body;
  const place = knownCheck(state, key, machine, catalogue);
  const { check } = place;
  const answers: readonly { id: string; depth?: boolean }[] = check.asks ? catalogue.onsets : check.results;
  const answer = answers.find((candidate) => candidate.id === result);
  if (!answer && result !== NOT_SURE) refuse('/body/result', `"${place.name}" has no result "${result}".`);
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
  return apply(state, event, machine, catalogue);
}
