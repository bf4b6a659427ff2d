import { WAITING_RATE } from '../bench/price';
import type { Bench } from '../bench/state';
import { hazardsOf } from '../bench/action';
import { cautionsOf, cautionsTold } from '../catalogue/cautions';
import { toolById } from '../catalogue/index';
import type { Catalogue } from '../catalogue/types';
import type { Machine } from '../path/machine';
import { withSizes } from '../path/toolSizes';
import type { OrderState } from '../order/state';
import {
  besidePath,
  habitAdvice,
  leadingSets,
  meanwhileOf,
  unexplained,
  whatWouldChange,
  type HabitAdvice,
} from './counsel';
import type { Advice, Assessment, CauseSuspicion, RankedCheck, RankedOutcome, Sight } from './assessment';
import { anywhereByStop, clearing, spansOf, type StationSuspicion } from './cleared';
import { ROUND_MIN } from '../decision/lookahead';
import { answeredKeys, lookedAtKeys } from '../decision/answered';
import { leftOfWay } from '../decision/apart';
import { decide, type CheckForecast, type Decision, type Search } from '../decision/decide';
import {
  forAndAgainst,
  leaveOneOut,
  minutesText,
  movedBy,
  percent,
  priceWords,
  stationName,
  type ForAgainst,
} from './explain';
import { shopPace, type LearnedCatalogue, type ShopPace } from '../decision/pace';
import { priorShares, stationShares, type Model } from '../decision/model';
import { workOut, type Working } from '../decision/working';
import { QUICK } from '../inference/hypotheses';
import { weigh } from '../inference/suspicion';

/** Checks whose every result is told from the start; the others' come when they are asked for. */
const TOLD = 6;

function rank(
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
  const telling = [...outcomes]
    .filter((o) => o.moves.length > 0)
    .sort((a, b) => b.probability - a.probability)
    .slice(0, 2);
  const because = telling.map(({ label, probability, moves }) => {
    const moved = moves.map((move) => `${move.name} ${percent(move.from)} → ${percent(move.to)}`).join(', ');
    return `${label} (${percent(probability)}): ${moved}`;
  });
  because.push(
    `${priceWords(forecast).join(' + ')}; then about ${minutesText(forecast.expectedMinutes - forecast.checkMinutes)} to a proved repair`,
  );
  if (saves > 0.5) because.push(`about ${minutesText(saves)} less than repairing on suspicion now`);
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
    because,
    tells: [...new Set(outcomes.flatMap((outcome) => outcome.moves.map((move) => move.station)))],
    outcomes: told ? outcomes : [],
  };
}

/** No repair on the list is worth trying any more: take apart what has not been looked at, or ask. */
const nothingListed = (decision: Decision, { stretches, minutes }: Left): Advice => ({
  kind: 'repair',
  text:
    stretches > 0
      ? `No single repair is likely enough to be tried first. Take the path apart and look at what has not been looked at (about ${minutesText(minutes)}), or ask somebody who has done it.`
      : 'Every stretch of the path has been looked at, and no repair on the list is likely enough to be tried. Ask somebody who has done it; what is seen by the way may be on no list.',
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
  const { until, minutes } = leftOfWay(model.way, lookedAtKeys(model, state.findings));
  return { stretches: until.size, minutes };
}

function adviceOf(model: Model, state: OrderState, p: readonly number[], decision: Decision, pace: ShopPace): Advice {
  const group = model.groups[decision.repairOrder[0] ?? -1];
  if (!group && decision.advice === 'repair') return nothingListed(decision, leftOf(model, state));
  const best = decision.checks.find((check) => !check.done);
  if (decision.apart && best) return takeApart(decision, best, leftOf(model, state));
  const likeliest = group && [...group.causes].sort((a, b) => (p[b] ?? 0) - (p[a] ?? 0))[0];
  const cause = likeliest === undefined ? undefined : model.causes[likeliest];
  const where = group
    ? `${group.station.name}: ${group.remedy.name.toLowerCase()} (${percent(decision.carried)} that it is this)`
    : 'nothing on the list';
  const repair = minutesText(decision.repairMinutes);
  const afterwards =
    best && best.expectedMinutes < decision.repairMinutes ? ', and it can be made afterwards as well' : '';
  const text =
    decision.advice === 'check' && best
      ? `Checking first: about ${minutesText(best.expectedMinutes)} to a proved repair. Repairing now: about ${repair}.`
      : `Repairing now takes about ${repair}${best ? `; another check first about ${minutesText(best.expectedMinutes)}${afterwards}` : ''}. Begin at ${where}.`;
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

/** Checks not to offer: those said to be impossible here. */
export const barredKeys = (state: OrderState): ReadonlySet<string> => new Set(state.notDone.map((item) => item.key));

/** An answer at once tells of the leading checks only: the rest come with the longer look, a moment later. */
const QUICK_TOLD = 12;

/** The checks that are told, best first. */
function checksTold(
  decision: Decision,
  habits: readonly HabitAdvice[],
  search: Search | undefined,
): Decision['checks'] {
  if (!search?.quick) return decision.checks;
  const kept = new Set([...habits.map(({ key }) => key), ...(search.also ?? [])]);
  return decision.checks.filter(({ place }, i) => i < QUICK_TOLD || kept.has(place.key));
}

/** What is believed of the path, from the posterior alone. */
export function sightOf({ model, evidence, suspicion }: Working): Sight {
  const p = suspicion.share;
  const clearedBy = clearing(model, evidence, suspicion);
  const now = stationShares(model, suspicion);
  const before = priorShares(model);
  const anywhere = anywhereByStop(model, suspicion);
  const stations = model.route.stops.map(({ station }, i): StationSuspicion => {
    const by = clearedBy[i];
    return {
      station: station.id,
      name: station.name,
      suspicion: now[i] ?? 0,
      prior: before[i] ?? 0,
      anywhere: anywhere[i] ?? 0,
      ...(by === undefined ? {} : { clearedBy: by }),
    };
  });
  const causes = model.causes
    .map((cause, i): CauseSuspicion => ({
      station: cause.stop.station.id,
      mode: cause.mode.id,
      name: cause.mode.name,
      suspicion: p[i] ?? 0,
    }))
    .sort((a, b) => b.suspicion - a.suspicion);
  const elsewhere = p.at(-1) ?? 0;
  const beside = besidePath(suspicion);
  return {
    stations,
    causes,
    elsewhere,
    cleared: spansOf(stations),
    sets: leadingSets(model, suspicion),
    unexplained:
      elsewhere > Math.max(...causes.map((cause) => cause.suspicion)) ? unexplained(model, suspicion, evidence) : [],
    ...(beside === undefined ? {} : { beside }),
  };
}

/** The posterior of an order as a quick search weighs it. */
export const quickWorking = (machine: Machine, catalogue: LearnedCatalogue, state: OrderState): Working =>
  workOut(machine, catalogue, state, QUICK);

/**
 * Suspicion, what is cleared, what to do next and why.
 *
 * @param working the posterior of this order, where it was worked out already, as broadly as the search asks
 */
export function assess(
  machine: Machine,
  catalogue: LearnedCatalogue,
  state: OrderState,
  bench: Bench,
  search?: Search,
  working: Working = search?.quick ? quickWorking(machine, catalogue, state) : workOut(machine, catalogue, state),
): Assessment {
  const { model, evidence, suspicion } = working;
  const p = suspicion.share;
  const now = stationShares(model, suspicion);
  const decision = decide(model, suspicion, bench, evidence, barredKeys(state), answeredKeys(model, state.findings), {
    depth: 1,
    ...search,
    looked: lookedAtKeys(model, state.findings),
  });
  const habits = habitAdvice(model, decision);
  const changer = whatWouldChange(model, suspicion, decision);
  return {
    ...sightOf(working),
    checks: checksTold(decision, habits, search).map((forecast, i) =>
      rank(
        model,
        now,
        forecast,
        decision,
        bench,
        i < TOLD || forecast.depth === 2 || search?.also?.includes(forecast.place.key) === true,
      ),
    ),
    advice: adviceOf(model, state, p, decision, catalogue.pace ?? shopPace(undefined)),
    ...(changer ? { changer } : {}),
    habits,
  };
}

export interface StationCase {
  readonly station: string;
  readonly name: string;
  readonly causes: readonly (CauseSuspicion & {
    readonly forAgainst: readonly ForAgainst[];
    readonly raisedBy: readonly string[];
  })[];
}

/** What can fail at a station, with what speaks for and against each, strongest first. */
export function stationCase(machine: Machine, catalogue: Catalogue, state: OrderState, station: string): StationCase {
  const { model, evidence, suspicion } = workOut(machine, catalogue, state);
  const p = suspicion.share;
  const without = leaveOneOut(model, evidence);
  const whole = weigh(model.causes, model.prior, evidence, model.removed, QUICK);
  const causes = model.causes.flatMap((cause, i) =>
    cause.stop.station.id === station
      ? [
          {
            station,
            mode: cause.mode.id,
            name: cause.mode.name,
            suspicion: p[i] ?? 0,
            forAgainst: forAndAgainst(model, evidence, [i], without, whole),
            raisedBy: cause.raisedBy.map((raise) => `${raise.why} (× ${raise.by})`),
          },
        ]
      : [],
  );
  return { station, name: stationName(model, station), causes: causes.sort((a, b) => b.suspicion - a.suspicion) };
}

/** One line on what a finding changed: what it cleared, and the station it moved most. */
export function whatChanged(before: Assessment, after: Assessment): string {
  const old = new Map(before.stations.map((item) => [item.station, item]));
  const cleared = after.stations.filter(
    (item) => item.clearedBy !== undefined && old.get(item.station)?.clearedBy === undefined,
  );
  const reopened = after.stations.filter(
    (item) => item.clearedBy === undefined && old.get(item.station)?.clearedBy !== undefined,
  );
  const moves = after.stations
    .map((item) => ({ ...item, from: old.get(item.station)?.suspicion ?? 0 }))
    .filter((item) => Math.abs(item.suspicion - item.from) >= 0.005)
    .sort((a, b) => Math.abs(b.suspicion - b.from) - Math.abs(a.suspicion - a.from));
  const parts: string[] = [];
  const names = cleared.map((item) => item.name);
  if (names.length)
    parts.push(
      `${names.length > 3 ? `${names.slice(0, 2).join(', ')} and ${names.length - 2} more` : names.join(', ')} cleared`,
    );
  if (reopened.length) parts.push(`${reopened.map((item) => item.name).join(', ')} no longer cleared`);
  const top = moves.find((item) => item.suspicion > item.from) ?? moves[0];
  if (top) parts.push(`${top.name} ${percent(top.from)} → ${percent(top.suspicion)}`);
  if (Math.abs(after.elsewhere - before.elsewhere) >= 0.03)
    parts.push(`something else ${percent(before.elsewhere)} → ${percent(after.elsewhere)}`);
  return parts.length ? parts.join('; ') : 'Nothing moved';
}
