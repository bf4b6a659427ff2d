import type { StationKind } from '../path/machine';
import type { Proof } from './types';

/** What was done in an order, as far as proofs are called for by it. */
export interface Work {
  /** Kinds of stations that a cause or a renewed part lay at. */
  readonly worked: ReadonlySet<StationKind>;
  /** Kinds of stations that were laid open. */
  readonly touched: ReadonlySet<StationKind>;
  readonly remedies: ReadonlySet<string>;
  readonly modes: ReadonlySet<string>;
}

/** Whether every repair is put through a proof, whatever was done. */
export const isAlways = ({ worked, touched, onsets, remedies, modes }: Proof): boolean =>
  !worked && !touched && !onsets && !remedies && !modes;

/** Whether what was done calls for a proof. */
export const isCalledFor = (proof: Proof, { worked, touched, remedies, modes }: Work): boolean =>
  (proof.worked?.some((kind) => worked.has(kind)) ?? false) ||
  (proof.touched?.some((kind) => touched.has(kind)) ?? false) ||
  (proof.remedies?.some((id) => remedies.has(id)) ?? false) ||
  (proof.modes?.some((id) => modes.has(id)) ?? false);
