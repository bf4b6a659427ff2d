import { checksOnLane, type CheckAtPlace } from '../bench/places';
import type { LineSign } from '../catalogue/lineSigns';
import type { Catalogue, Check } from '../catalogue/types';
import type { Machine } from '../path/machine';
import { routeOf } from '../path/route';
import type { LogSummary } from '../printfile/temperatureLog';

/** The check of a machine that its line can do or answer, where the lane has one. */
export const lineCheck = (
  catalogue: Catalogue,
  machine: Machine,
  lane: string | undefined,
  what: NonNullable<Check['byLine']>,
): CheckAtPlace | undefined =>
  checksOnLane(catalogue, machine, routeOf(machine, lane).lane).find(
    ({ check, cannot }) => check.byLine === what && !cannot,
  );

/** The result of a check that a sign of the machine stands for. */
export const resultOfSign = ({ results }: Check, sign: LineSign): string | undefined =>
  results.find((result) => result.sign === sign)?.id;

/** What a filament sensor does, from readings with the strand in it and readings without. */
export function sensorSign(inside: readonly boolean[], outside: readonly boolean[]): LineSign {
  const all = (list: readonly boolean[], value: boolean): boolean => list.every((one) => one === value);
  if (all(inside, true) && all(outside, false)) return 'follows';
  if (all(inside, true) && all(outside, true)) return 'always-present';
  if (all(inside, false) && all(outside, false)) return 'always-absent';
  if (all(inside, false) && all(outside, true)) return 'inverted';
  return 'flickers';
}

/** Steps a millimetre that differ by more than this from those described are another setting (chosen: twice what a rule shows on 100 mm). */
const OTHER_STEPS = 0.01;

/** What the firmware's steps a millimetre say against the machine's description; undefined while they agree. */
export const stepsSign = (read: number, described: number): LineSign | undefined =>
  Math.abs(read / described - 1) > OTHER_STEPS ? 'steps-differ' : undefined;

/** What a temperature log of a machine at its target shows. */
export function heatSign({ jumpsAtS, drops }: Pick<LogSummary, 'jumpsAtS' | 'drops'>): LineSign {
  if (jumpsAtS.length > 0) return 'jumps';
  return drops.length > 0 ? 'drops' : 'steady';
}
