import { priceOfAll } from '../bench/action';
import { benchKey, benchMinutes, priceOf, type Price } from '../bench/price';
import type { Bench } from '../bench/state';
import type { Forecasts } from './forecasts';
import type { Model } from './model';
import { needOfCheck, type CheckAtPlace } from '../bench/places';
import type { Machine } from '../path/machine';
import { bounded, KeptWith } from '../quantities/keptWith';
import { shortRow } from '../quantities/rows';
import { apartMinutes } from './apart';
import { needsOf, repairCost, type Needs, type RepairOrder } from './repairCost';
import { tryMinutes } from './repairs';

/** What a check costs from a bench, and the bench it leaves. */
export interface CheckPrice {
  readonly price: Price;
  /** The way there, the check and its risk. */
  readonly minutes: number;
}

/** Prices at one state of the bench. */
interface At {
  readonly tries: readonly number[];
  readonly checks: (CheckPrice | undefined)[];
}

/** Every check costs this beside its own minutes: fetching what it takes, reading, noting the answer (chosen). */
export const ROUND_MIN = 0.7;

/** After an answer rarer than this the second step is not worked out: an average course is taken for it (chosen). */
const RARE_ANSWER = 0.01;

/** Prices lie with their model: an order comes back to the same few benches at every finding. */
const PRICES = new WeakMap<Model, Map<string, At>>();
/** Those of checks with the places of the machine: what they need does not hang on the order, but for how hot it is. */
const CHECK_PRICES = new KeptWith<Machine, readonly CheckAtPlace[], Map<string, At['checks']>>();

/** What a repair leaves of a hypothesis that it is not for, or is wholly for. */
const UNTOUCHED = -1;
const ALL_CURED = -2;
const keyOf = (causes: readonly number[]): string => [...causes].sort((a, b) => a - b).join();

/** Minutes in all, and after each answer, in the measure of the hypotheses. */
export interface CheckedTwice {
  readonly minutes: number;
  readonly byAnswer: readonly number[];
}

/** Look-ahead over one set of live hypotheses: what a check or a repair is worth, one or two steps deep. */
export class Lookahead {
  private readonly needs: Needs;
  private readonly scratch: Float64Array;
  private readonly at: Map<string, At>;
  private readonly checkPrices: Map<string, At['checks']>;
  private readonly byBench = new WeakMap<Bench, At>();
  private readonly floors = new Map<At, Float64Array>();
  private indexOf: ReadonlyMap<string, number> | undefined;
  private readonly rests = new Map<number, Int32Array>();
  /** Checks that may come second: the most informative a minute, and the best by themselves. */
  seconds: readonly number[] = [];
  private bestSecond: number | undefined;

  constructor(
    private readonly model: Model,
    private readonly forecasts: Pick<Forecasts, 'live' | 'rows' | 'after'>,
    answered: ReadonlySet<string> = new Set(),
    aside?: number,
  ) {
    const apart = apartMinutes(model.way, model.route, model.shownAt, answered, aside);
    this.needs = needsOf(model, forecasts.live, apart);
    this.scratch = new Float64Array(forecasts.live.length);
    this.at = bounded(PRICES.get(model) ?? new Map<string, At>());
    PRICES.set(model, this.at);
    this.checkPrices = bounded(CHECK_PRICES.of(model.kase.machine, model.places, () => new Map()));
  }

  private state(bench: Bench): At {
    const same = this.byBench.get(bench);
    if (same) return same;
    const key = benchKey(bench);
    const known = this.at.get(key);
    if (known) {
      this.byBench.set(bench, known);
      return known;
    }
    const { machine } = this.model.kase;
    // A repair of something else comes after that of the heating, which is in nearly every course that is left then.
    const mended = bench.heatSpoiled ? { ...bench, heatSpoiled: false } : bench;
    const keyed = `${this.model.hotC}|${key}`;
    const checks = this.checkPrices.get(keyed) ?? [];
    this.checkPrices.set(keyed, checks);
    const made = { tries: tryMinutes(machine, this.model.groups, mended), checks };
    this.at.set(key, made);
    this.byBench.set(bench, made);
    return made;
  }

  price(index: number, bench: Bench): CheckPrice {
    const at = this.state(bench);
    const known = at.checks[index];
    if (known) return known;
    const place = this.model.places[index];
    if (!place) throw new RangeError(`There is no check number ${index}.`);
    const { minutes, risk } = place.check;
    const price = priceOf(this.model.kase.machine, bench, needOfCheck(place, this.model.hotC));
    return (at.checks[index] = { price, minutes: benchMinutes(price) + minutes + ROUND_MIN + (risk ?? 0) });
  }

  /** Expected minutes when repairing starts now. `p` need not sum to one; neither does what is returned. */
  stopping(p: Float64Array, bench: Bench): RepairOrder {
    return repairCost(this.needs, p, this.state(bench).tries);
  }

  /** Weight of the hypotheses that a first repair would renew a part for which is none of theirs. In the measure of `p`. */
  renewedSound(p: Float64Array, { order, steps }: RepairOrder): number {
    const group = order[0];
    if (steps === 0 || group === undefined || this.model.groups[group]?.remedy.replaces === undefined) return 0;
    const { first, second, more } = this.needs;
    let sum = 0;
    for (let h = 0; h < p.length; h++)
      if (first[h] !== group && second[h] !== group && !more.get(h)?.includes(group)) sum += p[h] as number;
    return sum;
  }

  /** Hypotheses after each answer, not made whole: their sum is the answer's probability. */
  answers(index: number, p: Float64Array): readonly Float64Array[] {
    return this.forecasts.rows(index).map((row) => {
      const next = shortRow(p.length);
      for (let h = 0; h < p.length; h++) next[h] = (p[h] as number) * (row[h] as number);
      return next;
    });
  }

  /** A repair that fails is a finding: what is left of each hypothesis, not made whole. Of several faults those that it is not for stay. */
  afterRepair(group: number, p: Float64Array): Float64Array {
    const cures = this.model.groups[group]?.remedy.cures ?? 0;
    const left = Float64Array.from(p);
    this.without(group).forEach((rest, h) => {
      if (rest === UNTOUCHED) return;
      const cured = (p[h] as number) * cures;
      left[h] = (left[h] as number) - cured;
      if (rest !== ALL_CURED) left[rest] = (left[rest] as number) + cured;
    });
    return left;
  }

  /** By hypothesis, which one is left when a repair has taken away its part of it. */
  private without(group: number): Int32Array {
    const known = this.rests.get(group);
    if (known) return known;
    const { live } = this.forecasts;
    const indexOf = (this.indexOf ??= new Map(live.map(({ causes }, h) => [keyOf(causes), h])));
    const rests = Int32Array.from(live, ({ causes }) => {
      const rest = causes.filter((cause) => this.model.groupOf[cause] !== group);
      if (rest.length === causes.length) return UNTOUCHED;
      if (rest.length === 0) return ALL_CURED;
      // What is left by itself may be too unlikely to be among them: then it stays as it was.
      return indexOf.get(keyOf(rest)) ?? UNTOUCHED;
    });
    this.rests.set(group, rests);
    return rests;
  }

  repairPrice(group: number, bench: Bench): { readonly minutes: number; readonly after: Bench } {
    const at = this.state(bench);
    const needs = this.model.groups[group]?.needs;
    if (!needs) throw new RangeError(`There is no repair number ${group}.`);
    const { heatSpoiled = false } = bench;
    const mends = this.model.groups[group]?.causes.some((cause) => this.model.causes[cause]?.mode.spoilsHeat);
    return {
      minutes: at.tries[group] ?? 0,
      after: {
        ...priceOfAll(this.model.kase.machine, bench, needs).after,
        off: new Set(),
        heatSpoiled: heatSpoiled && mends !== true,
      },
    };
  }

  /**
   * Minutes of checking first with one check, repairing after its answer. In the measure of `p`.
   *
   * @param limit once it is clear that it takes as much as this or more, `Infinity` is returned
   */
  private checking(
    index: number,
    rowsOf: (index: number) => readonly Float64Array[],
    p: Float64Array,
    bench: Bench,
    whole: number,
    average: number,
    limit: number,
  ): number {
    const { price, minutes } = this.price(index, bench);
    const at = this.state(price.after);
    const floor = this.floorOf(at);
    const next = this.scratch;
    const rare = whole * RARE_ANSWER;
    // What it takes at the least: answers that have been worked out by what they take, the others by what each hypothesis takes alone.
    let sum = whole * minutes;
    for (let h = 0; h < p.length; h++) sum += (p[h] as number) * (floor[h] as number);
    if (sum >= limit) return Infinity;
    const rows = rowsOf(index);
    // From the last: that nothing is seen is the likeliest answer of most checks, and tells soonest whether one is worth it.
    for (let o = rows.length - 1; o >= 0; o--) {
      const row = rows[o] as Float64Array;
      let likely = 0;
      let least = 0;
      for (let h = 0; h < p.length; h++) {
        const x = (next[h] = (p[h] as number) * (row[h] as number));
        likely += x;
        least += x * (floor[h] as number);
      }
      const takes = likely < rare ? likely * average : repairCost(this.needs, next, at.tries).minutes;
      sum += Math.max(0, takes - least);
      if (sum >= limit) return Infinity;
    }
    return sum;
  }

  /** By hypothesis, what no course of repairs takes less than when it is the one, from where a check has led. */
  private floorOf(at: At): Float64Array {
    const known = this.floors.get(at);
    if (known) return known;
    const { first, second, more, later, apart } = this.needs;
    const made = Float64Array.from(apart, (strip, h) => {
      const groups = [first[h] as number, second[h] as number, ...(more.get(h) ?? [])].filter((g) => g >= 0);
      const mending = groups.reduce((sum, g) => sum + (at.tries[g] ?? 0), later[h] as number);
      return groups.length > 0 ? Math.min(strip, mending) : strip;
    });
    this.floors.set(at, made);
    return made;
  }

  /** The best that one more step can make of a situation: stop and repair, or one of the second checks first. */
  oneStep(
    p: Float64Array,
    bench: Bench,
    except: number,
    rowsOf = (index: number) => this.forecasts.rows(index),
  ): number {
    let whole = 0;
    for (let h = 0; h < p.length; h++) whole += p[h] as number;
    if (whole < 1e-9) return 0;
    let best = this.stopping(p, bench).minutes;
    const average = best / whole;
    // What was best in the last situation is likely to be so again, and then the others are soon seen to be worse.
    const last = this.bestSecond;
    const turns = last === undefined ? this.seconds : [last, ...this.seconds];
    for (let i = 0; i < turns.length; i++) {
      const index = turns[i] as number;
      if (index === except || (i > 0 && index === last)) continue;
      // A check cannot pay that costs more than everything that is left.
      if (whole * this.price(index, bench).minutes >= best) continue;
      const minutes = this.checking(index, rowsOf, p, bench, whole, average, best);
      if (minutes >= best) continue;
      best = minutes;
      this.bestSecond = index;
    }
    return best;
  }

  /** Minutes of checking first when after the answer one more check may follow. In the measure of `p`. */
  checkingTwice(index: number, p: Float64Array, bench: Bench): CheckedTwice {
    const { price, minutes } = this.price(index, bench);
    const whole = p.reduce((sum, x) => sum + x, 0);
    const byAnswer = this.answers(index, p).map((next, o) => {
      const rare = next.reduce((total, x) => total + x, 0) < whole * RARE_ANSWER;
      return rare
        ? this.stopping(next, price.after).minutes
        : this.oneStep(next, price.after, index, this.forecasts.after(index, o));
    });
    return { minutes: byAnswer.reduce((sum, x) => sum + x, whole * minutes), byAnswer };
  }

  /**
   * Minutes of repairing first. After a failure as many checks may follow as are looked ahead otherwise, so that putting
   * a repair off never looks better than it is.
   */
  repairing(group: number, p: Float64Array, bench: Bench, firsts: readonly number[]): number {
    const { minutes, after } = this.repairPrice(group, bench);
    const left = this.afterRepair(group, p);
    const whole = left.reduce((sum, x) => sum + x, 0);
    let best = this.stopping(left, after).minutes;
    for (const index of firsts) {
      if (whole * this.price(index, after).minutes >= best) continue;
      best = Math.min(best, this.checkingTwice(index, left, after).minutes);
    }
    return minutes + best;
  }

  /** No course of action can take less: each hypothesis known and repaired at once. */
  leastPossible(p: Float64Array, bench: Bench): number {
    const { tries } = this.state(bench);
    let sum = 0;
    for (let h = 0; h < p.length; h++) {
      const a = this.needs.first[h] as number;
      const b = this.needs.second[h] as number;
      let need = (a >= 0 ? (tries[a] ?? 0) : 0) + (b >= 0 ? (tries[b] ?? 0) : 0);
      for (const g of this.needs.more.get(h) ?? []) need += g >= 0 ? (tries[g] ?? 0) : 0;
      sum += (p[h] as number) * need;
    }
    return sum;
  }
}
