import { placedActions, priceOfAll, type PlacedAction } from '../bench/action';
import type { Need } from '../bench/price';
import type { Bench } from '../bench/state';
import { hourlyRateOf, materialOf, modeById } from '../catalogue/index';
import type { Catalogue, Material, Offer, Remedy, RungOutcome } from '../catalogue/types';
import { causesUnderWork, isCleared, triesAt } from '../order/causes';
import type { ChosenCause, OrderState, RungTry } from '../order/state';
import type { Machine } from '../path/machine';
import type { Route, Stop } from '../path/route';
import { caseOf } from '../decision/working';
import { clearingMinutes, offerFor } from './offers';
import { ELSEWHERE_MIN, remedyMinutes, rungsFor } from '../decision/repairs';

/** What is left of a rung's chance after a try that changed nothing, and after one that made it worse (chosen). */
const AFTER_NOTHING = 0.4;
const AFTER_WORSE = 0.2;
const USUAL_TRIES = 1;

const USUAL: readonly RungOutcome[] = [
  { id: 'cleared', label: 'It is clear', means: 'cleared' },
  { id: 'no-change', label: 'Changed nothing', means: 'no-change' },
  { id: 'worse', label: 'Made it worse', means: 'worse' },
];

export const outcomesOfRung = (remedy: Remedy): readonly RungOutcome[] => remedy.outcomes ?? USUAL;

/** One rung as it stands after what was tried. */
export interface Rung {
  /** With the price and minutes of what is to be fitted. */
  readonly remedy: Remedy;
  /** What is to be fitted: the technician's choice, or what costs least over its life. */
  readonly offer?: Offer;
  /** Its actions at this place, in their order. */
  readonly placed: readonly PlacedAction[];
  /** Chance that it clears the cause now. */
  readonly chance: number;
  /** Bench minutes from the bench as it stands: the way there, the work, a part of the waiting. */
  readonly minutes: number;
  readonly price: number;
  readonly risk: number;
  /** Expected bench minutes, prices at the hourly rate, until the cause is cleared, when this is taken next. */
  readonly expectedMinutes: number;
  /** Why it is not offered any more: its stop rule. */
  readonly spent?: string;
  /** Wished for, when the path does not allow it. */
  readonly wishedC?: number;
}

export interface Ladder {
  readonly cause: ChosenCause;
  readonly stop: Stop;
  readonly cleared: boolean;
  /** Best first; those that are spent last. */
  readonly rungs: readonly Rung[];
  readonly next?: Rung;
}

/** Minutes of a rung's work, its price at the hourly rate among them. */
export const workOf = (remedy: Remedy, hourlyRate: number): number =>
  clearingMinutes(remedy, hourlyRate) ?? remedyMinutes(remedy) + ((remedy.price ?? 0) * 60) / hourlyRate;

const triesOf = (state: OrderState, cause: ChosenCause, remedy: Remedy): readonly RungTry[] =>
  triesAt(state, cause).filter((item) => item.remedy === remedy.id);

/** Tries since the last progress that brought nothing. */
export const inVain = (tries: readonly RungTry[]): number =>
  tries.length - 1 - tries.findLastIndex((item) => item.outcome === 'better');

function chanceOf(remedy: Remedy, tries: readonly RungTry[]): number {
  const since = tries.slice(tries.length - inVain(tries));
  return since.reduce((p, item) => p * (item.outcome === 'worse' ? AFTER_WORSE : AFTER_NOTHING), remedy.cures);
}

function spentBecause(remedy: Remedy, tries: readonly RungTry[]): string | undefined {
  const most = remedy.tries ?? USUAL_TRIES;
  const vain = inVain(tries);
  if (tries.at(-1)?.outcome === 'worse') return 'it made things worse: back off';
  if (vain < most) return undefined;
  return remedy.stop ?? (most === 1 ? 'tried, and nothing came of it' : `${most} tries are enough`);
}

/**
 * The ladder of a cause as a decision: from the bench as it stands, the order of the rungs that are left with the least
 * expected cost (minutes, prices at the hourly rate, risk), replacing included; by dynamic programming over the rungs
 * already taken, since each leaves the bench in its own state. What is left when all fail is taking everything apart.
 */
function decide(
  machine: Machine,
  bench: Bench,
  rungs: readonly {
    readonly remedy: Remedy;
    readonly needs: readonly Need[];
    readonly chance: number;
    /** Minutes of the work, prices among them. */
    readonly work: number;
  }[],
): readonly number[] {
  const kept = new Map<string, number>();
  const prices = new Map<string, ReturnType<typeof priceOfAll>>();
  /** What is off is the same set in few combinations: each is priced once. */
  const pricedAt = (i: number, at: Bench, needs: readonly Need[]) => {
    const key = `${i}|${Math.round(at.temperatureC)}|${at.power}|${[...at.off].join()}`;
    const known = prices.get(key) ?? priceOfAll(machine, at, needs);
    prices.set(key, known);
    return known;
  };
  const best = (taken: number, at: Bench): number => {
    // What is off follows from what was taken; heat and power do not.
    const key = `${taken}|${Math.round(at.temperatureC)}|${at.power}`;
    const known = kept.get(key);
    if (known !== undefined) return known;
    let least = ELSEWHERE_MIN;
    rungs.forEach((_, i) => {
      if (!(taken & (1 << i))) least = Math.min(least, taking(i, taken, at));
    });
    kept.set(key, least);
    return least;
  };
  const taking = (i: number, taken: number, at: Bench): number => {
    const { remedy, needs, chance, work } = rungs[i] as (typeof rungs)[number];
    const price = pricedAt(i, at, needs);
    const cost = price.minutes + work + (remedy.risk ?? 0);
    return cost + (1 - chance) * best(taken | (1 << i), price.after);
  };
  return rungs.map((_, i) => taking(i, 0, bench));
}

function wished(material: Material, remedy: Remedy, hotC: number): number | undefined {
  if (remedy.heat !== 'hot') return undefined;
  const wish = remedy.target === 'unclog' ? material.unclogC : material.printC;
  return wish > hotC ? wish : undefined;
}

/** Minutes within which a push and taking the thing out cost the same (chosen). */
const SAME_PRICE_MIN = 1;

/** Whether a rung pushes on what is stuck. */
const pushes = ({ placed }: Rung): boolean =>
  placed.some(({ action }) => action.push === 'head' && action.exit !== 'none');

/** What can be reached is taken out before anything is pushed on, where it costs no more; the rest keep their order. */
function takingOutFirst(rungs: readonly Rung[]): readonly Rung[] {
  const list = [...rungs];
  for (const out of rungs.filter((rung) => rung.remedy.takesOut && rung.spent === undefined)) {
    const at = list.indexOf(out);
    const push = list.findIndex((rung) => pushes(rung) && out.minutes <= rung.minutes + SAME_PRICE_MIN);
    if (push < 0 || push >= at) continue;
    list.splice(at, 1);
    list.splice(push, 0, out);
  }
  return list;
}

/** Every solvent that might take this plastic was tried on a piece, and none softened it. */
const noSolvent = (remedy: Remedy, { solvents = [] }: Material, state: OrderState): string | undefined =>
  remedy.needsSolvent && solvents.length > 0 && solvents.every((id) => state.solvents[id] === false)
    ? 'no solvent softened a piece of it'
    : undefined;

/** What was done before the machine came in, in vain: the rung has been tried once. */
const triedBefore = (catalogue: Catalogue, state: OrderState, remedy: Remedy): readonly RungTry[] =>
  (state.intake?.before ?? []).some((id) => catalogue.before.find((one) => one.id === id)?.tried?.includes(remedy.id))
    ? [{ stepId: 'before', remedy: remedy.id, outcome: 'no-change', station: '', mode: '', at: state.intake?.at ?? '' }]
    : [];

/** The ladder of one cause. @throws RangeError when the cause is not of this machine and path. */
export function ladderFor(
  machine: Machine,
  catalogue: Catalogue,
  state: OrderState,
  bench: Bench,
  route: Route,
  cause: ChosenCause,
): Ladder {
  const kase = caseOf(machine, catalogue, state);
  const stop = route.stops.find((candidate) => candidate.station.id === cause.station);
  const mode = modeById(catalogue, cause.mode);
  if (!stop || !mode) throw new RangeError('The chosen cause does not belong to this machine and path.');
  const material = materialOf(catalogue, kase.material);
  const { picked } = state;
  const own = picked?.station === cause.station && picked.mode === cause.mode ? picked : undefined;
  const rate = hourlyRateOf(catalogue);
  const all = rungsFor(catalogue, machine, route, { mode, stop }, material, kase.failed, kase.kept).map((listed) => {
    const offer = offerFor(listed, material, rate, own?.remedy === listed.id ? own.offer : undefined);
    const remedy = offer ? { ...listed, price: offer.price, minutes: offer.minutes } : listed;
    const tries = triesOf(state, cause, remedy);
    const placed = placedActions(machine, route, stop, listed, material) ?? [];
    return {
      remedy,
      placed,
      offer,
      work: workOf(listed, rate),
      needs: placed.map(({ need }) => need),
      chance: chanceOf(remedy, [...triedBefore(catalogue, state, remedy), ...tries]),
      spent: spentBecause(remedy, tries) ?? noSolvent(listed, material, state),
    };
  });
  const open = all.filter((rung) => rung.spent === undefined);
  const expected = decide(machine, bench, open);
  const rungs = takingOutFirst(
    all
      .map(({ remedy, offer, placed, needs, chance, spent }): Rung => {
        const wish = wished(material, remedy, Math.max(...needs.map(({ hotC }) => hotC)));
        return {
          remedy,
          placed,
          chance,
          minutes: priceOfAll(machine, bench, needs).minutes + remedyMinutes(remedy),
          price: remedy.price ?? 0,
          risk: remedy.risk ?? 0,
          expectedMinutes: expected[open.findIndex((rung) => rung.remedy === remedy)] ?? Infinity,
          ...(offer ? { offer } : {}),
          ...(spent === undefined ? {} : { spent }),
          ...(wish === undefined ? {} : { wishedC: wish }),
        };
      })
      .sort((a, b) => a.expectedMinutes - b.expectedMinutes),
  );
  const next = rungs.find((rung) => rung.remedy.id === own?.remedy) ?? rungs.find((rung) => rung.spent === undefined);
  return { cause, stop, cleared: isCleared(state, cause), rungs, ...(next ? { next } : {}) };
}

/** The ladders of all causes under work. */
export const laddersFor = (
  machine: Machine,
  catalogue: Catalogue,
  state: OrderState,
  bench: Bench,
  route: Route,
): readonly Ladder[] =>
  causesUnderWork(state).map((cause) => ladderFor(machine, catalogue, state, bench, route, cause));
