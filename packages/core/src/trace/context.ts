import type { Catalogue } from '../catalogue/types';
import type { Machine } from '../path/machine';

/** What is known about this visit before any check: everything that shifts the prior. */
export interface Case {
  readonly machine: Machine;
  readonly catalogue: Catalogue;
  readonly lane?: string;
  readonly material?: string;
  /** Weeks that the filament sat loaded; absent when nobody knows. */
  readonly weeksLoaded?: number;
  readonly hotterBefore?: boolean;
  readonly onset?: string;
  readonly symptoms: readonly string[];
  /** Ids of what was done before it came in. */
  readonly before: readonly string[];
  /** Repairs that were tried and did not cure. */
  readonly failed?: readonly FailedRepair[];
}

/** A repair that the proof refuted, with the remedies that were tried at the station. */
export interface FailedRepair {
  readonly id: string;
  readonly station: string;
  readonly mode: string;
  readonly remedies: readonly string[];
}

/** A check's result as recorded. `value` is the depth in mm or the quantity in its unit. */
export interface Finding {
  readonly id: string;
  /** Key of the check at its place, see `CheckAtPlace.key`. */
  readonly key: string;
  readonly result: string;
  readonly value?: number;
  /** 0 to 1: how far the finding is believed; hearsay counts less than what was seen on the bench. */
  readonly trust?: number;
}

/** Not sure, and could not do it, are answers too; they move nothing. */
export const NOT_SURE = 'not-sure';
