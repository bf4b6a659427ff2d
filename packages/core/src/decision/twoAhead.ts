import type { Bench } from '../bench/state';
import type { Suspicion } from '../inference/suspicion';
import { carried, CARRIED, NEAR_TIE_MIN, ranked, sparing } from './advise';
import type { CheckForecast, Search, Worked } from './checkForecast';
import { byHabit, HABITS } from './habits';

/** Checks looked at two steps ahead, and checks that may come second (chosen). */
const FIRST_CHECKS = 12;
const SECOND_CHECKS = 20;
/** Checks that may follow a failed repair (chosen). */
const AFTER_REPAIR = 4;
/** Repairs looked at as the first one: by probability over cost alone a later one is sometimes better to begin with. */
const FIRST_REPAIRS = 3;

/** What a second step after the first changes. */
export interface Deeper {
  /** All checks, best first; those that were looked at say so. */
  readonly list: readonly CheckForecast[];
  readonly repairMinutes: number;
  /** The repair to begin with, where one was looked at. */
  readonly first?: number;
  /** False when time ran out before every check worth it was looked at. */
  readonly complete: boolean;
}

/**
 * The leading checks with one more check after their answer, the leading repairs with one after they failed.
 *
 * @param checks one step ahead
 * @param repairOrder what is repaired without a check, in that order, in `repairSoFar` expected minutes
 */
export function twoAhead(
  { ahead, p, model }: Worked,
  suspicion: Suspicion,
  checks: readonly CheckForecast[],
  repairOrder: readonly number[],
  repairSoFar: number,
  bench: Bench,
  search: Search,
): Deeper {
  let complete = true;
  const open = ranked(checks).filter((check) => !check.done);
  const telling = [...open].sort((a, b) => b.bits / b.checkMinutes - a.bits / a.checkMinutes);
  ahead.seconds = [...new Set([...telling.slice(0, SECOND_CHECKS / 2), ...open])]
    .slice(0, SECOND_CHECKS)
    .map((check) => check.index);
  const asked = open.filter((check) => search.also?.includes(check.place.key));
  const kept = [...HABITS.flatMap((habit) => byHabit(habit, model, open) ?? []), ...sparing(open)];
  const firsts = [
    ...new Set([
      ...[...new Set([...open.slice(0, FIRST_CHECKS - 4), ...telling])].slice(0, FIRST_CHECKS),
      ...asked,
      ...kept,
    ]),
  ];
  const least = ahead.leastPossible(p, bench);
  let best = Math.min(repairSoFar, open[0]?.expectedMinutes ?? Infinity);
  const deeper = new Map<number, CheckForecast>();
  for (const check of firsts) {
    if (search.expired?.()) {
      complete = false;
      break;
    }
    const compared = asked.includes(check) || kept.includes(check);
    if (!compared && check.checkMinutes + least > best + NEAR_TIE_MIN) continue;
    const twice = ahead.checkingTwice(check.index, p, bench);
    best = Math.min(best, twice.minutes);
    const outcomes = check.outcomes.map((outcome, o) => ({
      ...outcome,
      minutes: outcome.probability > 0 ? (twice.byAnswer[o] ?? 0) / outcome.probability : 0,
    }));
    deeper.set(check.index, { ...check, expectedMinutes: twice.minutes, outcomes, depth: 2 });
  }
  const after = firsts.slice(0, AFTER_REPAIR).map((check) => check.index);
  let soonest = Infinity;
  let first: number | undefined;
  // What its own probability carries comes before what is only quick to try.
  const leading = repairOrder.slice(0, FIRST_REPAIRS);
  const borne = leading.filter((group) => carried(model, suspicion, group) >= CARRIED);
  for (const group of borne.length > 0 ? borne : leading) {
    if (search.expired?.()) {
      complete = false;
      break;
    }
    const minutes = ahead.repairing(group, p, bench, after);
    if (minutes >= soonest) continue;
    soonest = minutes;
    first = group;
  }
  return {
    list: ranked(checks.map((check) => deeper.get(check.index) ?? check)),
    repairMinutes: Math.min(repairSoFar, soonest),
    ...(first === undefined ? {} : { first }),
    complete,
  };
}
