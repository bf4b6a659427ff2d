import { isAlways, isCalledFor } from '../catalogue/proofs';
import type { Catalogue, Proof, Proved, Remedy } from '../catalogue/types';
import { PROOF_ALARM } from '../inference/evidence';
import { proofLook, proofReaches, type Look } from '../observation/looks';
import type { Route, Stop } from '../path/route';
import type { Luck } from './hidden';

/** A repair that is to be proved. */
export interface Repaired {
  readonly station: string;
  readonly mode: string;
  readonly remedy: Pick<Remedy, 'id'>;
}

/**
 * The tests at the bench that a repair is put through, smallest first: those of every repair, and those that it calls for. The job itself,
 * and what tells nothing of faults, are left out.
 */
export function testsAfter(catalogue: Catalogue, route: Route, { station, mode, remedy }: Repaired): readonly Proof[] {
  const kinds = new Set(route.stops.map((stop) => stop.station.kind));
  const at = route.stops.filter((stop) => stop.station.id === station).map((stop) => stop.station.kind);
  const work = {
    worked: new Set(at),
    touched: new Set<never>(),
    remedies: new Set([remedy.id]),
    modes: new Set([mode]),
  };
  return catalogue.proofs.filter(
    (proof) =>
      proof.fails !== undefined &&
      !proof.onsets &&
      !proof.form &&
      (!proof.kinds || proof.kinds.some((kind) => kinds.has(kind))) &&
      (isAlways(proof) || isCalledFor(proof, work)),
  );
}

/** Something wrong that a test may meet, and how surely it shows what is looked for. */
export interface ToMeet {
  readonly stop: Stop;
  readonly shown: (look: Look) => number;
}

/** What the tests after a repair show, up to the one that fails; they err as the catalogue says. */
export function provedAfter(
  catalogue: Catalogue,
  route: Route,
  repaired: Repaired,
  there: readonly ToMeet[],
  draw: Luck,
): readonly Proved[] {
  const at = route.stops.findIndex((stop) => stop.station.id === repaired.station);
  const list: Proved[] = [];
  for (const proof of testsAfter(catalogue, route, repaired)) {
    const look = proofLook(proof);
    const sound = there.reduce(
      (p, { stop, shown }) => (look && proofReaches(proof, at, stop) ? p * (1 - shown(look)) : p),
      1,
    );
    const passed = draw(proof.id) < sound * (1 - PROOF_ALARM) + (1 - sound) * (proof.miss ?? 0);
    list.push({ proof: proof.id, passed });
    if (!passed) break;
  }
  return list;
}
