import type { Catalogue } from '../catalogue/types';
import type { Machine } from '../path/machine';
import { workDone } from '../plan/plan';
import { proofsFor } from '../order/proofs';
import { causesUnderWork, isCleared } from '../order/causes';
import type { OrderState, Phase } from '../order/state';

/** Whether the work is done: every cause cleared, everything back on or left off for a recorded reason. */
export const planDone = (state: OrderState): boolean =>
  workDone(
    state,
    causesUnderWork(state).every((cause) => isCleared(state, cause)),
  );

/** Where in the job an order stands. */
export function phaseOf(machine: Machine, catalogue: Catalogue, state: OrderState): Phase {
  if (state.closed) return 'record';
  if (!state.cause) return 'trace';
  if (!planDone(state)) return 'plan';
  const proofs = proofsFor(machine, catalogue, state);
  return proofs.every((proof) => state.proofs[proof.id]?.passed) ? 'record' : 'prove';
}
