/** What came of a proof. */
export interface Proved {
  readonly proof: string;
  readonly passed: boolean;
}

/** Something tried before it came in, and what came of it; `cured` is for a while. */
export interface Tried {
  readonly id: string;
  readonly result: 'same' | 'better' | 'cured' | 'worse';
}
