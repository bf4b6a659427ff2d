import type { Cause } from '../observation/causes';
import { STILL_ILL, type Evidence } from './evidence';
import { NEVER } from './given';
import { Joint } from './joint';
import { Foreseen, keyWith, type Larger, type Sized } from './foreseen';
import { MOST_FAULTS, SetPrior } from './prior';

/** A set of faults that were there together, and what repairs in vain have left of it. */
export interface Weighed {
  readonly set: readonly number[];
  /** Still there now. */
  readonly now: readonly number[];
  /** Natural logarithm of prior times likelihood. */
  readonly log: number;
}

/** How wide the search for sets of faults is. Wider finds more and takes longer. */
export interface Breadth {
  /** Causes that sets of two are made of: those that lead alone, and those that explain single observations best. */
  readonly pairs: number;
  /** Sets of each size from two on that are made larger by one. */
  readonly extended: number;
  /** Causes by which sets of two and more are made larger: those that matter most so far. */
  readonly candidates: number;
  /** A size is gone beyond when it holds at least this share of what is believed. */
  readonly worth: number;
}

/** A search for sets of three and more by what is expected of them. */
export interface ByExpectation {
  /** Goes on until so little of what is believed is expected to be left out, as a share. */
  readonly leftOut: number;
  /** Sets of one size that are weighed, at most. */
  readonly most: number;
}

/** What a search found, and what it is expected to have left out, as a share of what is believed. */
export interface SetsFound {
  /** What the faults of a set say of all that is known. */
  readonly joint: Joint;
  /** By which the sets were weighed. */
  readonly prior: SetPrior;
  readonly list: readonly Weighed[];
  readonly leftOut: number;
}

/** For an answer at once, for simulations; and as it serves on the bench: measured against `WIDE`, see `massLeftOut`. */
export const QUICK: Breadth = { pairs: 26, extended: 8, candidates: 16, worth: 0.12 };
export const USUAL: ByExpectation = { leftOut: 0.004, most: 16_000 };
export const WIDE: Breadth = { pairs: Infinity, extended: 400, candidates: 1000, worth: 1e-4 };

/** Of the ways in which repairs may have touched a set, those that together weigh less than this are left out (chosen). */
const REMOVALS_LEFT_OUT = 0.005;

/** One way in which repairs may have touched a set: by fault, the repair that took it away, or never. */
interface Removal {
  readonly at: readonly number[];
  /** Natural logarithm. */
  readonly log: number;
}

/** When each fault of a set may have been taken away, with the chance of it. Faults that repairs treat alike share the answer. */
class Removals {
  /** By cause: number of its kind, 0 where no repair touches it. */
  private readonly kind: readonly number[];
  private readonly own: readonly (readonly { readonly at: number; readonly chance: number }[])[];
  private readonly known = new Map<number, readonly Removal[]>();

  constructor(
    causes: number,
    private readonly removedBy: readonly (readonly number[])[],
  ) {
    const kinds = new Map<string, number>([[removedBy.map(() => 0).join(), 0]]);
    const own = [[{ at: NEVER, chance: 1 }]];
    this.kind = Array.from({ length: causes }, (_, c) => {
      const chances = removedBy.map((of) => of[c] ?? 0);
      const key = chances.join();
      const before = kinds.get(key);
      if (before !== undefined) return before;
      let left = 1;
      const mine = chances.flatMap((q, at) => {
        if (q <= 0) return [];
        const chance = left * q;
        left *= 1 - q;
        return [{ at, chance }];
      });
      kinds.set(key, own.length);
      return own.push([...mine, { at: NEVER, chance: left }]) - 1;
    });
    this.own = own;
  }

  /** Nothing where no repair touches any of them. */
  of(set: readonly number[]): readonly Removal[] | undefined {
    let key = 0;
    for (let i = 0; i < set.length; i++) key = key * this.own.length + (this.kind[set[i] as number] as number);
    if (key === 0) return undefined;
    // Sets of one size have keys of their own; sizes are told apart by where they begin.
    key = key * (MOST_FAULTS + 1) + set.length;
    const known = this.known.get(key);
    if (known) return known;
    const made = this.ways(set.map((c) => this.own[this.kind[c] as number] as (typeof this.own)[number]));
    this.known.set(key, made);
    return made;
  }

  private ways(faults: readonly (readonly { readonly at: number; readonly chance: number }[])[]): readonly Removal[] {
    const all = faults.reduce<readonly { readonly at: readonly number[]; readonly chance: number }[]>(
      (list, own) =>
        list.flatMap(({ at, chance }) => own.map((one) => ({ at: [...at, one.at], chance: chance * one.chance }))),
      [{ at: [], chance: 1 }],
    );
    const weighed = all
      .map((way) => ({ ...way, weight: way.chance * stillIll(way.at, this.removedBy.length) }))
      .sort((x, y) => y.weight - x.weight);
    const whole = weighed.reduce((sum, { weight }) => sum + weight, 0);
    let sum = 0;
    return weighed.flatMap(({ at, chance, weight }) => {
      const kept = sum < whole * (1 - REMOVALS_LEFT_OUT);
      sum += weight;
      return kept ? [{ at, log: Math.log(chance) }] : [];
    });
  }
}

/** How likely the machine was still ill after every one of the repairs, by when each fault was taken away. */
function stillIll(at: readonly number[], repairs: number): number {
  const last = Math.max(...at);
  let likelihood = 1;
  for (let k = 0; k < repairs; k++) likelihood *= last > k ? STILL_ILL.left : STILL_ILL.none;
  return likelihood;
}

const logSum = (logs: readonly number[]): number => {
  const top = Math.max(...logs);
  return Number.isFinite(top) ? top + Math.log(logs.reduce((sum, x) => sum + Math.exp(x - top), 0)) : -Infinity;
};

/** Weighs sets, and keeps what has been weighed. */
class Weighing {
  readonly found: Weighed[] = [];
  readonly prior: SetPrior;
  readonly joint: Joint;
  private readonly removals: Removals;
  /** By cause, its place in path order. */
  readonly rank: readonly number[];

  constructor(
    readonly causes: readonly Cause[],
    prior: readonly number[],
    evidence: readonly Evidence[],
    removedBy: readonly (readonly number[])[],
  ) {
    this.removals = new Removals(causes.length, removedBy);
    this.joint = new Joint(causes, evidence);
    this.prior = new SetPrior(causes, prior);
    this.rank = ranksOf(causes);
  }

  /** One more cause, in path order. */
  with(set: readonly number[], c: number): readonly number[] {
    const more = [...set, c];
    let at = set.length;
    for (; at > 0 && (this.rank[more[at - 1] as number] as number) > (this.rank[c] as number); at--)
      more[at] = more[at - 1] as number;
    more[at] = c;
    return more;
  }

  weigh(set: readonly number[]): Sized {
    const base = this.prior.log(set);
    const ways = this.removals.of(set);
    if (!ways) return { set, log: this.keep(set, base, undefined) };
    return { set, log: logSum(ways.map(({ at, log }) => this.keep(set, base + log, at))) };
  }

  private keep(set: readonly number[], base: number, at: readonly number[] | undefined): number {
    const log = base + this.joint.logLikelihood(set, at);
    this.found.push({ set, now: at ? set.filter((_, i) => at[i] === NEVER) : set, log });
    return log;
  }
}

/**
 * Sets of faults by how well they explain what is known, size by size (candidate generation: de Kleer and Williams 1987,
 * Artificial Intelligence 32; top-n search in two-level noisy-or networks: Henrion 1991). Of a narrow search the sets of one
 * size that lead are made larger by one candidate each, as long as the last size holds a share worth it; the usual one goes on
 * with whatever is expected to matter.
 */
export function hypotheses(
  causes: readonly Cause[],
  prior: readonly number[],
  evidence: readonly Evidence[],
  removedBy: readonly (readonly number[])[],
  breadth: Breadth | ByExpectation = USUAL,
): SetsFound {
  const weighing = new Weighing(causes, prior, evidence, removedBy);
  const possible = causes.flatMap((_, c) => ((prior[c] ?? 0) > 0 ? [c] : []));
  const alone = possible.map((c) => weighing.weigh([c]));
  if ('leftOut' in breadth) return byExpectation(weighing, alone, breadth);
  const pairing = leadersAlone(alone, evidence, breadth.pairs);
  let level = pairing.flatMap((a, i) => pairing.slice(i + 1).map((b) => weighing.weigh(weighing.with([a], b))));
  const candidates = leaders(possible, level, breadth.candidates);
  let whole = logSum(alone.map((item) => item.log));
  for (let size = 2; level.length > 0; size++) {
    const mass = logSum(level.map((item) => item.log));
    whole = logSum([whole, mass]);
    if (size === MOST_FAULTS || mass - whole < Math.log(breadth.worth)) break;
    level = extend([...level].sort((a, b) => b.log - a.log).slice(0, breadth.extended), candidates, weighing);
  }
  return { prior: weighing.prior, joint: weighing.joint, list: weighing.found, leftOut: NaN };
}

/** All pairs, and of larger sets those that are expected to matter, until next to nothing is left out. */
function byExpectation(weighing: Weighing, alone: readonly Sized[], { leftOut, most }: ByExpectation): SetsFound {
  const possible = alone.map(({ set }) => set[0] as number);
  let level: readonly Sized[] = possible.flatMap((a, i) =>
    possible.slice(i + 1).map((b) => weighing.weigh(weighing.with([a], b))),
  );
  const foreseen = new Foreseen(weighing.rank, weighing.prior, alone, level);
  let whole = logSum([...alone, ...level].map((item) => item.log));
  let out = 0;
  for (let size = 3; size <= MOST_FAULTS && level.length > 0; size++) {
    const done = weighLarger(weighing, foreseen.larger(level, whole), whole, leftOut / 2 ** (size - 2), most);
    level = done.level;
    out += done.rest;
    whole = logSum([whole, ...level.map((item) => item.log)]);
  }
  return { prior: weighing.prior, joint: weighing.joint, list: weighing.found, leftOut: out };
}

/** So many sets, in one class or in several that follow one another, say how far what was expected of them comes true. */
const ENOUGH_TO_TELL = 50;
/** However far off the most expected classes are: sets that are expected to hold little are foreseen better (chosen). */
const LEAST_TRUE = 0.3;

/** Class by class, until what the rest may be expected to hold, as far as expectations came true so far, may be left out. */
function weighLarger(
  weighing: Weighing,
  foreseen: Larger,
  whole: number,
  leftOut: number,
  most: number,
): { readonly level: readonly Sized[]; readonly rest: number } {
  const level: Sized[] = [];
  const { classes } = foreseen;
  let rest = classes.reduce((sum, { expected }) => sum + expected, 0);
  let last = 1;
  // Nothing is known of it before some have been weighed: where little is expected, more may be there.
  let comesTrue: number | undefined;
  let told = { sets: 0, held: 0, expected: 0 };
  for (const { sets, expected } of classes) {
    const enough = comesTrue !== undefined && rest * comesTrue <= leftOut;
    if (enough || level.length + sets.length > most) break;
    if (sets.length === 0) continue;
    let { held } = told;
    for (const code of sets) {
      const { set, add } = foreseen.at(code);
      const weighed = weighing.weigh(weighing.with(set, add));
      level.push(weighed);
      held += Math.exp(weighed.log - whole);
    }
    rest = Math.max(0, rest - expected);
    told = { sets: told.sets + sets.length, held, expected: told.expected + expected };
    if (told.sets < ENOUGH_TO_TELL) continue;
    const now = told.held / told.expected;
    comesTrue = Math.max(LEAST_TRUE, last, now);
    last = now;
    told = { sets: 0, held: 0, expected: 0 };
  }
  return { level, rest: rest * (comesTrue ?? 1) };
}

/** Place of each cause when they are put in path order. */
function ranksOf(causes: readonly Cause[]): readonly number[] {
  const rank = causes.map(() => 0);
  causes
    .map((_, c) => c)
    .sort((x, y) => (causes[x]?.stop.index ?? 0) - (causes[y]?.stop.index ?? 0) || x - y)
    .forEach((c, at) => (rank[c] = at));
  return rank;
}

/** Causes that lead alone, with those that explain single observations best; a third of the places is theirs. */
function leadersAlone(alone: readonly Sized[], evidence: readonly Evidence[], most: number): readonly number[] {
  const byScore = [...alone].sort((a, b) => b.log - a.log).map(({ set }) => set[0] as number);
  if (byScore.length <= most) return byScore;
  const chosen = new Set(byScore.slice(0, Math.ceil((most * 2) / 3)));
  const first = byScore[0] as number;
  const gain = (item: Evidence, c: number): number => (item.likelihood[c] ?? 0) / (item.likelihood[first] || 1e-9);
  const worst = [...evidence].sort(
    (a, b) => (a.likelihood[first] ?? 0) / a.elsewhere - (b.likelihood[first] ?? 0) / b.elsewhere,
  );
  for (const item of worst)
    for (const c of [...byScore].sort((x, y) => gain(item, y) - gain(item, x)).slice(0, 2))
      if (chosen.size < most && gain(item, c) > 2) chosen.add(c);
  for (const c of byScore) if (chosen.size < most) chosen.add(c);
  return [...chosen];
}

/** Causes by the share that they have in sets of two. */
function leaders(possible: readonly number[], pairs: readonly Sized[], most: number): readonly number[] {
  if (possible.length <= most) return possible;
  const top = pairs.reduce((best, { log }) => Math.max(best, log), -Infinity);
  const share = new Map<number, number>();
  for (const { set, log } of pairs) for (const c of set) share.set(c, (share.get(c) ?? 0) + Math.exp(log - top));
  return [...possible].sort((x, y) => (share.get(y) ?? 0) - (share.get(x) ?? 0) || x - y).slice(0, most);
}

/** Sets made larger by every candidate, each larger set once. */
function extend(level: readonly Sized[], candidates: readonly number[], weighing: Weighing): Sized[] {
  const seen = new Set<number>();
  return level.flatMap(({ set }) =>
    candidates.flatMap((c) => {
      if (set.includes(c)) return [];
      const key = keyWith(set, c, weighing.rank);
      if (seen.has(key)) return [];
      seen.add(key);
      return [weighing.weigh(weighing.with(set, c))];
    }),
  );
}
