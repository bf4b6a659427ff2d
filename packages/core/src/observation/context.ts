import type { Catalogue, Proved, Tried } from '../catalogue/types';
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
  /** Further beginnings that apply too. */
  readonly onsets?: readonly string[];
  readonly symptoms: readonly string[];
  /** Symptoms that were looked for and not seen. */
  readonly unseen?: readonly string[];
  /** Station that a message on the machine names. */
  readonly noticedAt?: string;
  /** Minutes of printing, and height in mm, at which it failed. */
  readonly failedAfterMinutes?: number;
  readonly failedAtMm?: number;
  /** Stations that are not as delivered. */
  readonly converted?: readonly string[];
  /** Of what was done before: what came of it. */
  readonly tried?: readonly Tried[];
  /** Ids of what was done before it came in. */
  readonly before: readonly string[];
  /** Repairs that were tried and did not cure. */
  readonly failed?: readonly FailedRepair[];
  /** Good parts that a swap brought and that cured: they are in the machine now. */
  readonly kept?: readonly Kept[];
}

/** A good part that is in the machine since a swap cured. */
export interface Kept {
  /** The remedy that leaves it there. */
  readonly remedy: string;
  /** Whose faults went out with the old part. */
  readonly stations: readonly string[];
}

/** A repair that the proof refuted, with the remedies that were tried at the station. */
export interface FailedRepair {
  readonly id: string;
  readonly station: string;
  readonly mode: string;
  readonly remedies: readonly string[];
  /** So many findings came before it; absent: all. */
  readonly after?: number;
  /** What was proved after it, up to the proof that failed. */
  readonly proved?: readonly Proved[];
}

/** A check's result as recorded. `value` is the depth in mm or the quantity in its unit. */
export interface Finding {
  readonly id: string;
  /** Key of the check at its place, see `CheckAtPlace.key`. */
  readonly key: string;
  readonly result: string;
  readonly value?: number;
  /** Further things that the same look showed. */
  readonly also?: readonly string[];
  /** The look was finished: what it did not show is not there. */
  readonly finished?: boolean;
  /** Real, but not the cause, says the technician. */
  readonly innocent?: boolean;
  /** 0 to 1: how far the finding is believed; hearsay counts less than what was seen on the bench. */
  readonly trust?: number;
}
