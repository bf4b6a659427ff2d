import type { Catalogue, Proof } from '../catalogue/types';
import type { OrderState } from '../order/state';
import type { Machine } from '../path/machine';
import { workOut } from './working';
import type { Cause } from '../observation/causes';
import { proofLook } from '../observation/looks';
import { allWays, resultShares } from '../observation/ways';

/** A second cause that may still be there after one was cured. */
export interface Remaining {
  readonly station: string;
  readonly mode: string;
  readonly name: string;
  readonly share: number;
}

/** Chance that a proof passes although this cause is still there. */
function passesWith(proof: Proof, cause: Cause): number {
  const look = proofLook(proof);
  if (!look) return 1;
  const shown = resultShares(allWays(cause.mode), look)[0] ?? 0;
  return 1 - shown * (1 - (proof.miss ?? 0));
}

/**
 * What the rest of the evidence says once the chosen cause is cured: the sets that it was one of, against it having been
 * alone, each weighed by how likely the proofs that passed would have passed. Shares of what may remain, most first.
 */
export function whatRemains(machine: Machine, catalogue: Catalogue, state: OrderState): readonly Remaining[] {
  const { cause } = state;
  if (!cause) return [];
  const { model, suspicion } = workOut(machine, catalogue, state);
  const cured = model.causes.findIndex((item) => item.stop.station.id === cause.station && item.mode.id === cause.mode);
  if (cured < 0) return [];
  const passed = catalogue.proofs.filter((proof) => state.proofs[proof.id]?.passed);
  let whole = 0;
  const left = new Map<number, number>();
  suspicion.sets.forEach(({ causes }, h) => {
    if (!causes.includes(cured)) return;
    const others = causes.filter((c) => c !== cured);
    const weight = passed.reduce(
      (p, proof) => others.reduce((q, c) => q * passesWith(proof, model.causes[c] as Cause), p),
      suspicion.p[h] ?? 0,
    );
    whole += weight;
    for (const c of others) left.set(c, (left.get(c) ?? 0) + weight);
  });
  return [...left]
    .map(([c, weight]): Remaining => {
      const { stop, mode } = model.causes[c] as Cause;
      return { station: stop.station.id, mode: mode.id, name: mode.name, share: whole > 0 ? weight / whole : 0 };
    })
    .sort((a, b) => b.share - a.share);
}
