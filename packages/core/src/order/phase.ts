import type { Catalogue, Proof } from '../catalogue/types';
import type { Machine } from '../path/machine';
import { routeOf } from '../path/route';
import { workDone } from '../plan/plan';
import { causesUnderWork, isCleared } from './causes';
import type { OrderState, Phase } from './state';

/** Proofs that this machine's path calls for, smallest first. */
export function proofsFor(machine: Machine, catalogue: Catalogue, lane?: string): readonly Proof[] {
  const kinds = new Set(routeOf(machine, lane).stops.map((stop) => stop.station.kind));
  return catalogue.proofs.filter((proof) => !proof.kinds || proof.kinds.some((kind) => kinds.has(kind)));
}

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
  const proofs = proofsFor(machine, catalogue, state.intake?.lane);
  return proofs.every((proof) => state.proofs[proof.id]?.passed) ? 'record' : 'prove';
}
