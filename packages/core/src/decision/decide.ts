import { canBeDone } from '../bench/places';
import type { Bench } from '../bench/state';
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
import { Forecasts } from './forecasts';
import { forecast, type CheckForecast, type Search, type Worked } from './checkForecast';
import { Lookahead } from './lookahead';
import { liveOf, stationShares, stopsOf, type Model } from './model';
import { twoAhead } from './twoAhead';
import type { Evidence } from '../inference/evidence';
import type { Suspicion } from '../inference/suspicion';
import { addedWeight } from '../observation/witness';
import type { Cause } from '../observation/causes';

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

/** An answer at once ranks by so many hypotheses, and looks at so many of the leading checks with all (chosen). */
const QUICK_LIVE = 20;
const QUICK_CLOSELY = 8;

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
  // What cannot be done shows nothing when the path is taken apart either.
  const past = new Set([...(search.looked ?? answered), ...barred]);
  const work = (most?: number, like?: Forecasts): Worked => {
    const { live, p } = liveOf(model, suspicion, most);
    const involved = live.map(({ causes }) => causes.map((cause) => model.causes[cause] as Cause));
    const weight = (place: number, h: number): number => added[place]?.(involved[h] ?? []) ?? 1;
    const forecasts = like?.over(live, weight) ?? new Forecasts(model, suspicion, live, weight);
    const ahead = new Lookahead(model, forecasts, past, suspicion.aside);
    return { ahead, forecasts, live, p, model, stops: live.map(({ causes }) => stopsOf(model, causes)) };
  };
  const worked = work();
  const { ahead, p } = worked;
  const rough = search.quick ? work(QUICK_LIVE, worked.forecasts) : worked;
  const asked = new Set(evidence.map((item) => item.same));
  let checks = model.places.flatMap((place, index): CheckForecast[] => {
    if (barred.has(place.key) || !canBeDone(place)) return [];
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
    const deeper = twoAhead(worked, suspicion, checks, repairOrder, repairMinutes, bench, search);
    ({ list, repairMinutes, complete } = deeper);
    first = deeper.first ?? first;
  }
  const known = mendedAnyway(model, suspicion, first);
  if (known !== undefined) {
    first = known;
    repairMinutes = ahead.repairing(known, p, bench, []);
  }
  let best = list.find((check) => !check.done);
  const suspected = stationShares(model, suspicion);
  let share = carried(model, suspicion, first);
  const replaces = model.groups[first ?? -1]?.remedy.replaces !== undefined;
  const again = doneInVain(model, first);
  // After a check whatever is best may be done: it is compared with that, and not with what is mended anyway.
  const instead = known === undefined ? repairMinutes : Math.min(repairMinutes, now.minutes);
  const comesFirst = (check: CheckForecast | undefined): boolean =>
    check !== undefined && checkFirst(check, share, { replaces, again }, instead, now.minutes);
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
  const seenFirst = worthwhile ? undefined : lookFirst(list, model, mended, share, instead, replaces);
  if (seenFirst) toFront(seenFirst);
  // Where no repair carries itself, the path is taken apart stretch by stretch, the likeliest and nearest first.
  const onPath = (suspicion.share.at(-1) ?? 0) * (1 - suspicion.aside);
  const opening = !worthwhile && share < CARRIED ? nextOpening(list, suspected, onPath) : undefined;
  let asks = !worthwhile && !opening && replaces && rathersAsk(share, repairMinutes, now.apart);
  // Before anybody is asked, what is worth its minutes and renews nothing is tried.
  const gentle = asks ? repairOrder.find((group) => model.groups[group]?.remedy.replaces === undefined) : undefined;
  if (gentle !== undefined) {
    first = gentle;
    share = carried(model, suspicion, first);
    repairMinutes = ahead.repairing(first, p, bench, []);
    asks = false;
  }
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
