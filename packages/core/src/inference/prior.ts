import { ELSEWHERE_SHARE, type Cause } from '../observation/causes';

/** Prior over the causes, then `elsewhere` last. Sums to one. */
export function priorOf(causes: readonly Cause[]): readonly number[] {
  const total = causes.reduce((sum, cause) => sum + cause.weight, 0);
  return [
    ...causes.map((cause) => (total > 0 ? ((1 - ELSEWHERE_SHARE) * cause.weight) / total : 0)),
    total > 0 ? ELSEWHERE_SHARE : 1,
  ];
}

/** Share of visits in which one more thing is wrong than the last (chosen): two at once in 10 %, three in one. */
export const FURTHER_SHARE = 0.1;
/** The same fault elsewhere on one machine: same maker, batch, age, same hands (chosen). */
const SAME_ORIGIN = 8;
/** Most that faults of one origin may raise each other, over all pairs of a set (chosen). */
const MOST_RAISED = 300;
/** Faults at one time, at most. */
export const MOST_FAULTS = 5;

/** How many times likelier two faults are together than chance would have it. */
export function raised(a: Cause, b: Cause): number {
  if (a.mode.id === b.mode.id) return SAME_ORIGIN;
  return a.mode.together?.[b.mode.id] ?? b.mode.together?.[a.mode.id] ?? 1;
}

/**
 * Elementary symmetric polynomials of shares, by Newton's identities: e[k] is the sum of the products over all sets of k.
 * Source: Macdonald, Symmetric Functions and Hall Polynomials, I (2.11′).
 */
export function symmetric(shares: readonly number[], most: number): readonly number[] {
  const power = Array.from({ length: most + 1 }, (_, k) => shares.reduce((sum, x) => sum + x ** k, 0));
  const e = [1];
  for (let k = 1; k <= most; k++) {
    let sum = 0;
    for (let i = 1; i <= k; i++) sum += (i % 2 ? 1 : -1) * (e[k - i] ?? 0) * (power[i] ?? 0);
    e.push(Math.max(sum / k, 1e-300));
  }
  return e;
}

/** Prior of sets of faults: how many at once, which of them, and what raises them together. */
export function setPrior(causes: readonly Cause[], prior: readonly number[]): (set: readonly number[]) => number {
  const listed = prior.slice(0, causes.length).reduce((sum, x) => sum + x, 0) || 1;
  const share = causes.map((_, i) => (prior[i] ?? 0) / listed);
  const whole = symmetric(share, MOST_FAULTS);
  return (set) => {
    const k = set.length;
    let together = 1;
    for (let i = 0; i < k; i++)
      for (let j = i + 1; j < k; j++) together *= raised(causes[set[i] ?? 0] as Cause, causes[set[j] ?? 0] as Cause);
    const product = set.reduce((p, c) => p * (share[c] ?? 0), 1);
    const size = FURTHER_SHARE ** (k - 1) * (k < MOST_FAULTS ? 1 - FURTHER_SHARE : 1);
    return (listed * size * Math.min(together, MOST_RAISED) * product) / (whole[k] ?? 1);
  };
}
