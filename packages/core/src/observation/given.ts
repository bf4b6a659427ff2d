import type { Catalogue, FailureMode } from '../catalogue/types';
import type { Cause } from './causes';
import { answersUnder, saysAlike, type Given, type Outcome } from './likelihood';
import { lookOf } from './looks';
import { KeptWith } from '../quantities/keptWith';
import type { CheckAtPlace } from '../bench/places';

type Row = readonly Given[];

/** By check: what is the same for many causes; and by mode, stop and check, what is not. */
interface Rows {
  readonly unseen: (Row | undefined)[];
  readonly alike: (Row | undefined)[];
  readonly of: WeakMap<FailureMode, (Row | undefined)[][]>;
}

/** None of it hangs on the order: the next one on this machine finds it worked out. */
const KEPT = new KeptWith<Catalogue, readonly CheckAtPlace[], Rows>();

/**
 * What each answer of each check says of each cause, before anything is found. It does not change while findings come
 * in, so it is worked out once, and shared: among causes that a check cannot see, and among those that it sees alike.
 */
export class GivenTable {
  private readonly kept: Rows;
  /** By cause and check. */
  private readonly rows: readonly (Row | undefined)[][];

  constructor(
    private readonly catalogue: Catalogue,
    private readonly places: readonly CheckAtPlace[],
    private readonly outcomes: readonly (readonly Outcome[])[],
    private readonly causes: readonly Cause[],
  ) {
    this.kept = KEPT.of(catalogue, places, () => ({ unseen: [], alike: [], of: new WeakMap() }));
    const { of } = this.kept;
    this.rows = causes.map(({ mode, stop }) => {
      const byStop = of.get(mode) ?? [];
      of.set(mode, byStop);
      return (byStop[stop.index] ??= []);
    });
  }

  /** By outcome of the place. */
  at(index: number, cause: number): Row {
    const rows = this.rows[cause] as (Row | undefined)[];
    const known = rows[index];
    if (known) return known;
    const place = this.places[index] as CheckAtPlace;
    const it = this.causes[cause] as Cause;
    const work = (): Row => {
      const under = answersUnder(this.catalogue, place, it);
      return (this.outcomes[index] ?? []).map((outcome) => under(outcome));
    };
    const row =
      lookOf(place.check) !== undefined && !place.reach.has(it.stop.index)
        ? (this.kept.unseen[index] ??= work())
        : saysAlike(place.check)
          ? (this.kept.alike[index] ??= work())
          : work();
    return (rows[index] = row);
  }
}
