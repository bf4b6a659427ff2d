import { materialOf } from '../catalogue/index';
import type { Catalogue } from '../catalogue/types';
import type { Route } from '../path/route';
import type { Cause } from '../observation/causes';
import type { Case, Finding } from '../observation/context';
import { GivenTable } from '../observation/given';
import { outcomesOf, soundAnswer, type Outcome } from '../observation/likelihood';
import type { CheckAtPlace } from '../bench/places';
import { apartOf, foundAt, type Apart, type ApartLook } from './apart';
import { keptOf } from './kept';
import { repairGroups, type RepairGroup } from './repairs';
import { priorOf } from '../inference/prior';
import { removedBy } from '../inference/removal';
import type { Suspicion } from '../inference/suspicion';
import { KeptWith } from '../quantities/keptWith';

/** Everything about a machine and an order that does not change while findings come in. */
export interface Model {
  readonly kase: Case;
  readonly route: Route;
  readonly causes: readonly Cause[];
  /** By cause, `elsewhere` last. */
  readonly prior: readonly number[];
  readonly places: readonly CheckAtPlace[];
  readonly outcomes: readonly (readonly Outcome[])[];
  /** By place and cause: what each outcome says. */
  readonly given: GivenTable;
  /** By place and outcome: likelihood if nothing on the path is wrong. */
  readonly sound: readonly (readonly number[])[];
  readonly groups: readonly RepairGroup[];
  /** By cause: index of its group, −1 when no remedy is left. */
  readonly groupOf: readonly number[];
  readonly hotC: number;
  /** The way through the path when it is taken apart. */
  readonly way: Apart;
  /** By cause: where it comes to sight on that way; undefined where no opening shows it. */
  readonly shownAt: readonly (ApartLook | undefined)[];
  /** By repair in vain and cause, the chance that it took the fault away. */
  readonly removed: readonly (readonly number[])[];
}

/** What a check says where nothing on the path is wrong; when it began has nothing to do with the path. */
const soundOf = (place: CheckAtPlace, outcomes: readonly Outcome[]): readonly number[] =>
  outcomes.map((outcome) => (place.check.asks ? 1 / outcomes.length : soundAnswer(place, outcome)));

/** By place, what it may answer, and how likely each answer is where nothing on the path is wrong. */
interface Answers {
  readonly outcomes: readonly (readonly Outcome[])[];
  readonly sound: readonly (readonly number[])[];
}

const ANSWERS = new KeptWith<Catalogue, readonly CheckAtPlace[], Answers>();

const answersOf = (catalogue: Catalogue, places: readonly CheckAtPlace[], route: Route): Answers =>
  ANSWERS.of(catalogue, places, () => {
    const outcomes = places.map((place) => outcomesOf(place, route, catalogue));
    return { outcomes, sound: places.map((place, i) => soundOf(place, outcomes[i] ?? [])) };
  });

export const groupIndex = (groups: readonly RepairGroup[], causes: readonly Cause[]): readonly number[] => {
  const of = causes.map(() => -1);
  groups.forEach((group, g) => group.causes.forEach((cause) => (of[cause] = g)));
  return of;
};

export function modelOf(kase: Case, route: Route, causes: readonly Cause[], places: readonly CheckAtPlace[]): Model {
  const prior = priorOf(causes);
  const { outcomes, sound } = answersOf(kase.catalogue, places, route);
  const groups = repairGroups(kase, route, causes);
  const given = new GivenTable(kase.catalogue, places, outcomes, causes);
  const hotC = Math.min(materialOf(kase.catalogue, kase.material).printC, kase.machine.heat.limitC);
  const way = apartOf(kase.machine, route, places, hotC);
  return {
    kase,
    route,
    causes,
    prior,
    places,
    outcomes,
    given,
    sound,
    groups,
    groupOf: groupIndex(groups, causes),
    way,
    shownAt: causes.map((cause) => foundAt(way, cause, places)),
    removed: removedBy(kase, causes),
    hotC,
  };
}

/** The same model where the case has changed in what bears on repairs only. */
export function withCase(model: Model, kase: Case): Model {
  const groups = repairGroups(kase, model.route, model.causes);
  return { ...model, kase, groups, groupOf: groupIndex(groups, model.causes) };
}

/** The same model with what swaps that cured have left in the machine. */
export function withKept(model: Model, findings: readonly Finding[]): Model {
  const kept = keptOf(model.places, model.route, findings, model.kase.failed);
  if (kept.length === 0 && !model.kase.kept?.length) return model;
  return withCase(model, { ...model.kase, kept });
}

/** A hypothesis that is still in play: faults that are there together, or `elsewhere` (none). */
export interface Live {
  readonly index: number;
  readonly causes: readonly number[];
}

/** Stops at which a set of faults has one, each once. */
export function stopsOf(model: Model, causes: readonly number[]): readonly number[] {
  const stops: number[] = [];
  for (const c of causes) {
    const at = model.causes[c]?.stop.index;
    if (at !== undefined && !stops.includes(at)) stops.push(at);
  }
  return stops;
}

/** What is believed of the stations is asked from several sides. */
const SHARES = new KeptWith<Model, Pick<Suspicion, 'sets' | 'p'>, readonly number[]>();

/** By stop of the route, in its order: probability that a fault is there; two at one place count once. */
export const stationShares = (model: Model, suspicion: Pick<Suspicion, 'sets' | 'p'>): readonly number[] =>
  SHARES.of(model, suspicion, () => sharesOf(model, suspicion));

function sharesOf(model: Model, { sets, p }: Pick<Suspicion, 'sets' | 'p'>): readonly number[] {
  const shares = model.route.stops.map(() => 0);
  sets.forEach(({ causes }, h) => {
    for (const at of stopsOf(model, causes)) shares[at] = (shares[at] ?? 0) + (p[h] ?? 0);
  });
  return shares;
}

/** The same before anything is known of this order. */
export const priorShares = (model: Model): readonly number[] =>
  sharesOf(model, { sets: model.causes.map((_, c) => ({ causes: [c], p: 0 })), p: model.prior });

/** Hypotheses below this share, beyond the first few, cannot change a decision (chosen). */
const LIVE_SHARE = 1e-3;
const MOST_LIVE = 80;

/** The hypotheses in play, `elsewhere` last, and their shares made whole. */
export function liveOf(
  model: Model,
  suspicion: Suspicion,
  most = MOST_LIVE,
): { readonly live: readonly Live[]; readonly p: Float64Array } {
  const last = suspicion.p.length - 1;
  const order = suspicion.p
    .map((_, i) => i)
    .filter((i) => i !== last && (suspicion.p[i] ?? 0) >= LIVE_SHARE)
    .sort((a, b) => (suspicion.p[b] ?? 0) - (suspicion.p[a] ?? 0) || a - b)
    .slice(0, most);
  const live = [...order, last].map((index): Live => {
    return { index, causes: suspicion.sets[index]?.causes ?? [] };
  });
  const p = Float64Array.from(live, ({ index }) => suspicion.p[index] ?? 0);
  const total = p.reduce((sum, x) => sum + x, 0);
  return { live, p: p.map((x) => x / total) };
}
