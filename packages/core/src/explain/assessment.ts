import type { ClearedSpan, StationSuspicion } from './cleared';
import type { Changer, HabitAdvice, Meanwhile, SetSuspicion } from './counsel';

export interface CauseSuspicion {
  readonly station: string;
  readonly mode: string;
  readonly name: string;
  readonly suspicion: number;
}

export interface RankedOutcome {
  readonly result: string;
  readonly label: string;
  readonly probability: number;
  readonly minutesAfter: number;
  /** Suspicion by station of the route after it, in path order. */
  readonly stations: readonly number[];
  readonly moves: readonly {
    readonly station: string;
    readonly name: string;
    readonly from: number;
    readonly to: number;
  }[];
}

export interface RankedCheck {
  readonly key: string;
  readonly check: string;
  readonly station: string;
  readonly name: string;
  readonly handsOnMinutes: number;
  readonly waitingMinutes: number;
  readonly heat: 'any' | 'cold' | 'hot';
  readonly power: 'any' | 'off' | 'on';
  readonly opens: readonly string[];
  readonly openIds: readonly string[];
  /** Parts that go back first, since they keep heat or power away. */
  readonly backIds?: readonly string[];
  readonly hotC: number;
  readonly how: string;
  readonly cautions: readonly string[];
  readonly tools: readonly string[];
  readonly priceParts: readonly string[];
  /** What its minutes are made of, bench minutes: waiting at half. */
  readonly parts: readonly { readonly what: string; readonly minutes: number }[];
  /** Expected minutes from its answer to a proved repair. */
  readonly afterMinutes: number;
  /** Checks ahead that were thought of. */
  readonly depth: 1 | 2;
  readonly meanwhile: readonly Meanwhile[];
  /** Expected bench minutes to a proved repair when this is done next. */
  readonly expectedMinutes: number;
  /** Against repairing at once; positive when the check saves time. */
  readonly savesMinutes: number;
  readonly bits: number;
  readonly done: boolean;
  readonly because: readonly string[];
  /** Stations that some result of it would move. */
  readonly tells: readonly string[];
  /** What each result would do; empty for a check that is neither among the leading ones nor was asked for. */
  readonly outcomes: readonly RankedOutcome[];
}

export interface Advice {
  /** No repair carries itself: the check is the next stretch of taking the path apart. */
  readonly apart?: boolean;
  readonly kind: 'check' | 'repair';
  readonly text: string;
  readonly nearTie: boolean;
  readonly repairMinutes: number;
  readonly checkMinutes?: number;
  /** Where repair would begin. */
  readonly station?: string;
  readonly mode?: string;
  readonly remedy?: string;
}

/** What is believed as the findings stand, before anything is decided. */
export interface Sight {
  readonly stations: readonly StationSuspicion[];
  readonly causes: readonly CauseSuspicion[];
  readonly elsewhere: number;
  readonly cleared: readonly ClearedSpan[];
  /** Several causes at once, where that is worth saying. */
  readonly sets: readonly SetSuspicion[];
  /** When something else leads: what even the likeliest listed cause leaves unexplained. */
  readonly unexplained: readonly string[];
  /** Where to look as well, when what was looked at on the path is sound. */
  readonly beside?: string;
}

export interface Assessment extends Sight {
  readonly checks: readonly RankedCheck[];
  readonly advice: Advice;
  readonly changer?: Changer;
  readonly habits: readonly HabitAdvice[];
}
