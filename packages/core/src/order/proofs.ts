import { hazardsOf } from '../bench/action';
import { cautionsOf, cautionsTold } from '../catalogue/cautions';
import { isAlways, isCalledFor, type Work } from '../catalogue/proofs';
import type { Catalogue, Proof } from '../catalogue/types';
import { causesUnderWork } from './causes';
import type { OrderState } from './state';
import { allStations, type Machine, type StationKind } from '../path/machine';
import { routeOf } from '../path/route';

/** A proof that this order asks for. */
export interface ProofAsked extends Proof {
  /** Those declared and those that its heat brings on this path. */
  readonly cautions: readonly string[];
  /** What calls for it; empty for those that every repair is put through. */
  readonly because: readonly string[];
  /** It is proved only after longer than this, and past this height. */
  readonly longerThanMin?: number;
  readonly pastMm?: number;
}

/** Kinds of stations that a cause or a renewed part lay at. */
function workedKinds(machine: Machine, state: OrderState): ReadonlySet<StationKind> {
  const ids = new Set([
    ...causesUnderWork(state).map(({ station }) => station),
    ...[...state.cured, ...state.failures].map(({ station }) => station),
    ...state.parts.map(({ station }) => station),
  ]);
  return new Set(allStations(machine).flatMap(({ id, kind }) => (ids.has(id) ? [kind] : [])));
}

/** Kinds of stations that were laid open, in tracing or in the work: the last part that covers them came off. */
function touchedKinds(machine: Machine, state: OrderState): ReadonlySet<StationKind> {
  const opened = new Set(state.opened);
  return new Set(
    allStations(machine).flatMap(({ kind, access }) => {
      const last = access?.open?.at(-1);
      return last !== undefined && opened.has(last) ? [kind] : [];
    }),
  );
}

/**
 * The proof ladder of an order, smallest first: what every repair is put through, and what is called for by what was worked
 * on, what was laid open, and how the fault had shown. A fault that took hours to show is proved only after longer.
 */
export function proofsFor(machine: Machine, catalogue: Catalogue, state: OrderState): readonly ProofAsked[] {
  const route = routeOf(machine, state.intake?.lane);
  const kinds = new Set(route.stops.map((stop) => stop.station.kind));
  const { onset, failedAfterMinutes, failedAtMm } = state.intake ?? {};
  const told = cautionsTold(catalogue, state.intake?.symptoms ?? []);
  const work: Work = {
    worked: workedKinds(machine, state),
    touched: touchedKinds(machine, state),
    remedies: new Set([...state.tries.map(({ remedy }) => remedy), ...state.cured.flatMap(({ remedies }) => remedies)]),
    modes: new Set([...causesUnderWork(state), ...state.cured].map(({ mode }) => mode)),
  };
  return catalogue.proofs.flatMap((proof): ProofAsked[] => {
    if (proof.kinds && !proof.kinds.some((kind) => kinds.has(kind))) return [];
    const run = proof.form === 'run';
    const always = isAlways(proof);
    const called =
      isCalledFor(proof, work) ||
      (onset !== undefined && (proof.onsets?.includes(onset) ?? false)) ||
      (run && (failedAfterMinutes ?? failedAtMm) !== undefined);
    if (!always && !called) return [];
    return [
      {
        ...proof,
        cautions: cautionsOf(
          catalogue,
          [...(proof.power === 'on' ? told : []), ...(proof.cautions ?? [])],
          proof.tools ?? [],
          hazardsOf(route, proof),
        ),
        because: always ? [] : [proof.why ?? 'what was done calls for it'],
        ...(run && failedAfterMinutes !== undefined ? { longerThanMin: failedAfterMinutes } : {}),
        ...(run && failedAtMm !== undefined ? { pastMm: failedAtMm } : {}),
      },
    ];
  });
}
