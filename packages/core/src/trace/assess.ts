import { WAITING_RATE } from '../bench/price';
import type { Bench } from '../bench/state';
import type { Catalogue } from '../catalogue/types';
import type { Machine } from '../path/machine';
import { routeOf } from '../path/route';
import { withSizes } from '../path/toolSizes';
import type { OrderState } from '../order/state';
import { causesOf } from './causes';
import { habitAdvice, leadingPairs, meanwhileOf, unexplained, whatWouldChange, type HabitAdvice } from './counsel';
import type { Advice, Assessment, CauseSuspicion, RankedCheck, RankedOutcome } from './assessment';
import { clearing, spansOf, type StationSuspicion } from './cleared';
import type { Case } from './context';
import { decide, type CheckForecast, type Decision, type Search } from './decide';
import {
  byStation,
  forAndAgainst,
  minutesText,
  movedBy,
  percent,
  priceWords,
  stationName,
  type ForAgainst,
} from './explain';
import { modelOf, type Model } from './model';
import { checksFor } from './places';
import { evidenceOf, weigh, type Evidence, type Suspicion } from './suspicion';

/** What the order says about the machine, findings aside. */
export function caseOf(machine: Machine, catalogue: Catalogue, state: OrderState): Case {
  const { intake } = state;
  return {
    machine,
    catalogue,
    symptoms: intake?.symptoms ?? [],
    before: intake?.before ?? [],
    failed: state.failures,
    ...(intake?.lane === undefined ? {} : { lane: intake.lane }),
    ...(intake?.material === undefined ? {} : { material: intake.material }),
    ...(intake?.weeksLoaded === undefined ? {} : { weeksLoaded: intake.weeksLoaded }),
    ...(intake?.hotterBefore === undefined ? {} : { hotterBefore: intake.hotterBefore }),
    ...(intake?.onset === undefined ? {} : { onset: intake.onset }),
  };
}

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
    handsOnMinutes: place.check.minutes + price.openingMin + price.powerMin,
    waitingMinutes: price.heatingMin + price.coolingMin,
    heat: place.check.heat,
    power: place.check.power,
    opens: price.opened.map((id) => model.kase.machine.parts.find((part) => part.id === id)?.name ?? id),
    openIds: price.opened,
    ...(price.back ? { backIds: price.back } : {}),
    hotC: model.hotC,
    how: withSizes(place.check.how, model.route),
    cautions: place.check.cautions ?? [],
    tools: (place.check.tools ?? []).map((tool) => withSizes(tool, model.route)),
    priceParts: priceWords(forecast),
    parts: [
      { what: 'heating', minutes: WAITING_RATE * price.heatingMin },
      { what: 'cooling', minutes: WAITING_RATE * price.coolingMin },
      { what: 'switching', minutes: price.powerMin },
      { what: 'opening', minutes: price.openingMin },
      { what: 'the check', minutes: place.check.minutes },
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

/** No repair on the list is worth trying any more: take it apart and look at everything, or ask. */
const nothingListed = (decision: Decision): Advice => ({
  kind: 'repair',
  text: `No single repair is likely enough to be tried first. Take the path apart and look at every part (about ${minutesText(decision.repairMinutes)}), or ask somebody who has done it.`,
  nearTie: decision.nearTie,
  repairMinutes: decision.repairMinutes,
});

function adviceOf(model: Model, p: readonly number[], decision: Decision): Advice {
  const group = model.groups[decision.repairOrder[0] ?? -1];
  if (!group && decision.advice === 'repair') return nothingListed(decision);
  const best = decision.checks.find((check) => !check.done);
  const likeliest = group && [...group.causes].sort((a, b) => (p[b] ?? 0) - (p[a] ?? 0))[0];
  const cause = likeliest === undefined ? undefined : model.causes[likeliest];
  const share = group ? group.causes.reduce((sum, i) => sum + (p[i] ?? 0), 0) : 0;
  const where = group
    ? `${group.station.name}: ${group.remedy.name.toLowerCase()} (${percent(share)} that it is this)`
    : 'nothing on the list';
  const repair = minutesText(decision.repairMinutes);
  const text =
    decision.advice === 'check' && best
      ? `Checking first: about ${minutesText(best.expectedMinutes)} to a proved repair. Repairing now: about ${repair}.`
      : `Repairing now takes about ${repair}${best ? `; another check first about ${minutesText(best.expectedMinutes)}` : ''}. Begin at ${where}.`;
  return {
    kind: decision.advice,
    text,
    nearTie: decision.nearTie,
    repairMinutes: decision.repairMinutes,
    ...(best ? { checkMinutes: best.expectedMinutes } : {}),
    ...(group && cause ? { station: group.station.id, mode: cause.mode.id, remedy: group.remedy.id } : {}),
  };
}

export interface Working {
  readonly model: Model;
  readonly evidence: readonly Evidence[];
  readonly suspicion: Suspicion;
}

const modelCache = new Map<string, Model>();

/** The model of a case, kept for the next finding of the same order; a handful at most. */
function modelFor(kase: Case): Model {
  const { machine, catalogue: _catalogue, ...rest } = kase;
  const key = `${machine.id}|${JSON.stringify(rest)}`;
  const known = modelCache.get(key);
  if (known && known.kase.machine === machine && known.kase.catalogue === kase.catalogue) return known;
  const route = routeOf(machine, kase.lane);
  const model = modelOf(kase, route, causesOf(kase, route), checksFor(kase.catalogue, machine, route));
  if (modelCache.size >= 8) modelCache.clear();
  modelCache.set(key, model);
  return model;
}

/** Posterior of an order as it stands, with what it was computed from. */
export function workOut(machine: Machine, catalogue: Catalogue, state: OrderState): Working {
  const kase = caseOf(machine, catalogue, state);
  const model = modelFor(kase);
  const places = new Map(model.places.map((place) => [place.key, place]));
  const evidence = evidenceOf(kase, model.causes, places, state.findings);
  return { model, evidence, suspicion: weigh(model.causes, model.prior, evidence) };
}

/** Checks that were answered, also with "not sure": they may be done again, last. */
export const answeredKeys = (state: OrderState): ReadonlySet<string> => new Set(state.findings.map((item) => item.key));

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

/** Suspicion, what is cleared, what to do next and why. */
export function assess(
  machine: Machine,
  catalogue: Catalogue,
  state: OrderState,
  bench: Bench,
  search?: Search,
): Assessment {
  const { model, evidence, suspicion } = workOut(machine, catalogue, state);
  const p = suspicion.share;
  const clearedBy = clearing(model, evidence, suspicion);
  const now = byStation(model, p);
  const before = byStation(model, model.prior);
  const stations = model.route.stops.map(({ station }, i): StationSuspicion => {
    const by = clearedBy[i];
    return {
      station: station.id,
      name: station.name,
      suspicion: now[i] ?? 0,
      prior: before[i] ?? 0,
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
  const decision = decide(model, suspicion, bench, evidence, barredKeys(state), answeredKeys(state), search);
  const habits = habitAdvice(model, decision);
  const changer = whatWouldChange(model, suspicion, decision);
  const elsewhere = p.at(-1) ?? 0;
  return {
    stations,
    causes,
    elsewhere,
    cleared: spansOf(stations),
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
    advice: adviceOf(model, p, decision),
    pairs: leadingPairs(model, suspicion),
    ...(changer ? { changer } : {}),
    unexplained:
      elsewhere > Math.max(...causes.map((cause) => cause.suspicion)) ? unexplained(model, suspicion, evidence) : [],
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
  const causes = model.causes.flatMap((cause, i) =>
    cause.stop.station.id === station
      ? [
          {
            station,
            mode: cause.mode.id,
            name: cause.mode.name,
            suspicion: p[i] ?? 0,
            forAgainst: forAndAgainst(model, evidence, [i]),
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
