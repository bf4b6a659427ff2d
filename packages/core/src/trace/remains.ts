import type { Catalogue, Proof } from '../catalogue/types';
import type { OrderState } from '../order/state';
import type { Machine } from '../path/machine';
import { workOut } from './assess';
import type { Cause } from './causes';
import type { Look } from './looks';
import { allWays, resultShares } from './ways';

/** A second cause that may still be there after one was cured. */
export interface Remaining {
  readonly station: string;
  readonly mode: string;
  readonly name: string;
  readonly share: number;
}

const looks = new WeakMap<Proof, Look>();

/** Chance that a proof passes although this cause is still there. */
function passesWith(proof: Proof, cause: Cause): number {
  if (!proof.fails) return 1;
  const look = looks.get(proof) ?? { results: [{ when: proof.fails }, {}] };
  looks.set(proof, look);
  const shown = resultShares(allWays(cause.mode), look)[0] ?? 0;
  return 1 - shown * (1 - (proof.miss ?? 0));
}

/**
 * What the rest of the evidence says once the chosen cause is cured: the pairs that it was one of, against it having been
 * alone, each weighed by how likely the proofs that passed would have passed. Shares of what may remain, most first.
 */
export function whatRemains(machine: Machine, catalogue: Catalogue, state: OrderState): readonly Remaining[] {
  const { cause } = state;
  if (!cause) return [];
  const { model, suspicion } = workOut(machine, catalogue, state);
  const n = model.causes.length;
  const cured = model.causes.findIndex((item) => item.stop.station.id === cause.station && item.mode.id === cause.mode);
  if (cured < 0) return [];
  const passed = catalogue.proofs.filter((proof) => state.proofs[proof.id]?.passed);
  const left = suspicion.pairs.flatMap(({ first, second }, k) => {
    if (first !== cured && second !== cured) return [];
    const other = first === cured ? second : first;
    const item = model.causes[other] as Cause;
    const weight = passed.reduce((p, proof) => p * passesWith(proof, item), suspicion.p[n + k] ?? 0);
    return [{ item, weight }];
  });
  const whole = left.reduce((sum, { weight }) => sum + weight, suspicion.p[cured] ?? 0) || 1;
  return left
    .map(({ item, weight }): Remaining => ({
      station: item.stop.station.id,
      mode: item.mode.id,
      name: item.mode.name,
      share: weight / whole,
    }))
    .sort((a, b) => b.share - a.share);
}
