import { placedActions, priceOfAll, type PlacedAction } from '../bench/action';
import { benchKey, closingMinutes, WAITING_RATE, type Need } from '../bench/price';
import type { Bench } from '../bench/state';
import type { Catalogue, Material, Remedy } from '../catalogue/types';
import { isSetting, materialOf, remedyById } from '../catalogue/index';
import type { Machine, Station } from '../path/machine';
import type { Route } from '../path/route';
import type { Cause } from '../observation/causes';
import type { Case, FailedRepair, Kept } from '../observation/context';
import { AGAIN } from '../inference/removal';
import { bounded } from '../quantities/keptWith';

/** Causes that are taken on together, because the same first remedy at the same station is meant for them. */
export interface RepairGroup {
  readonly id: string;
  readonly station: Station;
  readonly remedy: Remedy;
  readonly causes: readonly number[];
  /** Action by action. */
  readonly needs: readonly Need[];
  /** Expected further minutes if this is the cause: the rungs after the first. */
  readonly laterMin: number;
}

/** Proving a repair from the smallest test to the feed test, in bench minutes, when the machine is hot (chosen). */
export const PROOF_MIN = 6;
/** What it takes when a whole ladder has cured nothing: strip and look at everything, or ask for help (chosen). */
export const ELSEWHERE_MIN = 120;
/** What no opened path shows (a setting, a strand, a bad contact when warm) is then found by asking and by trying (chosen). */
export const ASKING_MIN = 120;
/** To mend what came to sight when everything was taken apart, proof aside, at the least (chosen). */
export const MEND_MIN = 20;
/**
 * Rungs that fit this place, path, material and bore, gentlest first. Those tried in vain are left out while another was tried less often.
 * Where a swap has cured, the good part stays in, and that is all.
 */
export function rungsFor(
  catalogue: Catalogue,
  machine: Machine,
  route: Route,
  cause: Pick<Cause, 'mode' | 'stop'>,
  material: Material,
  failed: readonly FailedRepair[] = [],
  kept: readonly Kept[] = [],
): readonly Remedy[] {
  const good = kept.find(({ stations }) => stations.includes(cause.stop.station.id));
  const keep = good && remedyById(catalogue, good.remedy);
  // The old part is out: what would be done to it in the machine cannot be done, nor is it needed.
  if (keep && placedActions(machine, route, cause.stop, keep, material)) return [keep];
  const tried = failed.filter(({ station }) => station === cause.stop.station.id).flatMap(({ remedies }) => remedies);
  const times = (id: string): number => tried.filter((other) => other === id).length;
  const bore = cause.stop.station.params?.boreMm;
  const fitting = cause.mode.remedies
    .map((id) => remedyById(catalogue, id))
    .filter((remedy): remedy is Remedy => remedy !== undefined && !remedy.retired)
    .filter((remedy) => remedy.boreAtLeastMm === undefined || bore === undefined || bore >= remedy.boreAtLeastMm)
    .filter((remedy) => remedy.boreBelowMm === undefined || bore === undefined || bore < remedy.boreBelowMm)
    .filter((remedy) => !remedy.needsSolvent || (material.solvents ?? []).length > 0)
    .filter(
      (remedy) => remedy.materials === undefined || remedy.materials.includes(material.id) || material.assumed === true,
    )
    .filter((remedy) => placedActions(machine, route, cause.stop, remedy, material) !== undefined);
  // With everything tried, it is done once more: a new part may have had the same flaw, a setting may have been missed by a little.
  const left = fitting.filter((remedy) => times(remedy.id) < mostTimes(remedy, cause.stop.station));
  const least = Math.min(...left.map(({ id }) => times(id)));
  return left
    .filter(({ id }) => times(id) === least)
    .map((remedy) => (least === 0 ? remedy : doneAgain(remedy, least)));
}

/** So often the same is done in one visit, a setting is changed, and a new part of one kind is fitted (common practice, no source). */
const MOST_TIMES = 3;
const MOST_SET = 2;
const MOST_PARTS = 2;
function mostTimes(remedy: Remedy, station: Station): number {
  if (remedy.replaces !== undefined) return MOST_PARTS;
  return isSetting(remedy, station) ? MOST_SET : MOST_TIMES;
}

const doneAgain = (remedy: Remedy, times: number): Remedy => ({
  ...remedy,
  name: `${remedy.name}: ${remedy.replaces === undefined ? 'once more' : 'another one'}`,
  cures: remedy.cures * AGAIN ** times,
});

const NEEDS = new WeakMap<readonly PlacedAction[], readonly Need[]>();

/** What a remedy needs at its place, action by action. @throws RangeError when it cannot be done there */
export function remedyNeeds(
  machine: Machine,
  route: Route,
  cause: Pick<Cause, 'stop'>,
  remedy: Remedy,
  material: Material,
): readonly Need[] {
  const placed = placedActions(machine, route, cause.stop, remedy, material);
  if (!placed) throw new RangeError(`"${remedy.name}" cannot be done at ${cause.stop.station.name} of this machine.`);
  const known = NEEDS.get(placed) ?? placed.map(({ need }) => need);
  NEEDS.set(placed, known);
  return known;
}

/** Soaking and drying go on by themselves; of a long wait only this much counts, since other work is done meanwhile (chosen). */
const LONG_WAIT_CAP_MIN = 60;
export const remedyMinutes = (remedy: Remedy): number =>
  remedy.minutes + WAITING_RATE * Math.min(remedy.waitMinutes ?? 0, LONG_WAIT_CAP_MIN);

/** Mending what came to sight: at least what its remedy takes by itself. */
export const mendMinutes = (remedy: Remedy | undefined): number =>
  Math.max(MEND_MIN, remedy ? remedyMinutes(remedy) : 0);

export function repairGroups(kase: Case, route: Route, causes: readonly Cause[]): readonly RepairGroup[] {
  const { catalogue, machine } = kase;
  const material = materialOf(catalogue, kase.material);
  const groups = new Map<string, RepairGroup & { causes: number[] }>();
  causes.forEach((cause, index) => {
    const rungs = rungsFor(catalogue, machine, route, cause, material, kase.failed, kase.kept);
    const first = rungs[0];
    if (!first) return;
    const whole = first.takes?.some(({ place, modes }) => place === 'path' && modes?.includes(cause.mode.id));
    // What works along the whole path is one repair, wherever the fault sits.
    const id = `${whole ? 'path' : cause.stop.station.id}/${first.id}`;
    const known = groups.get(id);
    if (known) {
      known.causes.push(index);
      return;
    }
    let stillIll = 1 - first.cures;
    let laterMin = 0;
    for (const rung of rungs.slice(1)) {
      laterMin += stillIll * (remedyMinutes(rung) + PROOF_MIN / 2);
      stillIll *= 1 - rung.cures;
    }
    laterMin += stillIll * ELSEWHERE_MIN;
    const needs = remedyNeeds(machine, route, cause, first, material);
    groups.set(id, { id, station: cause.stop.station, remedy: first, causes: [index], needs, laterMin });
  });
  return [...groups.values()];
}

/** By machine, bench and needs: the way there, and closing what was opened for it. The next order on this machine asks the same. */
const WAYS = new WeakMap<Machine, Map<string, WeakMap<readonly Need[], number>>>();

/** Bench minutes to try each group from a given bench: the way there, the first rung, closing everything, the proof. */
export function tryMinutes(machine: Machine, groups: readonly RepairGroup[], bench: Bench): readonly number[] {
  const openNow = closingMinutes(machine, bench.off);
  const byBench = bounded(WAYS.get(machine) ?? new Map<string, WeakMap<readonly Need[], number>>());
  WAYS.set(machine, byBench);
  const key = benchKey(bench);
  const known = byBench.get(key) ?? new WeakMap<readonly Need[], number>();
  byBench.set(key, known);
  return groups.map(({ needs, remedy }) => {
    let way = known.get(needs);
    if (way === undefined) {
      const price = priceOfAll(machine, bench, needs);
      known.set(needs, (way = price.minutes + price.closingMin));
    }
    return way + remedyMinutes(remedy) + openNow + PROOF_MIN;
  });
}
