import { lookedAtKeys } from '../decision/answered';
import { leftOfWay } from '../decision/apart';
import type { CheckForecast } from '../decision/checkForecast';
import type { Decision } from '../decision/decide';
import type { Model } from '../decision/model';
import type { ShopPace } from '../decision/pace';
import type { OrderState } from '../order/state';
import type { Advice } from './assessment';
import { barredKeys } from './barred';
import { minutesText, percent } from './explain';

/** No repair on the list is worth trying any more: take apart what has not been looked at, or ask. */
const nothingListed = (decision: Decision, { stretches, minutes }: Left): Advice => ({
  kind: 'repair',
  text:
    stretches > 0
      ? `No single repair is likely enough to be tried first. Take the path apart and look at what has not been looked at (about ${minutesText(minutes)}), or ask somebody who has done it.`
      : 'Every stretch of the path has been looked at, or cannot be, and no repair on the list is likely enough to be tried. Ask somebody who has done it; what is seen by the way may be on no list.',
  nearTie: decision.nearTie,
  repairMinutes: decision.repairMinutes,
});

/** Nothing carries a repair: the next stretch to open, and that there is an end to it. */
const takeApart = (decision: Decision, best: CheckForecast, { minutes }: Left): Advice => ({
  kind: 'check',
  apart: true,
  text: `No single repair is likely enough to be tried first, and no other check is worth its minutes. Open the path stretch by stretch, and stop when something is found: next, ${best.place.name.charAt(0).toLowerCase()}${best.place.name.slice(1)} (about ${minutesText(best.checkMinutes)}). To look at all that is left takes about ${minutesText(minutes)}.`,
  nearTie: false,
  repairMinutes: decision.repairMinutes,
  checkMinutes: best.expectedMinutes,
});

/** How far an order may be from what is expected before anything was looked at, and what the shop's own orders say of that. */
function spreadText(minutes: number, { orders, factor, low, high }: ShopPace): string {
  const range = `of ten orders eight take between ${minutesText(low * minutes)} and ${minutesText(high * minutes)}`;
  if (orders < ENOUGH_ORDERS)
    return ` Before anything is looked at count on about ${minutesText(factor * minutes)}, since no list is quite right; ${range}.`;
  return ` This shop’s ${Math.round(orders)} closed orders took ${factor.toFixed(1)} times what was expected of them: count on about ${minutesText(factor * minutes)}; ${range}.`;
}

/** Before so many the shop's own orders are reckoned with, but not spoken of. */
const ENOUGH_ORDERS = 5;

/** What is left of the way through the path when it is taken apart. */
interface Left {
  readonly stretches: number;
  readonly minutes: number;
}

function leftOf(model: Model, state: OrderState): Left {
  const { until, minutes } = leftOfWay(
    model.way,
    new Set([...lookedAtKeys(model, state.findings), ...barredKeys(state)]),
  );
  return { stretches: until.size, minutes };
}

/** What to do next, in words, with the minutes that it rests on. */
export function adviceOf(
  model: Model,
  state: OrderState,
  p: readonly number[],
  decision: Decision,
  pace: ShopPace,
): Advice {
  const group = model.groups[decision.repairOrder[0] ?? -1];
  if (!group && decision.advice === 'repair') return nothingListed(decision, leftOf(model, state));
  const best = decision.checks.find((check) => !check.done);
  if (decision.apart && best) return takeApart(decision, best, leftOf(model, state));
  const likeliest = group && [...group.causes].sort((a, b) => (p[b] ?? 0) - (p[a] ?? 0))[0];
  const cause = likeliest === undefined ? undefined : model.causes[likeliest];
  const where = group
    ? `${group.station.name}: ${group.remedy.name.toLowerCase()} (${percent(decision.carried)} likely that it is this)`
    : 'nothing on the list';
  const repair = minutesText(decision.repairMinutes);
  const afterwards =
    best && best.expectedMinutes < decision.repairMinutes ? ', and it can be made afterwards as well' : '';
  const text =
    decision.advice === 'check' && best
      ? `With this check first it takes about ${minutesText(best.expectedMinutes)} to a proved repair; repairing now, about ${repair}.`
      : `Repairing now takes about ${repair}${best ? `; with another check first, about ${minutesText(best.expectedMinutes)}${afterwards}` : ''}. Begin at ${where}.`;
  const expected = Math.min(decision.repairMinutes, best?.expectedMinutes ?? Infinity);
  return {
    kind: decision.advice,
    text: state.findings.length === 0 && state.failures.length === 0 ? text + spreadText(expected, pace) : text,
    nearTie: decision.nearTie,
    repairMinutes: decision.repairMinutes,
    ...(best ? { checkMinutes: best.expectedMinutes } : {}),
    ...(group && cause ? { station: group.station.id, mode: cause.mode.id, remedy: group.remedy.id } : {}),
  };
}
