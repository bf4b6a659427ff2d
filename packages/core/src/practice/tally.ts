import type { Finding } from '../observation/context';

export interface Tally {
  /** Bench minutes to a proved repair: hands-on in full, waiting at half. */
  readonly minutes: number;
  readonly checks: number;
  readonly repairs: number;
  readonly rightFirst: boolean;
  /** Parts taken off at stations that were not at fault. */
  readonly openedForNothing: number;
  /** Findings as recorded, for what is learned afterwards. */
  readonly findings: readonly Finding[];
  /** Suspicion stated of the leading cause before each step, and whether it was so. */
  readonly stated: readonly (readonly [number, boolean])[];
  /** Nothing was left to try: everything was taken apart in vain, and somebody asked. */
  readonly stripped: boolean;
  /** Minutes that this took. */
  readonly apartMin: number;
}

/** How a bench differs from what the engine takes it to be. */
export interface BenchNature {
  /** Share of findings that are noted down wrongly. */
  readonly wrong?: number;
  /** Errors of checks do not repeat. */
  readonly independent?: boolean;
  /** Taking the path apart takes so many times as long as its access data say. */
  readonly apartFactor?: number;
}

export interface Answered {
  readonly finding: Finding;
  readonly normal: boolean;
}
