import type { Price } from '../bench/price';
import type { Bench } from '../bench/state';
import type { Outcome } from './likelihood';
import { byHabit, HABITS } from './habits';
import { Lookahead } from './lookahead';
import { Forecasts } from './forecasts';
import { liveOf, type Live, type Model } from './model';
import type { CheckAtPlace } from './places';
import type { Evidence, Suspicion } from './suspicion';
import { addedWeight } from './witness';
import type { Cause } from './causes';

export interface OutcomeForecast {
  readonly outcome: Outcome;
  readonly probability: number;
  /** Suspicion by station of the route after this answer, in path order. */
  readonly stations: readonly number[];
  /** Expected minutes to a proved repair after this answer. */
  readonly minutes: number;
}

export interface CheckForecast {
  readonly place: CheckAtPlace;
  readonly index: number;
  readonly price: Price;
  /** The way there, the check and its risk. */
  readonly checkMinutes: number;
  readonly expectedMinutes: number;
  readonly bits: number;
  readonly outcomes: readonly OutcomeForecast[];
  /** Answered already; offered last. */
  readonly done: boolean;
  /** Checks ahead that `expectedMinutes` counts with: 1 or 2. */
  readonly depth: 1 | 2;
}

export interface Decision {
  /** Expected minutes when repairing starts now, and the order of the repairs. */
  readonly repairMinutes: number;
  readonly repairOrder: readonly number[];
  /** Ranked, best first; checks that can teach nothing are left out. */
  readonly checks: readonly CheckForecast[];
  readonly advice: 'check' | 'repair';
  readonly nearTie: boolean;
  /** False when time ran out before every check worth it was looked at two steps ahead. */
  readonly complete: boolean;
}

export interface Search {
  /** 1: repair after the answer. 2: one more check may follow. */
  readonly depth: 1 | 2;
  /** For an answer at once, soon replaced: only the leading checks are worked out with every hypothesis. */
  readonly quick?: boolean;
  /** Keys of checks that are looked at as far ahead as the leading ones, so that they can be compared. */
  readonly also?: readonly string[];
  /** Asked between checks; once it says so, the best so far is given. */
  readonly expired?: () => boolean;
}

/** Two choices this close are as good as equal: the gentler one is taken, and the interface says so. */
const NEAR_TIE_MIN = 0.5;
/** A check must save this much to be put before a repair: less is not worth going round once more (chosen). */
const WORTH_MIN = 0.3;
/** A check that moves nothing by more than this many bits teaches nothing. */
const NOTHING_BITS = 1e-6;
/** Checks looked at two steps ahead, and checks that may come second (chosen). */
const FIRST_CHECKS = 12;
const SECOND_CHECKS = 20;
/** An answer at once ranks by so many hypotheses, and looks at so many of the leading checks with all (chosen). */
const QUICK_LIVE = 20;
const QUICK_CLOSELY = 8;
/** Checks that may follow a failed repair (chosen). */
const AFTER_REPAIR = 4;
/** Repairs looked at as the first one: by probability over cost alone a later one is sometimes better to begin with. */
const FIRST_REPAIRS = 3;

interface Worked {
  readonly ahead: Lookahead;
  readonly live: readonly Live[];
  readonly p: Float64Array;
  readonly model: Model;
  /** Index of each cause's stop. */
  readonly stop: readonly number[];
}

/** Suspicion by station from hypotheses that are not made whole. */
function stationsOf({ live, model, stop }: Worked, next: Float64Array, sum: number): readonly number[] {
  const stations = new Array<number>(model.route.stops.length).fill(0);
  for (let h = 0; h < live.length; h++) {
    const x = (next[h] as number) / sum;
    for (const cause of (live[h] as Live).causes) {
      const at = stop[cause] as number;
      stations[at] = Math.min(1, (stations[at] as number) + x);
    }
  }
  return stations;
}

function forecast(worked: Worked, index: number, bench: Bench, done: boolean): CheckForecast {
  const { ahead, model, p } = worked;
  const { price, minutes: checkMinutes } = ahead.price(index, bench);
  const raw = ahead.answers(index, p);
  const sums = raw.map((next) => {
    let sum = 0;
    for (let h = 0; h < next.length; h++) sum += next[h] as number;
    return sum;
  });
  const total = sums.reduce((sum, x) => sum + x, 0);
  let bits = 0;
  let expected = checkMinutes;
  const outcomes = raw.map((next, o): OutcomeForecast => {
    const sum = sums[o] ?? 0;
    const probability = sum / total;
    const minutes = sum > 0 ? ahead.stopping(next, price.after).minutes / sum : 0;
    expected += probability * minutes;
    for (let h = 0; h < p.length; h++) {
      const x = (next[h] ?? 0) / (sum || 1);
      if (x > 0) bits += probability * x * Math.log2(x / (p[h] as number));
    }
    const outcome = (model.outcomes[index] ?? [])[o] as Outcome;
    return { outcome, probability, stations: stationsOf(worked, next, sum || 1), minutes };
  });
  return {
    place: model.places[index] as CheckAtPlace,
    index,
    price,
    checkMinutes,
    expectedMinutes: expected,
    bits: Math.max(0, bits),
    outcomes,
    done,
    depth: 1,
  };
}

/** Outside before opening, cold before hot, quick before slow. */
const roughness = (check: CheckForecast): number =>
  check.price.opened.length * 10 +
  (check.place.check.risk ?? 0) * 5 +
  (check.place.check.heat === 'hot' ? 2 : 0) +
  check.place.check.minutes / 10;

function gentlestFirst(checks: readonly CheckForecast[]): readonly CheckForecast[] {
  const best = checks[0];
  if (!best) return checks;
  const close = checks.filter((check) => check.expectedMinutes - best.expectedMinutes < NEAR_TIE_MIN);
  return [...[...close].sort((a, b) => roughness(a) - roughness(b)), ...checks.slice(close.length)];
}

const ranked = (checks: readonly CheckForecast[]): readonly CheckForecast[] => {
  const sorted = [...checks].sort((a, b) => a.expectedMinutes - b.expectedMinutes || a.index - b.index);
  return [...gentlestFirst(sorted.filter((check) => !check.done)), ...sorted.filter((check) => check.done)];
};

/**
 * What to do next: for each check its price and, over its answers, the cost of what is best afterwards; against repairing
 * now. After the answer of one of the leading checks one more check may follow; a repair may be followed by one too, since
 * a repair that fails is a finding.
 */
export function decide(
  model: Model,
  suspicion: Suspicion,
  bench: Bench,
  evidence: readonly Evidence[],
  barred: ReadonlySet<string>,
  answered: ReadonlySet<string>,
  search: Search = { depth: 1 },
): Decision {
  const added = model.places.map((place) => addedWeight(evidence, place));
  const work = (most?: number): Worked => {
    const { live, p } = liveOf(model, suspicion, most);
    const involved = live.map(({ causes }) => causes.map((cause) => model.causes[cause] as Cause));
    const weight = (place: number, h: number): number => added[place]?.(involved[h] ?? []) ?? 1;
    const ahead = new Lookahead(model, new Forecasts(model, suspicion, live, weight));
    return { ahead, live, p, model, stop: model.causes.map((cause) => cause.stop.index) };
  };
  const worked = work();
  const { ahead, p } = worked;
  const rough = search.quick ? work(QUICK_LIVE) : worked;
  const asked = new Set(evidence.map((item) => item.same));
  let checks = model.places.flatMap((place, index): CheckForecast[] => {
    if (barred.has(place.key) || place.check.retired || place.cannot) return [];
    // Asked once, the owner gives the same answer again.
    if (place.check.asks && asked.has(place.check.asks)) return [];
    const found = forecast(rough, index, bench, answered.has(place.key));
    return found.bits > NOTHING_BITS ? [found] : [];
  });
  if (search.quick) {
    const close = new Set([
      ...ranked(checks).slice(0, QUICK_CLOSELY),
      ...checks.filter((check) => search.also?.includes(check.place.key)),
    ]);
    // What the hypotheses left out add to any course of action, nearly enough.
    const more = ahead.stopping(p, bench).minutes - rough.ahead.stopping(rough.p, bench).minutes;
    checks = checks.map((check) =>
      close.has(check)
        ? forecast(worked, check.index, bench, check.done)
        : { ...check, expectedMinutes: check.expectedMinutes + more },
    );
  }
  const now = ahead.stopping(p, bench);
  const repairOrder = [...now.order.subarray(0, now.steps)];
  const begin = repairOrder[0];
  let first = begin;
  let repairMinutes = now.minutes;
  if (begin !== undefined) repairMinutes = Math.min(repairMinutes, ahead.repairing(begin, p, bench, []));
  let complete = true;
  let list = ranked(checks);
  if (search.depth === 2) {
    const open = list.filter((check) => !check.done);
    const telling = [...open].sort((a, b) => b.bits / b.checkMinutes - a.bits / a.checkMinutes);
    ahead.seconds = [...new Set([...telling.slice(0, SECOND_CHECKS / 2), ...open])]
      .slice(0, SECOND_CHECKS)
      .map((check) => check.index);
    const asked = open.filter((check) => search.also?.includes(check.place.key));
    const kept = HABITS.flatMap((habit) => byHabit(habit, model, open) ?? []);
    const firsts = [
      ...new Set([
        ...[...new Set([...open.slice(0, FIRST_CHECKS - 4), ...telling])].slice(0, FIRST_CHECKS),
        ...asked,
        ...kept,
      ]),
    ];
    const least = ahead.leastPossible(p, bench);
    let best = Math.min(repairMinutes, open[0]?.expectedMinutes ?? Infinity);
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
    for (const group of repairOrder.slice(0, FIRST_REPAIRS)) {
      if (search.expired?.()) {
        complete = false;
        break;
      }
      const minutes = ahead.repairing(group, p, bench, after);
      if (minutes >= soonest) continue;
      soonest = minutes;
      first = group;
    }
    repairMinutes = Math.min(repairMinutes, soonest);
    list = ranked(checks.map((check) => deeper.get(check.index) ?? check));
  }
  const best = list.find((check) => !check.done);
  const advice = best && best.expectedMinutes < repairMinutes - WORTH_MIN ? 'check' : 'repair';
  const second = list.filter((check) => !check.done)[1]?.expectedMinutes ?? Infinity;
  const gap =
    advice === 'check'
      ? Math.min(second, repairMinutes) - (best?.expectedMinutes ?? 0)
      : (best?.expectedMinutes ?? Infinity) - repairMinutes;
  return {
    repairMinutes,
    repairOrder: first === undefined ? [] : [first, ...repairOrder.filter((group) => group !== first)],
    checks: list,
    advice,
    nearTie: Math.abs(gap) < NEAR_TIE_MIN,
    complete,
  };
}
