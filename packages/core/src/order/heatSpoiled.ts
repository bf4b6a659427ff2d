import { checkById, mayShow, modeById, resultOf } from '../catalogue/index';
import type { Catalogue } from '../catalogue/types';
import { looksAtHeat } from '../bench/places';
import { causesUnderWork, isCleared } from './causes';
import type { OrderState } from './state';

/**
 * Whether the heating is at fault, as far as is known: a check said so last, and nothing that may be behind it was mended
 * since; or such a cause is under work. Nothing is heated then: what the hot end would come to is not known.
 */
export function heatSpoiled(catalogue: Catalogue, state: OrderState): boolean {
  if (causesUnderWork(state).some((cause) => modeById(catalogue, cause.mode)?.spoilsHeat && !isCleared(state, cause)))
    return true;
  const last = state.findings.findLast(({ key }) => {
    const check = checkById(catalogue, key.split('@')[0] ?? '');
    return check !== undefined && looksAtHeat(check);
  });
  const result = last && resultOf(catalogue, last);
  if (!last || !result?.spoilsHeat) return false;
  return !state.tries.some(({ outcome, mode: id, at }) => {
    const mode = modeById(catalogue, id);
    return outcome === 'cleared' && at >= last.at && mode !== undefined && mayShow(mode, result.when ?? {});
  });
}
