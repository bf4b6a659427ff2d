import type { Cause } from '../observation/causes';
import { STILL_ILL, type Evidence } from './evidence';
import { Joint, NEVER } from './joint';
import { MOST_FAULTS, setPrior } from './prior';

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

/** For an answer at once, for simulations; and as it serves on the bench: measured against `WIDE`, see `massLeftOut`. */
export const QUICK: Breadth = { pairs: 26, extended: 8, candidates: 16, worth: 0.12 };
export const USUAL: Breadth = { pairs: Infinity, extended: 40, candidates: 44, worth: 0.06 };
export const WIDE: Breadth = { pairs: Infinity, extended: 400, candidates: 1000, worth: 1e-4 };

/** Of the ways in which repairs may have touched a set, those that together weigh less than this are left out (chosen). */
const REMOVALS_LEFT_OUT = 0.005;

/** When each fault of a set may have been taken away, with the chance of it. */
function removals(
  set: readonly number[],
  removedBy: readonly (readonly number[])[],
): readonly { readonly at: readonly number[]; readonly chance: number }[] {
  let list: { at: readonly number[]; chance: number }[] = [{ at: [], chance: 1 }];
  for (const c of set) {
    const own: { at: number; chance: number }[] = [];
    let left = 1;
    removedBy.forEach((chances, k) => {
      const q = chances[c] ?? 0;
      if (q <= 0) return;
      own.push({ at: k, chance: left * q });
      left *= 1 - q;
    });
    own.push({ at: NEVER, chance: left });
    list = list.flatMap(({ at, chance }) => own.map((one) => ({ at: [...at, one.at], chance: chance * one.chance })));
  }
  const weighed = list
    .map((way) => ({ ...way, weight: way.chance * stillIll(way.at, removedBy.length) }))
    .sort((x, y) => y.weight - x.weight);
  const whole = weighed.reduce((sum, { weight }) => sum + weight, 0);
  let sum = 0;
  return weighed.filter(({ weight }) => {
    const kept = sum < whole * (1 - REMOVALS_LEFT_OUT);
    sum += weight;
    return kept;
  });
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

/**
 * Sets of faults by how well they explain what is known, best first, size by size: the sets of one size that lead are made
 * larger by one candidate each, as long as the last size holds a share worth it (candidate generation: de Kleer and Williams
 * 1987, Artificial Intelligence 32; top-n search in two-level noisy-or networks: Henrion 1991).
 */
export function hypotheses(
  causes: readonly Cause[],
  prior: readonly number[],
  evidence: readonly Evidence[],
  removedBy: readonly (readonly number[])[],
  breadth: Breadth = USUAL,
): readonly Weighed[] {
  const joint = new Joint(causes, evidence);
  const priorFor = setPrior(causes, prior);
  const found: Weighed[] = [];
  const treated = removedBy.length > 0;
  const weighSet = (set: readonly number[]): number => {
    const base = Math.log(priorFor(set));
    const keep = (at: readonly number[] | undefined, chance: number): number => {
      const log = base + Math.log(chance) + joint.logLikelihood(set, at);
      found.push({ set, now: at ? set.filter((_, i) => at[i] === NEVER) : set, log });
      return log;
    };
    return treated && removedBy.some((chances) => set.some((c) => (chances[c] ?? 0) > 0))
      ? logSum(removals(set, removedBy).map(({ at, chance }) => keep(at, chance)))
      : keep(undefined, 1);
  };
  const possible = causes.flatMap((_, c) => ((prior[c] ?? 0) > 0 ? [c] : []));
  const rank = ranksOf(causes);
  const inOrder = (set: readonly number[], c: number): readonly number[] => {
    const at = set.findIndex((other) => (rank[other] as number) > (rank[c] as number));
    return at < 0 ? [...set, c] : [...set.slice(0, at), c, ...set.slice(at)];
  };
  let level: readonly Sized[] = possible.map((c) => ({ set: [c], log: weighSet([c]) }));
  const pairing = leadersAlone(level, evidence, breadth.pairs);
  let candidates: readonly number[] = possible;
  let whole = logSum(level.map((item) => item.log));
  for (let size = 2; size <= MOST_FAULTS && level.length > 0; size++) {
    const next: Sized[] = [];
    if (size === 2)
      pairing.forEach((a, i) =>
        pairing.slice(i + 1).forEach((b) => {
          const set = inOrder([a], b);
          next.push({ set, log: weighSet(set) });
        }),
      );
    else extend(level, breadth.extended, candidates, inOrder, (set) => next.push({ set, log: weighSet(set) }));
    if (next.length === 0) break;
    if (size === 2) candidates = leaders(possible, next, breadth.candidates);
    const mass = logSum(next.map((item) => item.log));
    whole = logSum([whole, mass]);
    level = [...next].sort((a, b) => b.log - a.log);
    if (mass - whole < Math.log(breadth.worth)) break;
  }
  return found;
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

interface Sized {
  readonly set: readonly number[];
  readonly log: number;
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

/** The leading sets of one size, each made larger by every cause, each larger set once. */
function extend(
  level: readonly Sized[],
  most: number,
  possible: readonly number[],
  inOrder: (set: readonly number[], c: number) => readonly number[],
  each: (set: readonly number[]) => void,
): void {
  const base = Math.max(...possible) + 2;
  // Five faults of a few hundred causes fit into the 53 bits of a number.
  const seen = new Set<number>();
  for (const { set } of level.slice(0, most))
    for (const c of possible) {
      if (set.includes(c)) continue;
      const more = inOrder(set, c);
      const key = more.reduce((sum, x) => sum * base + x + 1, 0);
      if (seen.has(key)) continue;
      seen.add(key);
      each(more);
    }
}
