import type { StationKind } from '../path/machine';

/**
 * Something that is done at the bench in one go: what it needs of the state, what it changes, what it is done with. Actions of a
 * remedy, standing steps, checks and proofs are all described so, and one mechanism serves them.
 */
export interface Deed {
  readonly how: string;
  readonly minutes: number;
  readonly heat: 'any' | 'cold' | 'hot';
  readonly power: 'any' | 'off' | 'on';
  /** What the strand of the lane must be: out, or a remnant that is accounted for. */
  readonly strand?: 'clear';
  /** A push or press from above: in the head, or with the part in the hand. */
  readonly push?: 'head' | 'hand';
  /** Where a push expects something to leave: the hot nozzle, an end that is open, or nowhere (a press). */
  readonly exit?: 'hot' | 'open' | 'none';
  /** What the hands touch it with. */
  readonly hands?: 'bare' | 'tool';
  readonly does?: readonly DeedEffect[];
  readonly tools?: readonly string[];
  readonly cautions?: readonly string[];
}

/** Parts of the machine that an action wants off, seen from the station it is for. */
export const PLACES = ['here', 'mouth', 'exit', 'ends', 'nozzle', 'hot-end', 'ports'] as const;
export type Place = (typeof PLACES)[number];

/** A condition on the path: some station of a kind (absent: the one under work) has one of these values of a parameter. */
export interface When {
  readonly kind?: StationKind;
  readonly param: string;
  readonly is?: readonly (string | boolean)[];
  readonly atLeast?: number;
  readonly below?: number;
}

/**
 * `takes-off`: the hot end comes off hot, in pliers; `wets` and `dries`: the part that is off; `back-to-print`: the target
 * goes back to print heat at once; `target-zero`; `empties`: the strand of the lane is cut and accounted for; `test-piece`: a piece of the plastic is tried first; `draws-out`: a fresh strand
 * goes in and comes out again, so that the path is known to be empty, or where something is left.
 */
export const DEED_EFFECTS = [
  'takes-off',
  'wets',
  'dries',
  'back-to-print',
  'target-zero',
  'empties',
  'test-piece',
  'draws-out',
] as const;
export type DeedEffect = (typeof DEED_EFFECTS)[number];
