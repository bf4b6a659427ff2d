import { hazardsOf } from '../bench/action';
import { WAITING_RATE } from '../bench/price';
import type { Bench } from '../bench/state';
import { cautionsOf, cautionsTold } from '../catalogue/cautions';
import { toolById } from '../catalogue/index';
import type { CheckForecast } from '../decision/checkForecast';
import type { Decision } from '../decision/decide';
import { ROUND_MIN } from '../decision/lookahead';
import type { Model } from '../decision/model';
import { withSizes } from '../path/toolSizes';
import type { RankedCheck, RankedOutcome } from './assessment';
import { meanwhileOf } from './counsel';
import { movedBy, priceWords, stationName } from './explain';
import { reasonsFor } from './reasons';

/** A check as the page shows it: what its results would move, its price and its reasons. */
export function rankedCheck(
  model: Model,
  now: readonly number[],
  forecast: CheckForecast,
  decision: Decision,
  bench: Bench,
  told: boolean,
): RankedCheck {
  const { place, price } = forecast;
  const { repairMinutes } = decision;
  const { kase } = model;
  const { catalogue } = kase;
  // With power or heat on, and nothing mended so far.
  const powered = (place.check.power === 'on' || place.check.heat === 'hot') && !kase.failed?.length;
  const at = model.route.stops.find(({ station }) => station.id === place.station)?.station;
  const outcomes = forecast.outcomes.map((item): RankedOutcome => ({
    result: item.outcome.result,
    label: item.outcome.label,
    probability: item.probability,
    minutesAfter: item.minutes,
    stations: item.stations,
    moves: movedBy(model, now, item.stations),
  }));
  const saves = repairMinutes - forecast.expectedMinutes;
  return {
    key: place.key,
    check: place.check.id,
    station: place.station,
    name: place.name,
    handsOnMinutes: place.check.minutes + price.openingMin + price.powerMin + price.clearMin + price.raiseMin,
    waitingMinutes: price.heatingMin + price.coolingMin,
    heat: place.check.heat,
    power: place.check.power,
    opens: price.opened.map((id) => model.kase.machine.parts.find((part) => part.id === id)?.name ?? id),
    openIds: price.opened,
    ...(price.back ? { backIds: price.back } : {}),
    hotC: model.hotC,
    how: withSizes(place.check.how.replaceAll('{station}', stationName(model, place.station)), model.route),
    cautions: cautionsOf(
      catalogue,
      [...(powered ? cautionsTold(catalogue, kase.symptoms) : []), ...(place.check.cautions ?? [])],
      place.check.tools ?? [],
      hazardsOf(model.route, place.check),
    ),
    tools: (place.check.tools ?? []).map((id) => withSizes(toolById(catalogue, id)?.name ?? id, model.route, at)),
    priceParts: priceWords(forecast),
    parts: [
      { what: 'heating', minutes: WAITING_RATE * price.heatingMin },
      { what: 'cooling', minutes: WAITING_RATE * price.coolingMin },
      { what: 'emptying the path', minutes: price.clearMin },
      { what: 'raising the head', minutes: price.raiseMin },
      { what: 'switching', minutes: price.powerMin },
      { what: 'opening', minutes: price.openingMin },
      { what: 'the check', minutes: place.check.minutes },
      { what: 'fetching and noting', minutes: ROUND_MIN },
      { what: 'its risk', minutes: place.check.risk ?? 0 },
    ],
    afterMinutes: forecast.expectedMinutes - forecast.checkMinutes,
    depth: forecast.depth,
    meanwhile: told ? meanwhileOf(decision, bench, place.key) : [],
    expectedMinutes: forecast.expectedMinutes,
    savesMinutes: saves,
    bits: forecast.bits,
    done: forecast.done,
    because: reasonsFor(forecast, outcomes, saves),
    tells: [...new Set(outcomes.flatMap((outcome) => outcome.moves.map((move) => move.station)))],
    outcomes: told ? outcomes : [],
  };
}
