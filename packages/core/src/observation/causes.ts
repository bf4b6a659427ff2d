import type { Catalogue, FailureMode, Raise, Symptom } from '../catalogue/types';
import { materialOf, mayShow } from '../catalogue/index';
import { laneRuns, routeOf, sharedRuns, type Route, type Stop } from '../path/route';
import type { Machine, Station } from '../path/machine';
import { KeptWith } from '../quantities/keptWith';
import type { Case } from './context';
import { creptMode } from './creep';

/** A mode at a station, the unit of suspicion. */
export interface Cause {
  /** `station/mode`. */
  readonly id: string;
  readonly stop: Stop;
  readonly mode: FailureMode;
  readonly weight: number;
  /** Why the weight is not the catalogue's own. */
  readonly raisedBy: readonly { readonly why: string; readonly by: number }[];
}

/** Share of the prior of something that the catalogue does not list: chosen; large enough to win when nothing fits, small enough not to delay. */
export const ELSEWHERE_SHARE = 0.03;
/** A station that is not as delivered fails so many times likelier (chosen). */
const CONVERTED = 2;

const param = (station: Station, name: string): string | number | boolean | undefined =>
  (station.params as Record<string, string | number | boolean> | undefined)?.[name];

const allowed = (mode: FailureMode, station: Station): boolean => {
  const value = mode.only && param(station, mode.only.param);
  return value === undefined || !mode.only || mode.only.is.includes(value as string | boolean);
};

function holds(raise: Raise, kase: Case, station: Station, traits: readonly string[]): boolean {
  const value = raise.param === undefined ? undefined : param(station, raise.param);
  return (
    (raise.weeksLoadedMin === undefined || (kase.weeksLoaded ?? 0) >= raise.weeksLoadedMin) &&
    (raise.material === undefined || raise.material.includes(kase.material ?? '')) &&
    (raise.trait === undefined || raise.trait.some((trait) => traits.includes(trait))) &&
    (raise.hotterBefore === undefined || kase.hotterBefore === raise.hotterBefore) &&
    (raise.history === undefined || raise.history.some((id) => kase.before.includes(id))) &&
    (raise.param === undefined || value !== undefined) &&
    (raise.is === undefined || raise.is.includes(value as string | boolean)) &&
    (raise.atLeast === undefined || Number(value) >= raise.atLeast) &&
    (raise.below === undefined || Number(value) < raise.below)
  );
}

/**
 * Every cause that this machine can have on this route, with its weight: the mode's weight, shared over the kinds and
 * stations where it can sit, raised by what is known of filament, machine and history.
 */
export function causesOf(kase: Case, route: Route): readonly Cause[] {
  const material = materialOf(kase.catalogue, kase.material);
  const { traits } = material;
  const shared = sharedRuns(kase.machine);
  return kase.catalogue.modes.flatMap((own): Cause[] => {
    if (own.retired) return [];
    if (own.amongLanes && laneRuns(kase.machine).length < 2) return [];
    if (own.pathWith && !route.stops.some(({ station }) => own.pathWith?.includes(station.kind))) return [];
    const { mode, raise: crept } = creptMode(own, kase.machine, kase.catalogue, material);
    const shares = Object.entries(mode.where) as [string, number][];
    const whole = shares.reduce((sum, [, share]) => sum + share, 0);
    return shares.flatMap(([kind, share]) => {
      const stops = route.stops.filter(
        (stop) =>
          stop.station.kind === kind && allowed(mode, stop.station) && (!mode.severalLanes || shared.has(stop.run)),
      );
      return stops.map((stop): Cause => {
        const raisedBy: { readonly why: string; readonly by: number }[] = (mode.raised ?? []).filter((raise) =>
          holds(raise, kase, stop.station, traits),
        );
        if (crept) raisedBy.push(crept);
        if (kase.converted?.includes(stop.station.id)) raisedBy.push({ why: 'not as it was delivered', by: CONVERTED });
        return {
          id: `${stop.station.id}/${mode.id}`,
          stop,
          mode,
          weight:
            ((mode.weight * share) / whole / stops.length) * raisedBy.reduce((product, raise) => product * raise.by, 1),
          raisedBy: raisedBy.map(({ why, by }) => ({ why, by })),
        };
      });
    });
  });
}

const ASKED = new KeptWith<Catalogue, Machine, readonly Symptom[]>();

/** The complaints that a machine can give reason for: nobody is asked after the feeder of one that has none. */
export const symptomsFor = (catalogue: Catalogue, machine: Machine): readonly Symptom[] =>
  ASKED.of(catalogue, machine, () => {
    const modes = new Set(
      laneRuns(machine).flatMap(({ id }) =>
        causesOf({ machine, catalogue, symptoms: [], before: [], lane: id }, routeOf(machine, id)).map(
          ({ mode }) => mode,
        ),
      ),
    );
    return catalogue.symptoms.filter(({ when }) => [...modes].some((mode) => mayShow(mode, when)));
  });

/**
 * What an onset counts that a mode does not name, beside its named ones (chosen): owners are seldom wrong about when it began. Of the
 * onsets of cases that were written before anybody looked how they would come out, 85 of a hundred are named ones; this believes 77.
 */
const UNNAMED = 0.2;

/** P(onset | mode), from what its named onsets count, and all others alike. */
export function onsetLikelihood(catalogue: Catalogue, mode: FailureMode, onset: string): number {
  const named = mode.onset ?? {};
  const total = catalogue.onsets.reduce((sum, { id }) => sum + (named[id] ?? UNNAMED), 0);
  return (named[onset] ?? UNNAMED) / total;
}
