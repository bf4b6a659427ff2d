import type { Proved, Tried } from '../catalogue/types';
import type { FailedRepair, Finding } from '../observation/context';
import type { Given } from '../observation/likelihood';
import type { Look } from '../observation/looks';
import type { Witness } from '../observation/witness';

/** How an observation is explained by several faults at once, where a number a cause says what it says. */
export type Combination =
  /** Every fault must agree: a swap that cured took them all out; nothing seen may be called innocent if one of them is it. */
  | 'all'
  /** Any fault is enough: a swap that did not cure left one of them. */
  | 'any'
  /** One of them, nobody knows which: when it began. */
  | 'mean';

/** Something observed, with how likely it is under each cause. */
export interface Evidence extends Witness {
  readonly id: string;
  /** What it looks for; absent when the way in which a cause shows does not matter. */
  readonly look?: Look;
  /** By cause: likelihood for each result that there may be to see, or one number. */
  readonly given: readonly Given[];
  /** By cause, over all ways in which it may show. */
  readonly likelihood: readonly number[];
  /** If no fault lies within its reach. */
  readonly sound: number;
  /** A check's look at what an eye sees once a place is open. */
  readonly eye: boolean;
  /** If a fault shows that nobody knows anything of. */
  readonly flat: number;
  /** If what is wrong is on no list and shows on the path as faults do. */
  readonly elsewhere: number;
  /** If what is wrong is on no list and lies aside of the path, where no check of it sees anything. */
  readonly aside: number;
  /** Repairs in vain that lay before it: it speaks of what they left. */
  readonly epoch: number;
  readonly combine?: Combination;
  /** By cause: of several that show alike, the lowest is the one that is met. */
  readonly metFirst?: readonly number[];
  readonly finding?: Finding;
  /** Of a look that sees several things: the one that this is about, and whether it was there. */
  readonly item?: { readonly result: string; readonly there: boolean };
  readonly symptom?: string;
  /** The symptom was looked for and not seen. */
  readonly unseen?: boolean;
  readonly onset?: string;
  readonly repair?: FailedRepair;
  readonly tried?: Tried;
  readonly noticed?: string;
  /** A proof after a repair in vain. */
  readonly proof?: Proved;
}

/** What an observation is until something else is said of it: a witness of its own, believed in full, before any repair. */
export const byItself = (id: string) => ({ id, same: id, method: id, trust: 1, epoch: 0 });

/** How far what the owner did before, and says of it, is believed (chosen). */
export const HEARSAY = 0.6;
/** How far it is believed that a symptom which was asked for and not ticked was not there (chosen). */
export const UNTICKED = 0.7;

/** Chance that a machine is still ill after a repair while a fault is left, and when none is left: the proof erred (chosen). */
export const STILL_ILL = { left: 0.97, none: 0.03 } as const;
/** Chance that a proof fails although nothing that it looks for is there (chosen). */
export const PROOF_ALARM = 0.03;
