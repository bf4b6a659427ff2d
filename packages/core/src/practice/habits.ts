import { materialOf } from '../catalogue/index';
import { routeOf, type Stop } from '../path/route';
import { causesOf, type Cause } from '../observation/causes';
import type { CheckAtPlace } from '../bench/places';
import { remedyNeeds, rungsFor } from '../decision/repairs';
import { BenchWork } from './benchWork';
import type { BenchNature, Tally } from './tally';
import type { HiddenOrder, Luck } from './hidden';
import { HABITS, type Habit } from '../decision/habits';

export { HABITS, type Habit };

/** What can fail at a stop by the catalogue, likeliest first. */
const causesAt = (causes: readonly Cause[], stop: Stop): readonly Cause[] =>
  causes.filter((cause) => cause.stop.index === stop.index).sort((a, b) => b.weight - a.weight);

/** Renews one place after the other in a fixed order, whatever was found, and proves after each. */
export function renewByHabit(habit: Habit, hidden: HiddenOrder, luck: Luck, nature: BenchNature = {}): Tally {
  const { kase } = hidden;
  const work = new BenchWork(hidden, luck, nature);
  const route = routeOf(kase.machine, kase.lane);
  const causes = causesOf(kase, route);
  const material = materialOf(kase.catalogue, kase.material);
  for (const kinds of habit.kinds)
    for (const stop of route.stops.filter((item) => kinds.includes(item.station.kind))) {
      // The last rung of the likeliest trouble there is what renews it.
      const cause = causesAt(causes, stop)[0];
      const remedy = cause && rungsFor(kase.catalogue, kase.machine, route, cause, material).at(-1);
      if (!cause || !remedy) continue;
      // Renewing takes away whatever was wrong with the part.
      const needs = remedyNeeds(kase.machine, route, cause, remedy, material);
      if (work.repair(stop.station.id, remedy, needs, remedy.cures)) return work.finish(true);
    }
  return work.strip();
}

/** Checks of one place alone, quick and outside ones first. */
const localChecks = (places: readonly CheckAtPlace[], stop: Stop): readonly CheckAtPlace[] =>
  places
    .filter((place) => place.station === stop.station.id && place.check.reach === 'station' && !place.check.swap)
    .sort((a, b) => a.parts.length - b.parts.length || a.check.minutes - b.check.minutes);

/** Looks at one place after the other in a fixed order; what looks wrong is repaired by its ladder, and proved. */
export function lookByHabit(habit: Habit, hidden: HiddenOrder, luck: Luck, nature: BenchNature = {}): Tally {
  const { kase } = hidden;
  const work = new BenchWork(hidden, luck, nature);
  const route = routeOf(kase.machine, kase.lane);
  const causes = causesOf(kase, route);
  for (const kinds of habit.kinds)
    for (const stop of route.stops.filter((item) => kinds.includes(item.station.kind)))
      for (const place of localChecks(work.places, stop)) {
        const { normal } = work.check(place);
        if (work.cameUpon) return work.mendSeen();
        if (normal) continue;
        // One ladder for what is likeliest there, then on to the next place.
        const cause = causesAt(causes, stop)[0];
        if (cause && work.ladder(cause)) return work.finish(true);
        break;
      }
  return work.strip();
}
