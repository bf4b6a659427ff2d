import { checkById, modeById } from '../catalogue/index';
import type { Catalogue, CheckResult } from '../catalogue/types';
import { looksAtHeat } from '../bench/places';
import { causesUnderWork, isCleared } from './causes';
import type { OrderState, RecordedFinding } from './state';

const checkOf = (catalogue: Catalogue, { key }: RecordedFinding) => checkById(catalogue, key.split('@')[0] ?? '');

/** Whether a mode may be what a result says. */
const mayShow = (catalogue: Catalogue, id: string, { when = {} }: CheckResult): boolean =>
  Object.entries(when).some(([dimension, values]) =>
    values.some((value) => (modeById(catalogue, id)?.shows[dimension]?.[value] ?? 0) > 0),
  );

/**
 * Whether the heating is at fault, as far as is known: a check said so last, and nothing that may be behind it was mended
 * since; or such a cause is under work. Nothing is heated then: what the hot end would come to is not known.
 */
export function heatSpoiled(catalogue: Catalogue, state: OrderState): boolean {
  if (causesUnderWork(state).some((cause) => modeById(catalogue, cause.mode)?.spoilsHeat && !isCleared(state, cause)))
    return true;
  const last = state.findings.findLast((finding) => {
    const check = checkOf(catalogue, finding);
    return check !== undefined && looksAtHeat(check);
  });
  const result = last && checkOf(catalogue, last)?.results.find(({ id }) => id === last.result);
  if (!last || !result?.spoilsHeat) return false;
  return !state.tries.some(
    ({ outcome, mode, at }) => outcome === 'cleared' && at >= last.at && mayShow(catalogue, mode, result),
  );
}
