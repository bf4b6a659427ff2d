import { STILL_ILL } from './evidence';
import { NEVER } from './given';
import { MOST_FAULTS } from './prior';

/** Of the ways in which repairs may have touched a set, those that together weigh less than this are left out (chosen). */
export const REMOVALS_LEFT_OUT = 0.005;

/** One way in which repairs may have touched a set: by fault, the repair that took it away, or never. */
export interface Removal {
  readonly at: readonly number[];
  /** Natural logarithm. */
  readonly log: number;
}

/** When each fault of a set may have been taken away, with the chance of it. Faults that repairs treat alike share the answer. */
export class Removals {
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
