import type { Cause } from '../observation/causes';
import { flatLikelihood, looksByEye, unlistedLikelihood } from '../inference/unlisted';
import { metFirst, shareOfRange, type Given } from '../observation/likelihood';
import { dimensionsOf, lookOf, lookTable, type Look } from '../observation/looks';
import type { Live, Model } from './model';
import type { CheckAtPlace } from '../bench/places';
import type { Suspicion } from '../inference/suspicion';
import { observed, resultShares, type Ways } from '../observation/ways';
import { shortRow } from '../quantities/rows';

type Shown = readonly number[];
const NOTHING: Shown = [];

/** By result and fault of a set: chance that this result is the one found, and that this fault shows it. */
type Found = readonly Float64Array[];

/**
 * Of several faults at once the result that is looked for first is the one found; at equal results, by the fault that is met
 * first. `shown` is by fault in the order in which they are met. Each is taken to show as it would alone.
 */
function foundOf(shown: readonly Shown[], results: number): Found {
  const n = shown.length;
  const rest = new Float64Array(n).fill(1);
  return Array.from({ length: results }, (_, k) => {
    const found = new Float64Array(n);
    let earlier = 1;
    for (let i = 0; i < n; i++) {
      const p = (shown[i] as Shown)[k] ?? 0;
      // Those met before it show something later than k, those met after it k or later.
      let later = 1;
      for (let j = i + 1; j < n; j++) later *= rest[j] as number;
      found[i] = earlier * p * later;
      earlier *= (rest[i] as number) - p;
    }
    for (let i = 0; i < n; i++) rest[i] = (rest[i] as number) - ((shown[i] as Shown)[k] ?? 0);
    return found;
  });
}

/** How likely an answer is with several faults at once where the way in which they show does not matter. */
function ofNumbers({ check }: CheckAtPlace, numbers: readonly number[], outcome: number): number {
  if (check.asks) return numbers.reduce((sum, x) => sum + x, 0) / numbers.length;
  // Only when all lie within the swap is the machine cured by it.
  if (check.swap) return outcome === 0 ? Math.min(...numbers) : Math.max(...numbers);
  return numbers[0] ?? 0;
}

function alone(given: Given, seen: Shown): number {
  if (typeof given === 'number') return given;
  let sum = 0;
  for (let k = 0; k < seen.length; k++) sum += (seen[k] as number) * (given[k] ?? 0);
  return sum;
}

/** Answers under one hypothesis, flattened as far as they would only repeat others' errors, and made whole. */
function tempered(rows: readonly Float64Array[], h: number, weight: number): void {
  let sum = 0;
  for (let o = 0; o < rows.length; o++) {
    const row = rows[o] as Float64Array;
    if (weight !== 1) row[h] = (row[h] as number) ** weight;
    sum += row[h] as number;
  }
  for (let o = 0; o < rows.length; o++) {
    const row = rows[o] as Float64Array;
    row[h] = (row[h] as number) / (sum || 1);
  }
}

/** A fault that something on no list may be like, and how far that is believed. */
interface Alike {
  readonly c: number;
  readonly p: number;
}

/** As many are gone through as hold this much together, and no more than so many (chosen). */
const ALIKE = { share: 0.95, most: 24 } as const;

function alikeOf({ like }: Suspicion): readonly Alike[] {
  const order = like.map((p, c): Alike => ({ c, p })).sort((a, b) => b.p - a.p || a.c - b.c);
  let sum = 0;
  const kept = order.slice(0, ALIKE.most).filter(({ p }) => {
    const wanted = sum < ALIKE.share;
    sum += p;
    return wanted;
  });
  const whole = kept.reduce((total, { p }) => total + p, 0) || 1;
  return kept.map(({ c, p }) => ({ c, p: p / whole }));
}

/** A live hypothesis, and its only cause. */
interface Repeated {
  readonly h: number;
  readonly cause: number;
}

/** What a check may say, place by place. */
interface PlaceForecast {
  readonly look: Look | undefined;
  /** By cause in play, then outcome. */
  readonly given: readonly (readonly Given[])[];
  /** By outcome, then live hypothesis. */
  readonly rows: readonly Float64Array[];
}

/**
 * P(outcome | hypothesis, all that is known), by place, outcome and live hypothesis. What was found already has told
 * the ways apart in which a cause may show, so a check that would only repeat what is known forecasts just that.
 */
export class Forecasts {
  private readonly places: (PlaceForecast | undefined)[] = [];
  private readonly involved: readonly number[];
  private readonly alike: readonly Alike[];
  private readonly shown: Map<Look, (Shown | undefined)[]>;
  private readonly ofUnlisted: (readonly number[] | undefined)[];
  /** By place, then cause: how likely each outcome is with it alone. */
  private readonly ofOne: (readonly number[])[][];
  private readonly kin = new Map<number, readonly Repeated[]>();

  constructor(
    private readonly model: Model,
    private readonly suspicion: Suspicion,
    readonly live: readonly Live[],
    /** How far an answer of a check would be a witness of its own for a live hypothesis, 0 to 1; see `weightsOf`. */
    private readonly weight: (place: number, h: number) => number = () => 1,
    like?: Forecasts,
  ) {
    this.involved = [...new Set(live.flatMap(({ causes }) => causes))];
    this.alike = like?.alike ?? alikeOf(suspicion);
    this.shown = like?.shown ?? new Map<Look, (Shown | undefined)[]>();
    this.ofUnlisted = like?.ofUnlisted ?? [];
    this.ofOne = like?.ofOne ?? [];
  }

  /** Worked out when it is first asked for: an answer at once looks closely at a few checks only. */
  private at(index: number): PlaceForecast {
    return (this.places[index] ??= this.forecast(index));
  }

  /** For other hypotheses of the same suspicion: what does not hang on them is worked out once. */
  over(live: readonly Live[], weight: (place: number, h: number) => number): Forecasts {
    return new Forecasts(this.model, this.suspicion, live, weight, this);
  }

  rows(index: number): readonly Float64Array[] {
    return this.at(index).rows;
  }

  private showing(look: Look, cause: number): Shown {
    const list = this.shown.get(look) ?? [];
    this.shown.set(look, list);
    return (list[cause] ??= resultShares(this.suspicion.waysOf(cause), look));
  }

  /** By outcome, with one fault alone. */
  private one(index: number, cause: number): readonly number[] {
    const known = (this.ofOne[index] ??= []);
    return (known[cause] ??= this.chances(index, cause));
  }

  private chances(index: number, cause: number): readonly number[] {
    const { given, places } = this.model;
    const row = given.at(index, cause);
    const look = lookOf((places[index] as CheckAtPlace).check);
    // Out of reach of this check a fault is as good as not there.
    if (!look || typeof row[0] === 'number') return row as readonly number[];
    const shown = this.showing(look, cause);
    return row.map((g) => alone(g, shown));
  }

  /** By outcome, of something on no list: it lies aside of the path, or shows on it, like the faults that it may be like. */
  private unlisted(index: number): readonly number[] {
    const { model, suspicion } = this;
    const place = model.places[index] as CheckAtPlace;
    const look = lookOf(place.check);
    const sound = model.sound[index] ?? [];
    const outcomes = model.outcomes[index] ?? [];
    const like = outcomes.map(() => 0);
    for (const { c, p } of this.alike) {
      const one = this.one(index, c);
      for (let o = 0; o < like.length; o++) like[o] = (like[o] as number) + p * (one[o] as number);
    }
    const eye = looksByEye(model.kase.catalogue, look);
    const flat = flatLikelihood(place);
    const shows = outcomes.map((outcome, o) =>
      unlistedLikelihood(like[o] as number, {
        flat: place.check.asks ? (sound[o] ?? 0) : flat * shareOfRange(place, outcome),
        sound: sound[o] ?? 0,
        eye,
      }),
    );
    const whole = shows.reduce((sum, x) => sum + x, 0) || 1;
    return shows.map((x, o) => ((1 - suspicion.aside) * x) / whole + suspicion.aside * (sound[o] ?? 0));
  }

  private forecast(index: number): PlaceForecast {
    const { model, live, involved } = this;
    const place = model.places[index];
    if (!place) throw new RangeError(`There is no check number ${index}.`);
    const look = lookOf(place.check);
    const outcomes = model.outcomes[index] ?? [];
    const given: (readonly Given[])[] = [];
    const single: (readonly number[])[] = [];
    for (const c of involved) {
      given[c] = model.given.at(index, c);
      single[c] = this.one(index, c);
    }
    let first: readonly number[] | undefined;
    const unlisted = (this.ofUnlisted[index] ??= this.unlisted(index));
    const rows = outcomes.map(() => shortRow(live.length));
    live.forEach(({ causes: set }, h) => {
      if (set.length < 2) {
        const chances = set.length === 0 ? unlisted : (single[set[0] as number] as readonly number[]);
        for (let o = 0; o < rows.length; o++) (rows[o] as Float64Array)[h] = chances[o] as number;
        return;
      }
      // Out of reach of this check a fault is as good as not there.
      const seeing = set.filter((c) => typeof given[c]?.[0] !== 'number');
      if (seeing.length <= 1) {
        const [only] = seeing;
        rows.forEach((row, o) => {
          row[h] =
            only === undefined
              ? ofNumbers(
                  place,
                  set.map((c) => Number(given[c]?.[o] ?? 0)),
                  o,
                )
              : (single[only]?.[o] ?? 0);
        });
        return;
      }
      const met = (first ??= look && metFirst(place, model.causes));
      if (met) seeing.sort((x, y) => (met[x] ?? 0) - (met[y] ?? 0));
      const shown = seeing.map((c) => (look ? this.showing(look, c) : NOTHING));
      const found = foundOf(shown, Math.max(...shown.map(({ length }) => length)));
      rows.forEach((row, o) => {
        let sum = 0;
        for (let i = 0; i < seeing.length; i++) {
          const g = given[seeing[i] as number]?.[o] as readonly number[];
          for (let k = 0; k < found.length; k++) sum += ((found[k] as Float64Array)[i] as number) * (g[k] ?? 0);
        }
        row[h] = sum;
      });
    });
    for (let h = 0; h < live.length; h++) tempered(rows, h, this.weight(index, h));
    return { look, given, rows };
  }

  /**
   * Hypotheses of one cause that two checks both see, some side of it at least: of these the second partly repeats what the first
   * has told.
   */
  private repeated(first: number, second: number): readonly Repeated[] {
    const key = first * this.model.places.length + second;
    const known = this.kin.get(key);
    if (known !== undefined) return known;
    const kin = this.seenByBoth(first, second);
    this.kin.set(key, kin);
    return kin;
  }

  private seenByBoth(first: number, second: number): readonly Repeated[] {
    const { model, live } = this;
    const [a, b] = [this.at(first).look, this.at(second).look];
    if (!a || !b) return [];
    const seen = dimensionsOf(a);
    if (!dimensionsOf(b).some((dimension) => seen.includes(dimension))) return [];
    const [before, after] = [model.places[first] as CheckAtPlace, model.places[second] as CheckAtPlace];
    return live.flatMap(({ causes: [cause, other] }, h) => {
      if (cause === undefined || other !== undefined) return [];
      const { mode, stop } = model.causes[cause] as Cause;
      if (!before.reach.has(stop.index) || !after.reach.has(stop.index)) return [];
      const facets = lookTable(a, mode).facets;
      return lookTable(b, mode).facets.some((facet) => facets.includes(facet)) ? [{ h, cause }] : [];
    });
  }

  /**
   * What may follow one answer of a check: rows of a second check, given that answer too. Several causes at once are
   * taken to show independently of what the first answer told.
   */
  after(first: number, outcome: number): (second: number) => readonly Float64Array[] {
    const told = new Map<number, Ways>();
    const shownAfter = new Map<Look, Shown[]>();
    const waysAfter = (cause: number): Ways => {
      const known = told.get(cause);
      if (known) return known;
      const ways = this.suspicion.waysOf(cause);
      const { look, given } = this.at(first);
      const g = given[cause]?.[outcome];
      const next = look && typeof g !== 'number' && g ? observed(ways, look, g) : ways;
      told.set(cause, next);
      return next;
    };
    return (second) => {
      const { look, given, rows } = this.at(second);
      const changed = this.repeated(first, second);
      if (!look || changed.length === 0) return rows;
      const list = shownAfter.get(look) ?? [];
      shownAfter.set(look, list);
      const copies = rows.map((row) => row.slice());
      for (const { h, cause } of changed) {
        const shown = (list[cause] ??= resultShares(waysAfter(cause), look));
        const mine = given[cause] as readonly Given[];
        for (let o = 0; o < copies.length; o++) (copies[o] as Float64Array)[h] = alone(mine[o] ?? 0, shown);
        tempered(copies, h, this.weight(second, h));
      }
      return copies;
    };
  }
}
