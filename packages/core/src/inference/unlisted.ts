import type { CheckAtPlace } from '../bench/places';
import type { Catalogue } from '../catalogue/types';
import { dimensionsOf, type Look } from '../observation/looks';

/** Chance that a fault that nobody knows shows any one symptom, whatever it is like (chosen). */
export const UNLISTED_SYMPTOM = 0.3;
/** How far a fault that nobody knows shows as the fault does that it is like, answer by answer; otherwise anyhow (chosen). */
const KEEPS = 0.8;
/** Chance that an eye sees of it what it would see of that fault; otherwise nothing that has a word (chosen: what can be seen mostly is on the list). */
const SHOWS_TO_EYE = 0.4;

/** What a fault that nobody knows would show: any answer alike. A number counts against an even spread, so 1. */
export const flatLikelihood = ({ check }: CheckAtPlace, answer?: string): number =>
  check.quantity
    ? 1
    : (check.earlier?.find(({ id }) => id === answer)?.stands.length ?? 1) / Math.max(2, check.results.length);

/** How likely an answer is under something on no list, by how likely it is under the fault that it is like. */
export function unlistedLikelihood(
  likelihood: number,
  { flat, sound, eye }: { readonly flat: number; readonly sound: number; readonly eye: boolean },
): number {
  return eye ? SHOWS_TO_EYE * likelihood + (1 - SHOWS_TO_EYE) * sound : KEEPS * likelihood + (1 - KEEPS) * flat;
}

/** Whether a look is at what an eye sees once a place is open. */
export const looksByEye = ({ dimensions }: Catalogue, look: Look | undefined): boolean =>
  look !== undefined && dimensions.some(({ id, byEye }) => byEye === true && dimensionsOf(look).includes(id));
