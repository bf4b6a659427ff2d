import type { Cause } from '../observation/causes';
import type { Evidence } from './evidence';
import { NEVER } from './given';
import { Joint } from './joint';
import { Foreseen, keyWith, type Sized } from './foreseen';
import { weighLarger } from './larger';
import { leaders, leadersAlone } from './leaders';
import { MOST_FAULTS, SetPrior } from './prior';
import { Removals } from './removals';

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

/** Place of each cause when they are put in path order. */
function ranksOf(causes: readonly Cause[]): readonly number[] {
  const rank = causes.map(() => 0);
  causes
    .map((_, c) => c)
    .sort((x, y) => (causes[x]?.stop.index ?? 0) - (causes[y]?.stop.index ?? 0) || x - y)
    .forEach((c, at) => (rank[c] = at));
  return rank;
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
