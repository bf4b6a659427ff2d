import type { Catalogue } from '../catalogue/types';
import type { Cause } from './causes';
import { answersUnder, saysAlike, type Given, type Outcome } from './likelihood';
import { lookOf } from './looks';
import type { CheckAtPlace } from '../bench/places';

/**
 * What each answer of each check says of each cause, before anything is found. It does not change while findings come
 * in, so it is worked out once, and shared: among causes that a check cannot see, and among those that it sees alike.
 */
export class GivenTable {
  private readonly rows: (readonly Given[] | undefined)[][];
  private readonly unseen: (readonly Given[] | undefined)[];
  private readonly alike: (readonly Given[] | undefined)[];

  constructor(
    private readonly catalogue: Catalogue,
    private readonly places: readonly CheckAtPlace[],
    private readonly outcomes: readonly (readonly Outcome[])[],
    private readonly causes: readonly Cause[],
  ) {
    this.rows = places.map(() => []);
    this.unseen = places.map(() => undefined);
    this.alike = places.map(() => undefined);
  }

  /** By outcome of the place. */
  at(index: number, cause: number): readonly Given[] {
    const known = this.rows[index]?.[cause];
    if (known) return known;
    const place = this.places[index] as CheckAtPlace;
    const it = this.causes[cause] as Cause;
    const work = (): readonly Given[] => {
      const under = answersUnder(this.catalogue, place, it);
      return (this.outcomes[index] ?? []).map((outcome) => under(outcome));
    };
    const row =
      lookOf(place.check) !== undefined && !place.reach.has(it.stop.index)
        ? (this.unseen[index] ??= work())
        : saysAlike(place.check)
          ? (this.alike[index] ??= work())
          : work();
    (this.rows[index] as (readonly Given[])[])[cause] = row;
    return row;
  }
}
