import type { CheckAtPlace } from '../bench/places';
import type { Price } from '../bench/price';
import type { Bench } from '../bench/state';
import type { Outcome } from '../observation/likelihood';
import type { Forecasts } from './forecasts';
import type { Lookahead } from './lookahead';
import type { Live, Model } from './model';

export interface OutcomeForecast {
  readonly outcome: Outcome;
  readonly probability: number;
  /** Suspicion by station of the route after this answer, in path order. */
  readonly stations: readonly number[];
  /** Expected minutes to a proved repair after this answer. */
  readonly minutes: number;
}

export interface CheckForecast {
  readonly place: CheckAtPlace;
  readonly index: number;
  readonly price: Price;
  /** The way there, the check and its risk. */
  readonly checkMinutes: number;
  readonly expectedMinutes: number;
  readonly bits: number;
  /** Chance that the repair which comes first after its answer renews a part that was sound. */
  readonly renewsSound: number;
  readonly outcomes: readonly OutcomeForecast[];
  /** Answered already; offered last. */
  readonly done: boolean;
  /** Checks ahead that `expectedMinutes` counts with: 1 or 2. */
  readonly depth: 1 | 2;
}

export interface Search {
  /** 1: repair after the answer. 2: one more check may follow. */
  readonly depth: 1 | 2;
  /** For an answer at once, soon replaced: only the leading checks are worked out with every hypothesis. */
  readonly quick?: boolean;
  /** Keys of checks that are looked at as far ahead as the leading ones, so that they can be compared. */
  readonly also?: readonly string[];
  /** Looks that need not be done when the path is taken apart, where that is not all that was answered: see `lookedAtKeys`. */
  readonly looked?: ReadonlySet<string>;
  /** Asked between checks; once it says so, the best so far is given. */
  readonly expired?: () => boolean;
}

/** A check that moves nothing by more than this many bits teaches nothing. */
const NOTHING_BITS = 1e-6;

/** What a decision is worked out from: the likeliest hypotheses, and what each check would show and each repair cost under them. */
export interface Worked {
  readonly ahead: Lookahead;
  readonly forecasts: Forecasts;
  readonly live: readonly Live[];
  readonly p: Float64Array;
  readonly model: Model;
  /** By live hypothesis, the stops at which it has a fault, each once. */
  readonly stops: readonly (readonly number[])[];
}

/** Suspicion by station from hypotheses that are not made whole. */
function stationsOf({ model, stops }: Worked, next: Float64Array, sum: number): readonly number[] {
  const stations = new Array<number>(model.route.stops.length).fill(0);
  for (let h = 0; h < stops.length; h++) {
    const x = (next[h] as number) / sum;
    for (const at of stops[h] as readonly number[]) stations[at] = (stations[at] as number) + x;
  }
  return stations;
}

/**
 * What an answer tells of the cause, in bits: the mutual information of the two (Shannon 1948).
 *
 * @param rows by answer, how likely it is under each hypothesis; together they need not sum to one
 * @param p probability of each hypothesis
 */
export function informationOf(rows: readonly ArrayLike<number>[], p: ArrayLike<number>): number {
  let bits = 0;
  let total = 0;
  for (const row of rows) {
    let sum = 0;
    for (let h = 0; h < row.length; h++) sum += (p[h] as number) * (row[h] as number);
    total += sum;
    // Many hypotheses in a row, those out of the check's reach, say the same.
    let last = NaN;
    let log = 0;
    for (let h = 0; h < row.length; h++) {
      const likely = row[h] as number;
      const x = (p[h] as number) * likely;
      if (x <= 0) continue;
      if (likely !== last) {
        last = likely;
        log = Math.log2(likely / sum);
      }
      bits += x * log;
    }
  }
  return Math.max(0, bits / (total || 1));
}

/** What a check costs and tells; undefined where it can teach nothing. */
export function forecast(worked: Worked, index: number, bench: Bench, done: boolean): CheckForecast | undefined {
  const { ahead, forecasts, model, p } = worked;
  const bits = informationOf(forecasts.rows(index), p);
  if (bits <= NOTHING_BITS) return undefined;
  const { price, minutes: checkMinutes } = ahead.price(index, bench);
  const raw = ahead.answers(index, p);
  const sums = raw.map((next) => {
    let sum = 0;
    for (let h = 0; h < next.length; h++) sum += next[h] as number;
    return sum;
  });
  const total = sums.reduce((sum, x) => sum + x, 0);
  let expected = checkMinutes;
  let renewsSound = 0;
  const outcomes = raw.map((next, o): OutcomeForecast => {
    const sum = sums[o] ?? 0;
    const probability = sum / total;
    const stopping = ahead.stopping(next, price.after);
    const minutes = sum > 0 ? stopping.minutes / sum : 0;
    renewsSound += ahead.renewedSound(next, stopping) / total;
    expected += probability * minutes;
    const outcome = (model.outcomes[index] ?? [])[o] as Outcome;
    return { outcome, probability, stations: stationsOf(worked, next, sum || 1), minutes };
  });
  return {
    place: model.places[index] as CheckAtPlace,
    index,
    price,
    checkMinutes,
    expectedMinutes: expected,
    bits,
    renewsSound,
    outcomes,
    done,
    depth: 1,
  };
}
