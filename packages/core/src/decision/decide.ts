import type { Price } from '../bench/price';
import type { Bench } from '../bench/state';
import type { Outcome } from '../observation/likelihood';
import {
  carried,
  CARRIED,
  checkFirst,
  doneInVain,
  NEAR_TIE_MIN,
  lookAgain,
  lookFirst,
  mendedAnyway,
  nextOpening,
  oneOfEach,
  rathersAsk,
  ranked,
  sayable,
  sparing,
  suspectShown,
  tellingMuch,
} from './advise';
import { byHabit, HABITS } from './habits';
import { Lookahead } from './lookahead';
import { Forecasts } from './forecasts';
import { liveOf, stationShares, stopsOf, type Live, type Model } from './model';
import type { CheckAtPlace } from '../bench/places';
import type { Evidence } from '../inference/evidence';
import type { Suspicion } from '../inference/suspicion';
import { addedWeight } from '../observation/witness';
import type { Cause } from '../observation/causes';

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
  /** Chance that the repair which comes first after its answer renews a part that was sound. */
  readonly renewsSound: number;
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
  /** Probability that what the first repair is for is there. */
  readonly carried: number;
  /** Ranked, best first; checks that can teach nothing are left out. */
  readonly checks: readonly CheckForecast[];
  readonly advice: 'check' | 'repair';
  /** No repair carries itself: the first check is the next stretch of taking the path apart. */
  readonly apart?: boolean;
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
  /** Looks that need not be done when the path is taken apart, where that is not all that was answered: see `lookedAtKeys`. */
  readonly looked?: ReadonlySet<string>;
  /** Asked between checks; once it says so, the best so far is given. */
  readonly expired?: () => boolean;
}

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
  readonly forecasts: Forecasts;
  readonly live: readonly Live[];
  readonly p: Float64Array;
  readonly model: Model;
  /** By live hypothesis, the stops at which it has a fault, each once. */
  readonly stops: readonly (readonly number[])[];
}

/** Suspicion by station from hypotheses that are not made whole. */
function stationsOf({ model, stops }: Worked, next: Float64Array, sum: number): readonly number[] {
  const stations = new Array<number>(model.route.stops.length).fill(0);
  for (let h = 0; h < stops.length; h++) {
    const x = (next[h] as number) / sum;
    for (const at of stops[h] as readonly number[]) stations[at] = (stations[at] as number) + x;
  }
  return stations;
}

/**
 * What an answer tells of the cause, in bits: the mutual information of the two (Shannon 1948).
 *
 * @param rows by answer, how likely it is under each hypothesis; together they need not sum to one
 * @param p probability of each hypothesis
 */
export function informationOf(rows: readonly ArrayLike<number>[], p: ArrayLike<number>): number {
  let bits = 0;
  let total = 0;
  for (const row of rows) {
    let sum = 0;
    for (let h = 0; h < row.length; h++) sum += (p[h] as number) * (row[h] as number);
    total += sum;
    // Many hypotheses in a row, those out of the check's reach, say the same.
    let last = NaN;
    let log = 0;
    for (let h = 0; h < row.length; h++) {
      const likely = row[h] as number;
      const x = (p[h] as number) * likely;
      if (x <= 0) continue;
      if (likely !== last) {
        last = likely;
        log = Math.log2(likely / sum);
      }
      bits += x * log;
    }
  }
  return Math.max(0, bits / (total || 1));
}

/** What a check costs and tells; undefined where it can teach nothing. */
function forecast(worked: Worked, index: number, bench: Bench, done: boolean): CheckForecast | undefined {
  const { ahead, forecasts, model, p } = worked;
  const bits = informationOf(forecasts.rows(index), p);
  if (bits <= NOTHING_BITS) return undefined;
  const { price, minutes: checkMinutes } = ahead.price(index, bench);
  const raw = ahead.answers(index, p);
  const sums = raw.map((next) => {
    let sum = 0;
    for (let h = 0; h < next.length; h++) sum += next[h] as number;
    return sum;
  });
  const total = sums.reduce((sum, x) => sum + x, 0);
  let expected = checkMinutes;
  let renewsSound = 0;
  const outcomes = raw.map((next, o): OutcomeForecast => {
    const sum = sums[o] ?? 0;
    const probability = sum / total;
    const stopping = ahead.stopping(next, price.after);
    const minutes = sum > 0 ? stopping.minutes / sum : 0;
    renewsSound += ahead.renewedSound(next, stopping) / total;
    expected += probability * minutes;
    const outcome = (model.outcomes[index] ?? [])[o] as Outcome;
    return { outcome, probability, stations: stationsOf(worked, next, sum || 1), minutes };
  });
  return {
    place: model.places[index] as CheckAtPlace,
    index,
    price,
    checkMinutes,
    expectedMinutes: expected,
    bits,
    renewsSound,
    outcomes,
    done,
    depth: 1,
  };
}

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
  const { looked = answered } = search;
  const work = (most?: number, like?: Forecasts): Worked => {
    const { live, p } = liveOf(model, suspicion, most);
    const involved = live.map(({ causes }) => causes.map((cause) => model.causes[cause] as Cause));
    const weight = (place: number, h: number): number => added[place]?.(involved[h] ?? []) ?? 1;
    const forecasts = like?.over(live, weight) ?? new Forecasts(model, suspicion, live, weight);
    const ahead = new Lookahead(model, forecasts, looked, suspicion.aside);
    return { ahead, forecasts, live, p, model, stops: live.map(({ causes }) => stopsOf(model, causes)) };
  };
  const worked = work();
  const { ahead, p } = worked;
  const rough = search.quick ? work(QUICK_LIVE, worked.forecasts) : worked;
  const asked = new Set(evidence.map((item) => item.same));
  let checks = model.places.flatMap((place, index): CheckForecast[] => {
    if (barred.has(place.key) || place.check.retired || place.cannot) return [];
    // Asked once, the owner gives the same answer again.
    if (place.check.asks && asked.has(place.check.asks)) return [];
    // What belongs to the taking-in is asked there.
    if (place.check.intake || !sayable(model, place)) return [];
    // With the heating at fault nothing is offered that wants heat, but a look at the heating itself.
    if (bench.heatSpoiled && ahead.price(index, bench).price.impossible) return [];
    const found = forecast(rough, index, bench, answered.has(place.key));
    return found ? [found] : [];
  });
  if (search.quick) {
    const close = new Set([
      ...ranked(checks).slice(0, QUICK_CLOSELY),
      ...checks.filter((check) => search.also?.includes(check.place.key)),
    ]);
    // What the hypotheses left out add to any course of action, nearly enough.
    const more = ahead.stopping(p, bench).minutes - rough.ahead.stopping(rough.p, bench).minutes;
    checks = checks.map((check) => {
      const closely = close.has(check) ? forecast(worked, check.index, bench, check.done) : undefined;
      return closely ?? { ...check, expectedMinutes: check.expectedMinutes + more };
    });
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
    const kept = [...HABITS.flatMap((habit) => byHabit(habit, model, open) ?? []), ...sparing(open)];
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
    repairMinutes = Math.min(repairMinutes, soonest);
    list = ranked(checks.map((check) => deeper.get(check.index) ?? check));
  }
  const known = mendedAnyway(model, suspicion, first);
  if (known !== undefined) {
    first = known;
    repairMinutes = ahead.repairing(known, p, bench, []);
  }
  let best = list.find((check) => !check.done);
  const suspected = stationShares(model, suspicion);
  const share = carried(model, suspicion, first);
  const replaces = model.groups[first ?? -1]?.remedy.replaces !== undefined;
  const again = doneInVain(model, first);
  const comesFirst = (check: CheckForecast | undefined): boolean =>
    check !== undefined && checkFirst(check, share, { replaces, again }, repairMinutes, now.minutes);
  let worthwhile = known === undefined && comesFirst(best);
  const telling = worthwhile || share >= CARRIED ? undefined : tellingMuch(list, comesFirst);
  const toFront = (check: CheckForecast): void => {
    best = check;
    worthwhile = true;
    list = [check, ...list.filter((other) => other !== check)];
  };
  if (telling) toFront(telling);
  const [spares] =
    worthwhile || !replaces ? [] : sparing(list.filter(({ done, depth }) => !done && depth === search.depth));
  if (spares && comesFirst(spares)) toFront(spares);
  const mended = new Set((model.groups[first ?? -1]?.causes ?? []).flatMap((c) => model.causes[c]?.stop.index ?? []));
  const seenAgain = worthwhile || !again ? undefined : lookAgain(list, mended, share);
  if (seenAgain) toFront(seenAgain);
  const seenFirst = worthwhile ? undefined : lookFirst(list, model, mended, share, repairMinutes, replaces);
  if (seenFirst) toFront(seenFirst);
  // Where no repair carries itself, the path is taken apart stretch by stretch, the likeliest and nearest first.
  const onPath = (suspicion.share.at(-1) ?? 0) * (1 - suspicion.aside);
  const opening = !worthwhile && share < CARRIED ? nextOpening(list, suspected, onPath) : undefined;
  const asks = !worthwhile && !opening && replaces && rathersAsk(share, repairMinutes, now.apart);
  const advice = worthwhile || opening ? 'check' : 'repair';
  const second = list.filter((check) => !check.done)[1]?.expectedMinutes ?? Infinity;
  const gap =
    advice === 'check'
      ? Math.min(second, repairMinutes) - (best?.expectedMinutes ?? 0)
      : (best?.expectedMinutes ?? Infinity) - repairMinutes;
  return {
    repairMinutes: asks ? now.apart : repairMinutes,
    carried: asks ? 0 : share,
    repairOrder: asks || first === undefined ? [] : [first, ...repairOrder.filter((group) => group !== first)],
    checks: [
      ...(opening ? [opening] : []),
      ...suspectShown(
        oneOfEach(
          list.filter((check) => !check.done && check !== opening),
          suspected,
        ),
        mended,
        share,
        suspected,
      ),
      ...list.filter((check) => check.done),
    ],
    advice,
    ...(opening ? { apart: true } : {}),
    nearTie: Math.abs(gap) < NEAR_TIE_MIN,
    complete,
  };
}
