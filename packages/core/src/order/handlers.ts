import { modeById, remedyById, resultOf } from '../catalogue/index';
import { mayBeAbsent } from '../bench/state';
import type { Catalogue, Proved } from '../catalogue/types';
import { stationById, type Machine } from '../path/machine';
import { routeOf } from '../path/route';
import { keyOf } from '../bench/stepKeys';
import { finding, knownCheck, strandAfter } from './findings';
import type { OrderEvent } from './events';
import { putRight, takeIn } from './intake';
import { partsMoved, stateChanged } from './moves';
import { causesUnderWork, clearedSoFar, triesAt } from './causes';
import { fastenersMoved } from './fasteners';
import { benchChanged } from './heat';
import { refuse } from './refuse';
import { type OrderState } from './state';
import { wayPicked } from './wayPicked';

/** What a handler is given: the state before, the same with the event's moment, and the event. */
interface At<T extends OrderEvent['type']> {
  readonly state: OrderState;
  readonly next: OrderState;
  readonly event: OrderEvent & { readonly type: T };
  readonly machine: Machine;
  readonly catalogue: Catalogue;
  readonly atMs: number;
}
type Handlers = { readonly [T in OrderEvent['type']]: (at: At<T>) => OrderState };

/** Whether the plug is out with a cause: its name says so, and nothing else stops the heater. */
const pulledFor = (catalogue: Catalogue, mode: string): boolean => modeById(catalogue, mode)?.pullsPlug === true;

/** What each kind of event does to an order; each throws RefusedEvent when it does not fit. */
export const HANDLERS: Handlers = {
  'taken-in': ({ next, event, machine, catalogue }) => {
    return takeIn(next, event, machine, catalogue);
  },
  'intake-corrected': ({ next, event, machine, catalogue }) => {
    return putRight(next, event, machine, catalogue);
  },
  'finding-recorded': ({ state, next, event, machine, catalogue, atMs }) => {
    return {
      ...next,
      ...(resultOf(catalogue, event.body)?.pullsPlug ? benchChanged(state, { power: 'off' }, atMs, machine) : {}),
      findings: [...state.findings, finding(state, event, machine, catalogue)],
      strand: strandAfter(state, event, machine, catalogue),
    };
  },
  'finding-marked': ({ state, next, event }) => {
    const { findingId, innocent } = event.body;
    if (!state.findings.some(({ id }) => id === findingId))
      refuse('/body/findingId', 'There is no such finding in this order.');
    return {
      ...next,
      findings: state.findings.map((item) => (item.id === findingId ? { ...item, innocent } : item)),
    };
  },
  'check-not-done': ({ state, next, event, machine, catalogue }) => {
    knownCheck(state, event.body.key, machine, catalogue);
    return { ...next, notDone: [...state.notDone, { id: event.id, ...event.body }] };
  },
  'event-withdrawn': ({ next }) => {
    return next;
  },
  'bench-changed': ({ state, next, event, machine, atMs }) => {
    return {
      ...next,
      ...benchChanged(state, event.body, atMs, machine),
      ...stateChanged(state, event.body, machine),
    };
  },
  'cooling-measured': ({ state, next, event }) => {
    const { tauS, tauSd, readings } = event.body;
    return { ...next, heat: { ...state.heat, cooling: { tauS, tauSd, readings } } };
  },
  'parts-moved': ({ next, event, machine }) => {
    return partsMoved(next, event.body, machine);
  },
  'fasteners-moved': ({ state, next, event, machine }) => {
    return { ...next, fasteners: fastenersMoved(state, event.body, machine) };
  },
  'cause-added': ({ state, next, event, machine, catalogue, atMs }) => {
    const { station, mode } = event.body;
    if (!state.cause) refuse('/type', 'Choose a cause first.');
    knownCause(state, event.body, machine, catalogue);
    if (causesUnderWork(state).some((known) => known.station === station && known.mode === mode))
      refuse('/body/mode', 'This is under work already.');
    const unplugged = pulledFor(catalogue, mode) ? benchChanged(state, { power: 'off' }, atMs, machine) : {};
    return { ...next, ...unplugged, also: [...state.also, { eventId: event.id, station, mode, advised: false }] };
  },
  'rung-picked': ({ state, next, event, catalogue }) => {
    if (!causesUnderWork(state).some(({ station, mode }) => station === event.body.station && mode === event.body.mode))
      refuse('/body/mode', 'This cause is not under work.');
    if (!remedyById(catalogue, event.body.remedy))
      refuse('/body/remedy', `The catalogue has no remedy "${event.body.remedy}".`);
    return { ...next, picked: event.body };
  },
  'way-picked': ({ state, next, event, machine }) => {
    return { ...next, pickedWays: wayPicked(state, event.body, machine) };
  },
  'solvent-tried': ({ state, next, event, catalogue }) => {
    if (!catalogue.solvents.some(({ id }) => id === event.body.solvent))
      refuse('/body/solvent', `The catalogue has no solvent "${event.body.solvent}".`);
    return { ...next, solvents: { ...state.solvents, [event.body.solvent]: event.body.softened } };
  },
  'step-skipped': ({ state, next, event, machine }) => {
    if (!state.cause) refuse('/type', 'There is no work plan: choose a cause first.');
    return {
      ...next,
      absent: [...state.absent, ...notHere(state, event.body.stepId, machine)],
      steps: { ...state.steps, [event.body.stepId]: { ...stamp(event), skipped: event.body.why } },
    };
  },
  'cause-chosen': ({ state, next, event, machine, catalogue, atMs }) => {
    const { station, mode, advised } = event.body;
    knownCause(state, event.body, machine, catalogue);
    const cause = { eventId: event.id, station, mode, advised };
    const unplugged = pulledFor(catalogue, mode) ? benchChanged(state, { power: 'off' }, atMs, machine) : {};
    return { ...fresh(next), ...unplugged, cause, cured: [...state.cured, ...clearedSoFar(state)] };
  },
  'cause-dropped': ({ state, next }) => {
    if (!state.cause) refuse('/type', 'No cause is chosen.');
    return withoutCause(next);
  },
  'step-done': ({ state, next, event }) => {
    if (!state.cause) refuse('/type', 'There is no work plan: choose a cause first.');
    return { ...next, steps: { ...state.steps, [event.body.stepId]: stamp(event, event.body.override) } };
  },
  'rung-tried': ({ state, next, event, catalogue }) => {
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
  },
  'timer-started': ({ state, next, event, atMs }) => {
    const { timerId: id, label, minutes } = event.body;
    return {
      ...next,
      timers: [...state.timers.filter((timer) => timer.id !== id), { id, label, endsMs: atMs + minutes * 60_000 }],
    };
  },
  'timer-stopped': ({ state, next, event }) => {
    return { ...next, timers: state.timers.filter((timer) => timer.id !== event.body.timerId) };
  },
  'part-replaced': ({ state, next, event, machine }) => {
    if (!stationById(machine, event.body.station))
      refuse('/body/station', `This machine has no station "${event.body.station}".`);
    return { ...next, proofs: {}, parts: [...state.parts, { ...event.body, at: event.at }] };
  },
  'proof-recorded': ({ state, next, event, catalogue }) => {
    const { proof } = event.body;
    if (!state.cause) refuse('/type', 'Nothing was repaired yet: there is nothing to prove.');
    if (!catalogue.proofs.some((known) => known.id === proof))
      refuse('/body/proof', `The catalogue has no proof "${proof}".`);
    // A strand was run through it: whether one is in it now is looked at again.
    return {
      ...next,
      strand: {},
      proofs: { ...state.proofs, [proof]: { ...event.body, at: event.at, eventId: event.id } },
    };
  },
  'curve-measured': ({ next, event }) => {
    return { ...next, curve: event.body.points };
  },
  'not-cured': ({ state, next, event }) => {
    if (!state.cause) refuse('/type', 'Nothing was repaired yet.');
    const { proof } = event.body;
    const proved = provedSoFar(state, proof);
    const failures = causesUnderWork(state).map(({ station, mode }, i) => ({
      id: i === 0 ? event.id : `${event.id}/${i}`,
      station,
      mode,
      remedies: triesAt(state, { station, mode }).map((item) => item.remedy),
      after: state.findings.length,
      ...(proof ? { proof } : {}),
      // Said once, however many causes were under work.
      ...(i === 0 && proved.length > 0 ? { proved } : {}),
    }));
    return { ...withoutCause(next), strand: {}, failures: [...state.failures, ...failures] };
  },
  'photo-added': ({ state, next, event }) => {
    if (state.photos.some(({ photoId }) => photoId === event.body.photoId))
      refuse('/body/photoId', 'This picture is in the order already.');
    return {
      ...next,
      photos: [...state.photos, { ...event.body, at: event.at, by: event.by, eventId: event.id, markers: [] }],
    };
  },
  'photo-marked': ({ state, next, event }) => {
    const { photoId, markers } = event.body;
    if (!state.photos.some((photo) => photo.photoId === photoId))
      refuse('/body/photoId', 'There is no such picture in this order.');
    return {
      ...next,
      photos: state.photos.map((photo) => (photo.photoId === photoId ? { ...photo, markers } : photo)),
    };
  },
  'note-added': ({ state, next, event }) => {
    // What was written is kept, also when the finding that it was about is taken back.
    return { ...next, notes: [...state.notes, { at: event.at, by: event.by, ...event.body }] };
  },
  closed: ({ next, event }) => {
    return { ...next, timers: [], closed: { ...event.body, eventId: event.id, at: event.at, by: event.by } };
  },
};

/** Proofs of the repair at hand; the one that is named as the reason failed, noted or not. */
const provedSoFar = (state: OrderState, named: string | undefined): readonly Proved[] => [
  ...Object.values(state.proofs).flatMap(({ proof, passed }) => (proof === named ? [] : [{ proof, passed }])),
  ...(named === undefined ? [] : [{ proof: named, passed: false }]),
];

const stamp = (event: OrderEvent, override?: string) => ({
  at: event.at,
  by: event.by,
  ...(override === undefined ? {} : { override }),
});

/** A cause that is new lies at a kind of station that can have it; one that is stored stays, whatever the catalogue says now. @throws RefusedEvent */
export function possibleCause(
  { station: id, mode: modeId }: { readonly station: string; readonly mode: string },
  machine: Machine,
  catalogue: Catalogue,
): void {
  const station = stationById(machine, id);
  const mode = modeById(catalogue, modeId);
  if (station && mode && mode.where[station.kind] === undefined)
    refuse('/body/mode', `"${mode.name}" is no failure of ${station.name}.`);
}

/** A cause lies on the path of the order. @throws RefusedEvent */
function knownCause(
  { intake }: OrderState,
  { station: id, mode: modeId }: { readonly station: string; readonly mode: string },
  machine: Machine,
  catalogue: Catalogue,
): void {
  const mode = modeById(catalogue, modeId);
  if (!mode) return refuse('/body/mode', `The catalogue has no failure mode "${modeId}".`);
  const station = stationById(machine, id);
  if (!station) return refuse('/body/station', `This machine has no station "${id}".`);
  if (!routeOf(machine, intake?.lane).stops.some((stop) => stop.station.id === id))
    refuse(
      '/body/station',
      `"${station.name}" is not on the path of this order: take the other lane in as an order of its own.`,
    );
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

/** The part that a skipped step would have taken off: this machine has not got it, or it need not come off. */
function notHere(state: OrderState, stepId: string, machine: Machine): readonly string[] {
  const [kind, rest = ''] = keyOf(stepId).split(/:(.*)/s);
  const part = rest.split('/')[0] ?? '';
  if (kind !== 'open' || state.off.includes(part)) return [];
  if (!mayBeAbsent(machine, part))
    refuse(
      '/body/stepId',
      'What carries plugs, heat or the strand is not passed over: take it off, or say that it is off already.',
    );
  return [part];
}
