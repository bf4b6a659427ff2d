import { causesOf, type Cause } from '../observation/causes';
import type { Case, Finding } from '../observation/context';
import type { CheckAtPlace } from '../bench/places';
import { lookTable } from '../observation/looks';
import { allWays, observed, type Ways } from '../observation/ways';
import { weightsOf } from '../observation/witness';
import type { Route } from '../path/route';
import type { Evidence } from './evidence';
import { evidenceOf } from './evidenceOf';
import { MOST_FAULTS, priorOf, type SetPrior } from './prior';
import { removedBy } from './removal';
import { hypotheses, USUAL, WIDE, type Breadth, type ByExpectation, type Weighed } from './hypotheses';
import { LEAST } from './given';
import { unlisted } from './likeness';

/** Faults that are there at the same time now. */
export interface FaultSet {
  /** Indices of the causes, in path order. */
  readonly causes: readonly number[];
  readonly p: number;
}

/** What is believed, given the evidence. */
export interface Suspicion {
  /** Sets of one are first, by cause; larger ones follow, likeliest first. */
  readonly sets: readonly FaultSet[];
  /** As `sets`, then `elsewhere`; sums to one. */
  readonly p: readonly number[];
  /** By cause, that it is there, alone or with others, then `elsewhere`. */
  readonly share: readonly number[];
  /** By cause, what it would hold if nothing spoke for or against it, as one more fault beside those that explain what is known. */
  readonly bystander: readonly number[];
  /** By cause, that it was there and a repair took it away, though that did not cure. */
  readonly removed: readonly number[];
  /** Of what is on no list, how far it is believed to lie aside of the path. */
  readonly aside: number;
  /** By cause: of what is on no list and shows on the path, how far it is believed to show as this one does. */
  readonly like: readonly number[];
  /** The ways in which a cause may be showing itself; worked out when it is first asked for. */
  readonly waysOf: (cause: number) => Ways;
  /** Share of what is believed that the search is expected to have left out; not a number where it was a narrow one. */
  readonly leftOut: number;
}

/** Larger sets below this share are not carried on: all together they are well under a per cent. */
const LEAST_SHARE = 1e-6;

/** Sets below this share add nothing that any digit would show. */
const NEGLIGIBLE = 1e-9;

/** By cause: how one fault by itself may be showing, as far as has been looked. */
export function shownWays(causes: readonly Cause[], evidence: readonly Evidence[]): (cause: number) => Ways {
  const weightsFor = weightsOf(evidence);
  const known: Ways[] = [];
  const work = (c: number): Ways => {
    const cause = causes[c];
    if (!cause) throw new RangeError(`There is no cause number ${c}.`);
    const weights = weightsFor([cause]);
    let seen = allWays(cause.mode);
    evidence.forEach(({ look, given }, i) => {
      const g = given[c];
      // Of a fault that shows none of the sides looked at, it tells nothing more.
      if (typeof g !== 'number' && g && look && lookTable(look, cause.mode).facets.length > 0)
        seen = observed(
          seen,
          look,
          g.map((x) => Math.max(x, LEAST) ** (weights[i] ?? 1)),
        );
    });
    return seen;
  };
  return (c) => (known[c] ??= work(c));
}

/** Taken in by id: the order in which findings came must not show, not even in the last bit. */
const byId = (known: readonly Evidence[]): readonly Evidence[] => [...known].sort((a, b) => (a.id < b.id ? -1 : 1));

/** By cause, from what the sets without it hold and how many have one fault more: see `Suspicion.bystander`. */
function bystanders(of: SetPrior, found: readonly Weighed[], mass: (item: Weighed) => number): readonly number[] {
  const causes = of.logShare.length;
  // By number of faults: all sets, and those with a cause.
  const whole = new Float64Array(MOST_FAULTS + 1);
  const having = Array.from({ length: MOST_FAULTS + 1 }, () => new Float64Array(causes));
  for (const item of found) {
    const [k, m] = [item.set.length, mass(item)];
    whole[k] = (whole[k] as number) + m;
    const row = having[k] as Float64Array;
    for (const c of item.set) row[c] = (row[c] as number) + m;
  }
  return Array.from({ length: causes }, (_, c) => {
    let sum = 0;
    for (let k = 1; k < MOST_FAULTS; k++) {
      const more = Math.exp(of.of(k + 1, of.logShare[c] as number, 0) - of.of(k, 0, 0));
      sum += ((whole[k] as number) - ((having[k] as Float64Array)[c] as number)) * more;
    }
    return sum;
  });
}

/** Weighs every cause, the sets worth keeping, and `elsewhere` by the evidence. `gone` is by repair in vain and cause. */
export function weigh(
  causes: readonly Cause[],
  prior: readonly number[],
  known: readonly Evidence[],
  gone: readonly (readonly number[])[] = [],
  breadth: Breadth | ByExpectation = USUAL,
): Suspicion {
  const evidence = byId(known);
  const n = causes.length;
  const { prior: of, joint, list: found, leftOut } = hypotheses(causes, prior, evidence, gone, breadth);
  const { log: noList, aside, like } = unlisted(causes, prior, evidence, joint);
  const elsewhere = Math.log(prior[n] ?? 0) + noList;
  const top = found.reduce((most, { log }) => Math.max(most, log), elsewhere);
  const mass = ({ log }: Pick<Weighed, 'log'>): number => Math.exp(log - top);
  const total = found.reduce((sum, item) => sum + mass(item), mass({ log: elsewhere }));
  const removed = causes.map(() => 0);
  let nothing = mass({ log: elsewhere }) / total;
  const single = causes.map(() => 0);
  const larger = new Map<string, { causes: readonly number[]; p: number }>();
  const whole: FaultSet[] = [];
  for (const item of found) {
    const p = mass(item) / total;
    if (p < NEGLIGIBLE && item.set.length > 1) continue;
    for (const c of item.set) if (!item.now.includes(c)) removed[c] = (removed[c] ?? 0) + p;
    const [first] = item.now;
    if (first === undefined) nothing += p;
    else if (item.now.length === 1) single[first] = (single[first] ?? 0) + p;
    // Where no repair has left less of one, no two are the same.
    else if (gone.length === 0) {
      if (p >= LEAST_SHARE) whole.push({ causes: item.now, p });
    } else {
      const key = item.now.join();
      const entry = larger.get(key) ?? { causes: item.now, p: 0 };
      entry.p += p;
      larger.set(key, entry);
    }
  }
  const kept = [...whole, ...[...larger.values()].filter(({ p }) => p >= LEAST_SHARE)].sort((a, b) => b.p - a.p);
  const sets = [...single.map((p, c): FaultSet => ({ causes: [c], p })), ...kept];
  const all = sets.reduce((sum, { p }) => sum + p, nothing);
  const bystander = bystanders(of, found, (item) => mass(item) / total);
  const p = [...sets.map((set) => set.p / all), nothing / all];
  const share = causes.map(() => 0);
  sets.forEach(({ causes: set }, h) => set.forEach((c) => (share[c] = (share[c] ?? 0) + (p[h] ?? 0))));
  return {
    sets,
    p,
    share: [...share, p.at(-1) ?? 0],
    bystander,
    removed,
    aside,
    like,
    waysOf: shownWays(causes, evidence),
    leftOut,
  };
}

/**
 * Share of what is believed that the usual search for sets of faults leaves out, against one several times as wide: for the
 * debug output and the case bench.
 */
export function massLeftOut(
  causes: readonly Cause[],
  prior: readonly number[],
  known: readonly Evidence[],
  gone: readonly (readonly number[])[] = [],
): number {
  const evidence = byId(known);
  const logs = (breadth: Breadth | ByExpectation): Map<string, number> =>
    new Map(
      hypotheses(causes, prior, evidence, gone, breadth).list.map(({ set, now, log }) => [
        `${set.join()}>${now.join()}`,
        log,
      ]),
    );
  const [usual, wide] = [logs(USUAL), logs(WIDE)];
  const found = new Map([...wide, ...usual]);
  const all = [...found.values(), Math.log(prior[causes.length] ?? 0) + unlisted(causes, prior, evidence).log];
  // There may be more of them than a call takes arguments.
  const top = all.reduce((most, log) => Math.max(most, log), -Infinity);
  const total = all.reduce((sum, log) => sum + Math.exp(log - top), 0);
  let out = 0;
  for (const [key, log] of found) if (!usual.has(key)) out += Math.exp(log - top);
  return out / total;
}

/** Causes of a case on a route, and what is believed of them. */
export function suspect(
  kase: Case,
  route: Route,
  places: ReadonlyMap<string, CheckAtPlace>,
  findings: readonly Finding[],
  breadth: Breadth | ByExpectation = USUAL,
) {
  const causes = causesOf(kase, route);
  const prior = priorOf(causes);
  const evidence = evidenceOf(kase, causes, places, findings);
  return { causes, prior, evidence, ...weigh(causes, prior, evidence, removedBy(kase, causes), breadth) };
}
