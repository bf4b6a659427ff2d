import type { SetPrior } from './prior';

/** A set of faults with the natural logarithm of prior times likelihood. */
export interface Sized {
  readonly set: readonly number[];
  readonly log: number;
}

/** Larger sets that are expected to hold about alike much, and what they are expected to hold, as a share of the whole. */
export interface Alike {
  readonly sets: readonly number[];
  readonly expected: number;
}

/** Sets of the next size, by what is expected of them, most first; the last class holds what is not listed one by one. */
export interface Larger {
  readonly classes: readonly Alike[];
  /** A set of a class, and the cause by which it is to be made larger. */
  readonly at: (code: number) => { readonly set: readonly number[]; readonly add: number };
}

/** What is expected counts in classes of this width, in natural logarithms. */
const CLASS = 0.25;
/** Sets expected to hold less than this, each, are not listed one by one; sets that hold so little are not made larger. */
const LEAST_LISTED = 2e-7;
const LEAST_PARENT = 2e-6;

/**
 * What is to be expected of sets that have not been weighed: that one more fault does for a set what it does least beside any
 * single one of its faults, as the sets of two tell. A fault that explains what another one explains already adds nothing
 * to it, and one that would have shown something costs as much as it costs alone.
 */
export class Foreseen {
  /** By the fault that is added, times their number, and the one that is there: natural logarithm of what it does. */
  private readonly gain: Float64Array;
  private readonly possible: readonly number[];

  constructor(
    /** By cause, its place in path order. */
    private readonly rank: readonly number[],
    private readonly prior: SetPrior,
    alone: readonly Sized[],
    pairs: readonly Sized[],
  ) {
    const causes = rank.length;
    this.possible = alone.map(({ set }) => set[0] as number);
    const single = new Float64Array(causes).fill(-Infinity);
    for (const { set, log } of alone) single[set[0] as number] = log - prior.log(set);
    this.gain = new Float64Array(causes * causes);
    for (const { set, log } of pairs) {
      const [a, b] = set as readonly [number, number];
      const both = log - prior.log(set);
      this.gain[a * causes + b] = both - (single[b] as number);
      this.gain[b * causes + a] = both - (single[a] as number);
    }
  }

  /**
   * @param level sets of one size
   * @param whole natural logarithm of all that has been weighed
   */
  larger(level: readonly Sized[], whole: number): Larger {
    const { gain, prior } = this;
    const causes = this.rank.length;
    const depth = Math.ceil(-Math.log(LEAST_LISTED) / CLASS);
    const classes = Array.from({ length: depth }, () => ({ sets: [] as number[], expected: 0 }));
    let unlisted = 0;
    const parents = level.filter(({ log }) => log - whole > Math.log(LEAST_PARENT)).sort((a, b) => b.log - a.log);
    const first = firstParent(parents, this.rank);
    parents.forEach(({ set, log }, s) => {
      const size = set.length;
      const shares = set.reduce((sum, c) => sum + (prior.logShare[c] as number), 0);
      const together = prior.together(set);
      const likelihood = log - prior.of(size, shares, together) - whole;
      for (const c of this.possible) {
        let least = Infinity;
        let raised = together;
        for (let i = 0; i < size; i++) {
          const m = set[i] as number;
          const g = m === c ? -Infinity : (gain[c * causes + m] as number);
          if (g < least) least = g;
          raised += prior.logRaised[c * causes + m] as number;
        }
        const expected = likelihood + least + prior.of(size + 1, shares + (prior.logShare[c] as number), raised);
        const at = Math.max(0, Math.floor(-expected / CLASS));
        if (at >= depth) {
          // Met once for every one of its faults.
          unlisted += Math.exp(expected) / (size + 1);
          continue;
        }
        if (!first(s, c)) continue;
        const like = classes[at] as { sets: number[]; expected: number };
        like.sets.push(s * causes + c);
        like.expected += Math.exp(expected);
      }
    });
    return {
      classes: [...classes, { sets: [], expected: unlisted }],
      at: (code) => ({ set: (parents[Math.floor(code / causes)] as Sized).set, add: code % causes }),
    };
  }
}

/** Whether a set made larger by a cause has not been met before, as another one that was made larger. */
function firstParent(parents: readonly Sized[], rank: readonly number[]): (parent: number, c: number) => boolean {
  if (parents[0]?.set.length !== 2) {
    const seen = new Set<number>();
    return (parent, c) => {
      const key = keyWith((parents[parent] as Sized).set, c, rank);
      if (seen.has(key)) return false;
      seen.add(key);
      return true;
    };
  }
  const causes = rank.length;
  // Of three the other two pairs can be looked up.
  const place = new Int32Array(causes * causes).fill(parents.length);
  parents.forEach(({ set: [a, b] }, i) => {
    place[(a as number) * causes + (b as number)] = i;
    place[(b as number) * causes + (a as number)] = i;
  });
  return (parent, c) => {
    const [a, b] = (parents[parent] as Sized).set as readonly [number, number];
    return (place[a * causes + c] as number) > parent && (place[b * causes + c] as number) > parent;
  };
}

/** A set in path order, with one more, as one number: five faults of a few hundred causes fit into its 53 bits. */
export function keyWith(set: readonly number[], c: number, rank: readonly number[]): number {
  const n = rank.length + 1;
  let key = 0;
  let left = true;
  for (let i = 0; i < set.length; i++) {
    const m = set[i] as number;
    if (left && (rank[m] as number) > (rank[c] as number)) {
      key = key * n + c + 1;
      left = false;
    }
    key = key * n + m + 1;
  }
  return left ? key * n + c + 1 : key;
}
