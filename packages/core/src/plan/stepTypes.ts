import type { Need } from '../bench/price';
import type { Act } from '../bench/state';
import type { Catalogue, Offer, RungOutcome, Solvent } from '../catalogue/types';
import type { EventBodies } from '../order/events';
import type { Fastener, Loss, Machine } from '../path/machine';
import type { Route } from '../path/route';

export type StepKind =
  | 'look'
  | 'heat'
  | 'cool'
  | 'wait'
  | 'power'
  | 'unload'
  | 'raise'
  | 'lower'
  | 'service'
  | 'dry'
  | 'spares'
  | 'keep'
  | 'open'
  | 'act'
  | 'rung'
  | 'close';
export type StepPhase = 'Make ready' | 'Open' | 'Clear or replace' | 'Close';

/** What a look at the bench may say, in one tap. */
export interface StepChoice {
  readonly id: string;
  readonly label: string;
  readonly sets: EventBodies['bench-changed'];
}

export interface PlanStep {
  /** What it is, in the order once done; a repeat has `#2` behind it. */
  readonly id: string;
  readonly phase: StepPhase;
  readonly kind: StepKind;
  readonly title: string;
  readonly how: string;
  readonly station?: string;
  readonly mode?: string;
  readonly part?: string;
  readonly way?: string;
  readonly remedy?: string;
  readonly need: Omit<Need, 'parts'>;
  readonly minutes: number;
  /** Waiting that goes on by itself, minutes. */
  readonly waitMinutes: number;
  /** In words, with their sizes. */
  readonly tools: readonly string[];
  readonly fasteners: readonly Fastener[];
  readonly cautions: readonly string[];
  readonly stop?: string;
  /** What the access data want said before or while it is done, a line each. */
  readonly notes: readonly string[];
  /** What may be lost when it comes off. */
  readonly loses: readonly Loss[];
  /** What to look at while it is open. */
  readonly looks: readonly string[];
  /** What it changes, in that order. */
  readonly acts: readonly Act[];
  /** What may be said of the bench instead of Done. */
  readonly choices?: readonly StepChoice[];
  /** What may come of a rung. */
  readonly outcomes?: readonly RungOutcome[];
  readonly measures?: 'depth';
  /** What ticking the step says about the bench. */
  readonly sets?: EventBodies['bench-changed'];
  /** Parts that are off while it is done. */
  readonly wants?: readonly string[];
  readonly opens?: string;
  readonly closes?: string;
  readonly replaces?: string;
  /** The new part is in already: a swap brought it. */
  readonly fitted?: boolean;
  /** Further causes that the same rung is tried for. */
  readonly covers?: readonly { readonly station: string; readonly mode: string }[];
  /** What is fitted. */
  readonly offer?: Offer;
  /** What may take the plastic, to be tried on a piece first. */
  readonly solvents?: readonly Solvent[];
}

/** Hands-on minutes of a step that only sets or reads something (estimate of this project). */
export const TICK_MIN = 0.5;

/** Everything that a step is written from. */
export interface Writing {
  readonly machine: Machine;
  readonly catalogue: Catalogue;
  readonly route: Route;
  readonly material?: string;
  /** Cautions of what was complained of: they stand before all that heats or needs power. */
  readonly told?: readonly string[];
}

export const anyNeed = { heat: 'any', power: 'any', hotC: 0 } as const;
export const plain = {
  minutes: TICK_MIN,
  waitMinutes: 0,
  tools: [],
  fasteners: [],
  cautions: [],
  notes: [],
  loses: [],
  looks: [],
  acts: [],
} as const;

/** A step without its id. */
export type Body = Omit<PlanStep, 'id'>;
