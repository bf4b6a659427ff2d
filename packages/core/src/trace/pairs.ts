import type { Cause } from './causes';
import type { Evidence } from './suspicion';
import { allWays, resultShares } from './ways';

/** Two causes at once, both needed to explain what is seen. */
export interface Pair {
  /** Indices of the causes, in path order. */
  readonly first: number;
  readonly second: number;
  readonly prior: number;
  /** Likelihood by piece of evidence, in its order. */
  readonly likelihood: readonly number[];
}

/** Share of visits in which two things are wrong at once (chosen). */
export const PAIR_SHARE = 0.05;
/** Pairs are made of the causes that lead, and of those that explain single findings best. */
const LEADERS = 14;
const BEST_FOR_ONE = 3;
const MOST_CANDIDATES = 28;

const companions = (a: Cause, b: Cause): number =>
  a.stop.index === b.stop.index ? (a.mode.together?.[b.mode.id] ?? b.mode.together?.[a.mode.id] ?? 1) : 1;

/** Shares of what is to be seen of a cause, for the looks of the evidence. */
type Shares = readonly (readonly number[] | undefined)[];

/**
 * How likely a piece of evidence is when both causes are there: each shows in its own way, and the result that is looked
 * for first is the one found (noisy-or over the results in their order); at equal results the cause that comes first on
 * the path is met first.
 */
function bothLikelihood(item: Evidence, a: number, b: number, seenA: Shares[number], seenB: Shares[number]): number {
  const gA = item.given[a] ?? 0;
  const gB = item.given[b] ?? 0;
  if (typeof gA === 'number' && typeof gB === 'number') {
    if (item.both === 'least') return Math.min(gA, gB);
    if (item.both === 'mean') return (gA + gB) / 2;
    return item.both === 'most' ? Math.max(gA, gB) : gA;
  }
  // Out of reach of this check a cause is as good as not there.
  if (typeof gA === 'number') return item.likelihood[b] ?? 0;
  if (typeof gB === 'number') return item.likelihood[a] ?? 0;
  let sum = 0;
  seenA?.forEach((pA, i) => {
    if (pA > 0) seenB?.forEach((pB, j) => (sum += pA * pB * ((i <= j ? gA[i] : gB[j]) ?? 0)));
  });
  return sum;
}

/** The pairs that may matter: among the causes that lead by themselves, and those that explain one finding best. */
export function pairsWorthKeeping(
  causes: readonly Cause[],
  prior: readonly number[],
  evidence: readonly Evidence[],
  logLikelihood: readonly number[],
): readonly Pair[] {
  const n = causes.length;
  if (n < 2) return [];
  const score = causes.map((_, i) => Math.log(prior[i] ?? 0) + (logLikelihood[i] ?? 0));
  const byScore = causes.map((_, i) => i).sort((x, y) => (score[y] ?? 0) - (score[x] ?? 0) || x - y);
  const chosen = new Set(byScore.slice(0, LEADERS));
  for (const { likelihood } of evidence) {
    const best = causes
      .map((_, i) => i)
      .filter((i) => (prior[i] ?? 0) > 0)
      .sort((x, y) => (likelihood[y] ?? 0) * (prior[y] ?? 0) - (likelihood[x] ?? 0) * (prior[x] ?? 0) || x - y);
    best.slice(0, BEST_FOR_ONE).forEach((i) => chosen.add(i));
  }
  const candidates = [...chosen].sort((x, y) => (score[y] ?? 0) - (score[x] ?? 0) || x - y).slice(0, MOST_CANDIDATES);
  const listed = prior.slice(0, n).reduce((sum, x) => sum + x, 0) || 1;
  const share = (i: number): number => (prior[i] ?? 0) / listed;
  // Over all unordered pairs the products of shares sum to (1 − Σ share²) / 2.
  const whole = (1 - causes.reduce((sum, _, i) => sum + share(i) ** 2, 0)) / 2 || 1;
  const shares = new Map(
    candidates.map((i): [number, Shares] => [
      i,
      evidence.map(({ look, given }) =>
        look && typeof given[i] !== 'number' ? resultShares(allWays((causes[i] as Cause).mode), look) : undefined,
      ),
    ]),
  );
  const pairs: Pair[] = [];
  candidates.forEach((x, k) => {
    for (const y of candidates.slice(k + 1)) {
      const [first, second] = (causes[x] as Cause).stop.index <= (causes[y] as Cause).stop.index ? [x, y] : [y, x];
      const a = causes[first] as Cause;
      const b = causes[second] as Cause;
      const likelihood = evidence.map((item, i) =>
        bothLikelihood(item, first, second, shares.get(first)?.[i], shares.get(second)?.[i]),
      );
      pairs.push({
        first,
        second,
        prior: (PAIR_SHARE * share(first) * share(second) * companions(a, b)) / whole,
        likelihood,
      });
    }
  });
  return pairs;
}
