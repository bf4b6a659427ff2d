import { ELSEWHERE_SHARE, type Cause } from '../observation/causes';

/** Of the faults on no list, those that lie aside of the path, a belt, the supply, the room: two of four in the cases from practice. */
export const ASIDE = 0.5;

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
export const LOG_MOST_RAISED = Math.log(300);
/** Faults at one time, at most. */
export const MOST_FAULTS = 5;

/** How many times likelier two faults are together than chance would have it. */
export function raised(a: Cause, b: Cause): number {
  return a.mode.together?.[b.mode.id] ?? b.mode.together?.[a.mode.id] ?? (a.mode.id === b.mode.id ? SAME_ORIGIN : 1);
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

const known = new WeakMap<readonly Cause[], Float64Array>();

/** An order weighs the same causes at every finding. */
function logRaisedOf(causes: readonly Cause[]): Float64Array {
  const before = known.get(causes);
  if (before) return before;
  const n = causes.length;
  const made = new Float64Array(n * n);
  const ofMode = new Map<string, number[]>();
  causes.forEach(({ mode }, c) => ofMode.set(mode.id, [...(ofMode.get(mode.id) ?? []), c]));
  // Most pairs raise each other by nothing: only those are gone through of which something is said.
  causes.forEach(({ mode }, a) => {
    for (const id of [mode.id, ...Object.keys(mode.together ?? {})])
      for (const b of ofMode.get(id) ?? []) {
        made[a * n + b] = Math.log(raised(causes[a] as Cause, causes[b] as Cause));
        made[b * n + a] = Math.log(raised(causes[b] as Cause, causes[a] as Cause));
      }
  });
  known.set(causes, made);
  return made;
}

/** Prior of sets of faults: how many at once, which of them, and what raises them together. Natural logarithms. */
export class SetPrior {
  /** By cause: its share of what is listed. */
  readonly logShare: Float64Array;
  /** By two causes, the first times their number and the second: how they raise each other. */
  readonly logRaised: Float64Array;
  /** By number of faults: that there are so many, over all sets of so many. */
  private readonly logSize: readonly number[];

  constructor(
    private readonly causes: readonly Cause[],
    prior: readonly number[],
  ) {
    const n = causes.length;
    const listed = prior.slice(0, n).reduce((sum, x) => sum + x, 0) || 1;
    const share = causes.map((_, i) => (prior[i] ?? 0) / listed);
    this.logShare = Float64Array.from(share, (x) => Math.log(x));
    this.logRaised = logRaisedOf(causes);
    this.logSize = symmetric(share, MOST_FAULTS).map((whole, k) =>
      Math.log((listed * FURTHER_SHARE ** (k - 1) * (k < MOST_FAULTS ? 1 - FURTHER_SHARE : 1)) / whole),
    );
  }

  /** How the faults of a set raise each other, one with another. */
  together(set: readonly number[]): number {
    let sum = 0;
    for (let i = 0; i < set.length; i++) for (let j = i + 1; j < set.length; j++) sum += this.raisedBy(set, i, j);
    return sum;
  }

  private raisedBy(set: readonly number[], i: number, j: number): number {
    return this.logRaised[(set[i] as number) * this.causes.length + (set[j] as number)] as number;
  }

  /** From the sum of the shares and of what raises them. */
  of(faults: number, shares: number, together: number): number {
    return (this.logSize[faults] ?? -Infinity) + shares + Math.min(together, LOG_MOST_RAISED);
  }

  log(set: readonly number[]): number {
    const shares = set.reduce((sum, c) => sum + (this.logShare[c] ?? -Infinity), 0);
    return this.of(set.length, shares, this.together(set));
  }
}
