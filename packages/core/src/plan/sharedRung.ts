import { hourlyRateOf } from '../catalogue/index';
import type { Catalogue } from '../catalogue/types';
import type { OrderState } from '../order/state';
import type { Next } from './goals';
import { workOf, type Ladder, type Rung } from './ladder';

/** A rung that renews what several causes at one station lie in: done once, it is tried for all of them. */
export interface Shared {
  readonly next: readonly Next[];
  /** By the cause whose step it is, the others that it covers. */
  readonly covers: ReadonlyMap<string, readonly { readonly station: string; readonly mode: string }[]>;
}

const keyOf = ({ cause }: Next): string => `${cause.station}/${cause.mode}`;

/**
 * Two causes in one part are not renewed one after the other where the whole costs less than both: an assembly that stands on
 * every ladder of a station takes the place of their own next rungs, unless the technician has picked one.
 */
export function sharedRungs(
  catalogue: Catalogue,
  state: OrderState,
  ladders: readonly Ladder[],
  next: readonly Next[],
): Shared {
  const rate = hourlyRateOf(catalogue);
  const covers = new Map<string, readonly { readonly station: string; readonly mode: string }[]>();
  const kept: Next[] = [];
  for (const station of new Set(next.map(({ cause }) => cause.station))) {
    const here = next.filter(({ cause }) => cause.station === station);
    const picked = here.some(({ cause }) => state.picked?.station === station && state.picked.mode === cause.mode);
    const whole = here.length < 2 || picked ? undefined : cheapestForAll(ladders, here, rate);
    const [first, ...others] = here;
    if (!whole || !first) {
      kept.push(...here);
      continue;
    }
    kept.push({ ...first, rung: whole });
    covers.set(
      keyOf(first),
      others.map(({ cause }) => ({ station: cause.station, mode: cause.mode })),
    );
  }
  return { next: kept, covers };
}

/** The rung that stands open on the ladder of every one of these causes, renews, and costs less than their own rungs together. */
function cheapestForAll(ladders: readonly Ladder[], here: readonly Next[], rate: number): Rung | undefined {
  const own = here.reduce((sum, { rung }) => sum + workOf(rung.remedy, rate), 0);
  const lists = here.map(
    ({ cause }) =>
      ladders.find((ladder) => ladder.cause === cause)?.rungs.filter(({ spent }) => spent === undefined) ?? [],
  );
  return (lists[0] ?? [])
    .filter(
      ({ remedy }) =>
        remedy.replaces !== undefined && lists.every((list) => list.some((rung) => rung.remedy.id === remedy.id)),
    )
    .map((rung) => ({ rung, cost: workOf(rung.remedy, rate) }))
    .filter(({ cost }) => cost < own)
    .sort((a, b) => a.cost - b.cost)[0]?.rung;
}
