import type { Bench } from '../bench/state';
import type { Catalogue } from '../catalogue/types';
import type { Machine } from '../path/machine';
import type { OrderState } from '../order/state';
import { besidePath, habitAdvice, leadingSets, unexplained, whatWouldChange, type HabitAdvice } from './counsel';
import type { Assessment, CauseSuspicion, Sight } from './assessment';
import { adviceOf } from './adviceText';
import { anywhereByStop, clearing, spansOf, type StationSuspicion } from './cleared';
import { answeredKeys, lookedAtKeys } from '../decision/answered';
import type { Search } from '../decision/checkForecast';
import { decide, type Decision } from '../decision/decide';
import { forAndAgainst, leaveOneOut, stationName, type ForAgainst } from './explain';
import { shopPace, type LearnedCatalogue } from '../decision/pace';
import { priorShares, stationShares } from '../decision/model';
import { workOut, type Working } from '../decision/working';
import { QUICK } from '../inference/hypotheses';
import { weigh } from '../inference/suspicion';
import { barredKeys } from './barred';
import { rankedCheck } from './rankedCheck';

/** Checks whose every result is told from the start; the others' come when they are asked for. */
const TOLD = 6;

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
      rankedCheck(
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
