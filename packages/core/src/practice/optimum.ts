import type { Bench } from '../bench/state';
import { Lookahead } from '../decision/lookahead';
import type { Live, Model } from '../decision/model';
import { groupIndex } from '../decision/model';

/** A machine with few causes and few checks, on which every course of action can be worked out. */
export interface Reduced {
  readonly model: Model;
  readonly live: readonly Live[];
  readonly p: Float64Array;
  /** Indices of the checks that may be done, each once. */
  readonly checks: readonly number[];
  readonly rows: (index: number) => readonly Float64Array[];
}

/** Each repair is one remedy that cures for certain, so that what is decided is which, not how often. */
export function reduce(
  model: Model,
  rows: (index: number) => readonly Float64Array[],
  live: readonly Live[],
  p: Float64Array,
  causes: number,
  checks: number,
): Reduced {
  const order = live
    .map((_, h) => h)
    .filter((h) => live[h]?.causes.length === 1)
    .sort((a, b) => (p[b] ?? 0) - (p[a] ?? 0));
  const chosen: number[] = [];
  const seen = new Set<number>();
  for (const h of order) {
    const group = model.groupOf[live[h]?.causes[0] ?? -1] ?? -1;
    if (group < 0 || seen.has(group)) continue;
    seen.add(group);
    chosen.push(h);
    if (chosen.length === causes) break;
  }
  const last = live.length - 1;
  const kept = [...chosen, last];
  const small = kept.map((h) => live[h] as Live);
  const weights = Float64Array.from(kept, (h) => p[h] ?? 0);
  const total = weights.reduce((sum, x) => sum + x, 0);
  const shares = weights.map((x) => x / total);
  const groups = model.groups.map((group) => ({ ...group, laterMin: 0, remedy: { ...group.remedy, cures: 1 } }));
  const reducedModel: Model = { ...model, groups, groupOf: groupIndex(groups, model.causes) };
  const of = (index: number): readonly Float64Array[] =>
    rows(index).map((row) => Float64Array.from(kept, (h) => row[h] ?? 0));
  const bits = (index: number): number => {
    let sum = 0;
    for (const row of of(index)) {
      const answer = shares.reduce((x, s, h) => x + s * (row[h] ?? 0), 0);
      shares.forEach((s, h) => {
        const joint = s * (row[h] ?? 0);
        if (joint > 0) sum += joint * Math.log2((row[h] ?? 0) / answer);
      });
    }
    return sum;
  };
  const best = model.places
    .map((_, i) => i)
    .filter((i) => !model.places[i]?.check.asks)
    .sort((a, b) => bits(b) - bits(a));
  // One of each kind of check: many spans of one push would be one check many times.
  const kinds = new Set<string>();
  const few = best.filter((i) => {
    const id = model.places[i]?.check.id ?? '';
    if (kinds.has(id)) return false;
    kinds.add(id);
    return true;
  });
  const table = new Map(few.slice(0, checks).map((i) => [i, of(i)]));
  return { model: reducedModel, live: small, p: shares, checks: few.slice(0, checks), rows: (i) => table.get(i) ?? [] };
}

interface Situation {
  /** In the measure of the whole: they sum to the chance of getting here. */
  readonly p: Float64Array;
  readonly bench: Bench;
  readonly done: ReadonlySet<number>;
}

const benchKey = (bench: Bench): string =>
  `${Math.round(bench.temperatureC)}${bench.power}${[...bench.off].sort().join()}`;

/** Chances below this are not followed further: what is left is repaired without more ado. */
const NEGLIGIBLE = 1e-5;

function tools(reduced: Reduced) {
  const { model, live, rows } = reduced;
  const ahead = new Lookahead(model, { live, rows, after: () => rows });
  const key = (situation: Situation, path: string): string => `${path}|${benchKey(situation.bench)}`;
  return { ahead, key };
}

/**
 * Least expected minutes to a proved repair, by dynamic programming over everything that can be known: at each point any
 * check not done yet, any repair, or stripping everything.
 */
export function optimum(reduced: Reduced, bench: Bench): number {
  const { ahead, key } = tools(reduced);
  const known = new Map<string, number>();
  const value = (situation: Situation, path: string): number => {
    const whole = situation.p.reduce((sum, x) => sum + x, 0);
    if (whole <= 0) return 0;
    let best = ahead.stopping(situation.p, situation.bench).minutes;
    if (whole < NEGLIGIBLE) return best;
    const at = key(situation, path);
    const before = known.get(at);
    if (before !== undefined) return before;
    for (const index of reduced.checks) {
      if (situation.done.has(index)) continue;
      const { price, minutes } = ahead.price(index, situation.bench);
      let sum = whole * minutes;
      if (sum >= best) continue;
      const done = new Set([...situation.done, index]);
      ahead.answers(index, situation.p).forEach((p, o) => {
        if (sum < best) sum += value({ p, bench: price.after, done }, sorted(path, `c${index}:${o}`));
      });
      best = Math.min(best, sum);
    }
    for (const group of groupsOf(reduced, situation.p)) {
      const { minutes, after } = ahead.repairPrice(group, situation.bench);
      const left = ahead.afterRepair(group, situation.p);
      const sum = whole * minutes;
      if (sum >= best) continue;
      best = Math.min(best, sum + value({ p: left, bench: after, done: situation.done }, sorted(path, `r${group}`)));
    }
    known.set(at, best);
    return best;
  };
  return value({ p: reduced.p, bench, done: new Set() }, '');
}

/** Expected minutes when the tracer decides at every point, two checks ahead; worked out, not drawn. */
export function tracerValue(reduced: Reduced, bench: Bench): number {
  const { ahead, key } = tools(reduced);
  const known = new Map<string, number>();
  const value = (situation: Situation, path: string): number => {
    const whole = situation.p.reduce((sum, x) => sum + x, 0);
    if (whole <= 0) return 0;
    const stop = ahead.stopping(situation.p, situation.bench);
    if (whole < NEGLIGIBLE) return stop.minutes;
    const firsts = [...stop.order.subarray(0, Math.min(3, stop.steps))];
    const stopMinutes = stop.minutes;
    const at = key(situation, path);
    const before = known.get(at);
    if (before !== undefined) return before;
    const p = situation.p.map((x) => x / whole);
    const open = reduced.checks.filter((index) => !situation.done.has(index));
    ahead.seconds = open;
    const checks = open.map((index) => ({ index, minutes: ahead.checkingTwice(index, p, situation.bench).minutes }));
    const best = checks.sort((a, b) => a.minutes - b.minutes)[0];
    const repairs = firsts.map((group) => ({ group, minutes: ahead.repairing(group, p, situation.bench, open) }));
    const begin = repairs.sort((a, b) => a.minutes - b.minutes)[0]?.group;
    const repair = Math.min(stopMinutes / whole, repairs[0]?.minutes ?? Infinity);
    let result: number;
    if (best && best.minutes < repair) {
      const { price, minutes } = ahead.price(best.index, situation.bench);
      const done = new Set([...situation.done, best.index]);
      result = whole * minutes;
      ahead.answers(best.index, situation.p).forEach((next, o) => {
        result += value({ p: next, bench: price.after, done }, sorted(path, `c${best.index}:${o}`));
      });
    } else if (begin === undefined) result = stopMinutes;
    else {
      const { minutes, after } = ahead.repairPrice(begin, situation.bench);
      const left = ahead.afterRepair(begin, situation.p);
      result = whole * minutes + value({ p: left, bench: after, done: situation.done }, sorted(path, `r${begin}`));
    }
    known.set(at, result);
    return result;
  };
  return value({ p: reduced.p, bench, done: new Set() }, '');
}

/** What was done, in whatever order, is one state of knowledge. */
const sorted = (path: string, step: string): string => [...path.split(' ').filter(Boolean), step].sort().join(' ');

const groupsOf = ({ model, live }: Reduced, p: Float64Array): readonly number[] => [
  ...new Set(
    live.flatMap(({ causes }, h) => {
      const group = causes[0] === undefined ? -1 : (model.groupOf[causes[0]] ?? -1);
      return group >= 0 && (p[h] ?? 0) > 0 ? [group] : [];
    }),
  ),
];
