import type { CheckAtPlace } from '../bench/places';
import type { Cause } from '../observation/causes';

/**
 * How likely an answer is if nothing on the list is the cause: such a fault is taken to behave like an average one of
 * the list, flattened, so that it neither gains nor loses while single places are cleared and wins when no listed cause fits.
 */
export function elsewhereLikelihood(likelihood: readonly number[], prior: readonly number[], flat: number): number {
  const average = likelihood.reduce((sum, l, i) => sum + l * (prior[i] ?? 0), 0) / prior.reduce((sum, p) => sum + p, 0);
  return 0.8 * average + 0.2 * flat;
}

/** Chance that a fault that nobody knows shows any one symptom (chosen). */
export const UNLISTED_SYMPTOM = 0.3;
/** What a fault that nobody knows would show: any answer alike. A number counts against an even spread, so 1. */
export const flatLikelihood = ({ check }: CheckAtPlace): number =>
  check.quantity ? 1 : 1 / Math.max(2, check.results.length);

/**
 * P(what a swap says | what is wrong is on no list and shows on the path): it sits at any of the path's places alike, and goes out with the
 * part when that is one of those swapped.
 */
export function unlistedSwap({ check, reach }: CheckAtPlace, causes: readonly Cause[], cured: boolean): number {
  const inside = Math.min(1, reach.size / Math.max(1, new Set(causes.map(({ stop }) => stop.index)).size));
  const cures = inside * (1 - check.miss) + (1 - inside) * check.falseAlarm;
  return cured ? cures : 1 - cures;
}
