import { LOG_MOST_RAISED, type SetPrior } from './prior';

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
/** All sets that are expected to hold less than this, each, hold nothing together: natural logarithm. */
const NOTHING = -30;
/** Sets that are not listed are counted by what is expected, in steps of this, natural logarithm: their sum is right to some 1e-4. */
const FINE = 1 / 32;

/**
 * What is to be expected of sets that have not been weighed: that one more fault does for a set what it does least beside any
 * single one of its faults, as the sets of two tell. A fault that explains what another one explains already adds nothing
 * to it, and one that would have shown something costs as much as it costs alone.
 */
export class Foreseen {
  /** By the fault that is there, times their number, and the one that is added: natural logarithm of what it does. */
  private readonly gain: Float64Array;
  private readonly possible: readonly number[];
  /** By cause: those that it raises, or lowers. */
  private readonly raises: readonly (readonly number[])[];

  constructor(
    /** By cause, its place in path order. */
    private readonly rank: readonly number[],
    private readonly prior: SetPrior,
    alone: readonly Sized[],
    pairs: readonly Sized[],
  ) {
    const causes = rank.length;
    this.possible = alone.map(({ set }) => set[0] as number);
    this.raises = rank.map((_, m) => this.possible.filter((c) => prior.logRaised[m * causes + c] !== 0));
    const single = new Float64Array(causes).fill(-Infinity);
    for (const { set, log } of alone) single[set[0] as number] = log - prior.log(set);
    // A fault is not added to itself.
    this.gain = new Float64Array(causes * causes).fill(-Infinity);
    for (const { set, log } of pairs) {
      const [a, b] = set as readonly [number, number];
      const both = log - prior.log(set);
      this.gain[b * causes + a] = both - (single[b] as number);
      this.gain[a * causes + b] = both - (single[a] as number);
    }
  }

  /**
   * @param level sets of one size
   * @param whole natural logarithm of all that has been weighed
   */
  larger(level: readonly Sized[], whole: number): Larger {
    const { possible } = this;
    const causes = this.rank.length;
    const depth = Math.ceil(-Math.log(LEAST_LISTED) / CLASS);
    const classes = Array.from({ length: depth }, () => ({ sets: [] as number[], expected: 0 }));
    const least = whole + Math.log(LEAST_PARENT);
    const parents = level.filter(({ log }) => log > least).sort((a, b) => b.log - a.log);
    const first = firstParent(parents, this.rank);
    const expected = new Float64Array(causes);
    const raised = new Float64Array(causes);
    const fine = new Int32Array(Math.ceil(-NOTHING / FINE));
    // What follows is gone through half a million times: constants at hand, no calls.
    const [nothing, step, beyond] = [NOTHING, FINE, -depth * CLASS];
    for (let s = 0; s < parents.length; s++) {
      this.expect(parents[s] as Sized, whole, expected, raised);
      for (let i = 0; i < possible.length; i++) {
        const c = possible[i] as number;
        const e = expected[c] as number;
        if (e <= nothing) continue;
        if (e <= beyond) {
          const k = Math.floor(-e / step);
          fine[k] = (fine[k] as number) + 1;
          continue;
        }
        if (!first(s, c)) continue;
        const like = classes[Math.max(0, Math.floor(-e / CLASS))] as { sets: number[]; expected: number };
        like.sets.push(s * causes + c);
        like.expected += Math.exp(e);
      }
    }
    const unlisted = fine.reduce((sum, many, k) => (many > 0 ? sum + many * Math.exp(-(k + 0.5) * FINE) : sum), 0);
    // Each was met once for every one of its faults.
    const rest = unlisted / ((level[0]?.set.length ?? 0) + 1);
    return {
      classes: [...classes, { sets: [], expected: rest }],
      at: (code) => ({ set: (parents[Math.floor(code / causes)] as Sized).set, add: code % causes }),
    };
  }

  /** By cause, what is expected of a set made larger by it: natural logarithm, as a share of the whole. */
  private expect({ set, log }: Sized, whole: number, expected: Float64Array, raised: Float64Array): void {
    const { gain, prior } = this;
    const { logShare, logRaised } = prior;
    const causes = expected.length;
    const size = set.length;
    let shares = 0;
    for (let i = 0; i < size; i++) shares += logShare[set[i] as number] as number;
    const together = prior.together(set);
    expected.fill(Infinity);
    raised.fill(together);
    for (let i = 0; i < size; i++) {
      const m = set[i] as number;
      for (let c = 0, at = m * causes; c < causes; c++, at++) {
        const g = gain[at] as number;
        if (g < (expected[c] as number)) expected[c] = g;
      }
      const raises = this.raises[m] as readonly number[];
      for (let j = 0; j < raises.length; j++) {
        const c = raises[j] as number;
        raised[c] = (raised[c] as number) + (logRaised[m * causes + c] as number);
      }
    }
    const base = log - prior.of(size, shares, together) - whole + prior.of(size + 1, shares, 0);
    const most = LOG_MOST_RAISED;
    for (let c = 0; c < causes; c++) {
      const by = raised[c] as number;
      expected[c] = base + (expected[c] as number) + (logShare[c] as number) + (by < most ? by : most);
    }
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
    const { set } = parents[parent] as Sized;
    const [a, b] = [set[0] as number, set[1] as number];
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
