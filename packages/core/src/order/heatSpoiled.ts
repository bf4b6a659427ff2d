import { mayShow, modeById, resultOf } from '../catalogue/index';
import type { Catalogue, CheckResult } from '../catalogue/types';
import { causesUnderWork, isCleared } from './causes';
import type { OrderState } from './state';

/**
 * Whether the heating is at fault, as far as is known: a check said so when it was done last, and nothing that may be behind it was
 * mended since; or such a cause is under work. Nothing is heated then: what the hot end would come to is not known. What one check
 * said is taken back by that check alone: a sound lead does not mend an error of the reading.
 */
export function heatSpoiled(catalogue: Catalogue, state: OrderState): boolean {
  if (causesUnderWork(state).some((cause) => modeById(catalogue, cause.mode)?.spoilsHeat && !isCleared(state, cause)))
    return true;
  const mendedSince = ({ when = {} }: CheckResult, since: string): boolean =>
    state.tries.some(({ outcome, mode: id, at }) => {
      const mode = modeById(catalogue, id);
      return outcome === 'cleared' && at >= since && mode !== undefined && mayShow(mode, when);
    });
  const last = new Map(state.findings.map((finding) => [finding.key, finding]));
  return [...last.values()].some(({ key, result, also = [], at }) =>
    [result, ...also].some((id) => {
      const seen = resultOf(catalogue, { key, result: id });
      return seen?.spoilsHeat === true && !mendedSince(seen, at);
    }),
  );
}
