/** A case from practice, written by hand: what is really wrong, what the owner says, and what a careful technician would see. */
export interface Seen {
  readonly result: string;
  readonly also?: readonly string[];
  readonly value?: number;
}

/** Something that is so on this machine: a fault, or an oddity that has nothing to do with the complaint. */
export interface Truth {
  readonly station: string;
  /** Failure mode of the catalogue; absent: it is on no list. */
  readonly mode?: string;
  /** In plain words, where it is on no list. */
  readonly is?: string;
  /** By check, or check@station: what is seen of it. A check that is not named looks sound. */
  readonly sees: Readonly<Record<string, Seen>>;
  /** What it does to a strand that is pushed in cold: where in the station, as a fraction of its length. */
  readonly strand?: { readonly how: 'stops' | 'drags' | 'pushes-ahead'; readonly at?: number };
  /** Remedies that do not help here, though they often do. */
  readonly vain?: readonly string[];
}

export interface PracticeCase {
  readonly id: string;
  readonly family: string;
  readonly lane?: string;
  /** What happened, in a sentence or two. */
  readonly story: string;
  /** Why it is so and may be seen so: the trade's reason, no source unless one is named. */
  readonly reason: string;
  readonly material?: string;
  readonly weeksLoaded?: number;
  readonly hotterBefore?: boolean;
  readonly symptoms: readonly string[];
  /** Present when the owner was asked about every symptom. */
  readonly notLooked?: readonly string[];
  readonly onsets: readonly string[];
  readonly before?: readonly string[];
  readonly tried?: readonly { readonly id: string; readonly result: 'same' | 'better' | 'cured' | 'worse' }[];
  readonly failedAfterMinutes?: number;
  readonly noticedAt?: string;
  readonly faults: readonly Truth[];
  readonly innocent?: readonly Truth[];
  /** Further checks that would be a good beginning here, by id or id@station. */
  readonly sensible?: readonly string[];
}
