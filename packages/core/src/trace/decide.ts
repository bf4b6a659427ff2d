import { benchMinutes, priceOf, type Bench, type Price } from '../access/bench';
import { materialOf } from '../catalogue/index';
import type { Route } from '../path/route';
import { elsewhereLikelihood, evidenceWeights, flatLikelihood, priorOf, type Evidence } from './suspicion';
import type { Cause } from './causes';
import type { Case } from './context';
import { outcomeProbability, outcomesOf, type Outcome } from './likelihood';
import { errorSource, type CheckAtPlace } from './places';
import { ELSEWHERE_MIN, orderOfRepairs, repairGroups, tryMinutes, type RepairGroup } from './repairs';

/** Everything about a machine and an order that does not change while findings come in. */
export interface Model {
  readonly kase: Case;
  readonly route: Route;
  readonly causes: readonly Cause[];
  readonly prior: readonly number[];
  readonly places: readonly CheckAtPlace[];
  readonly outcomes: readonly (readonly Outcome[])[];
  /** likelihood[place][outcome][cause], `elsewhere` last; for each cause the outcomes of a place sum to one. */
  readonly likelihood: readonly (readonly Float64Array[])[];
  readonly groups: readonly RepairGroup[];
  readonly hotC: number;
}

export function modelOf(kase: Case, route: Route, causes: readonly Cause[], places: readonly CheckAtPlace[]): Model {
  const prior = priorOf(causes);
  const listed = prior.slice(0, -1);
  const outcomes = places.map((place) => outcomesOf(place, route, kase.catalogue));
  const likelihood = places.map((place, p) => {
    const answers = outcomes[p] ?? [];
    const rows = answers.map((outcome) => {
      const row = new Float64Array(causes.length + 1);
      // A check sees nothing of causes out of its reach: one value serves them all.
      let unseen: number | undefined;
      causes.forEach((cause, i) => {
        const apart = !place.check.asks && !place.reach.has(cause.stop.index);
        if (!apart) row[i] = outcomeProbability(kase.catalogue, place, outcome, cause);
        else row[i] = unseen ??= outcomeProbability(kase.catalogue, place, outcome, cause);
      });
      const width = outcome.low === undefined || outcome.high === undefined ? 1 : outcome.high - outcome.low;
      const flat = place.check.asks ? 1 / answers.length : flatLikelihood(place, outcome.result, outcome.low) * width;
      row[causes.length] = elsewhereLikelihood([...row.subarray(0, causes.length)], listed, flat);
      return row;
    });
    for (let i = 0; i <= causes.length; i++) {
      const sum = rows.reduce((total, row) => total + (row[i] ?? 0), 0);
      for (const row of rows) row[i] = (row[i] ?? 0) / sum;
    }
    return rows;
  });
  const groups = repairGroups(kase, route, causes);
  const material = materialOf(kase.catalogue, kase.material);
  return {
    kase,
    route,
    causes,
    prior,
    places,
    outcomes,
    likelihood,
    groups,
    hotC: Math.min(material.printC, kase.machine.heat.limitC),
  };
}

export interface OutcomeForecast {
  readonly outcome: Outcome;
  readonly probability: number;
  /** Posterior after this answer, `elsewhere` last. */
  readonly posterior: readonly number[];
  /** Expected minutes to a proved repair after this answer. */
  readonly minutes: number;
}

export interface CheckForecast {
  readonly place: CheckAtPlace;
  readonly index: number;
  readonly price: Price;
  /** The way there, the check, its risk, and the share of closing that only it makes necessary. */
  readonly checkMinutes: number;
  readonly closingShare: number;
  readonly expectedMinutes: number;
  readonly bits: number;
  readonly outcomes: readonly OutcomeForecast[];
  /** Answered already; offered last. */
  readonly done: boolean;
}

export interface Decision {
  /** Expected minutes when repairing starts now, and where. */
  readonly repairMinutes: number;
  readonly repairOrder: readonly number[];
  /** Ranked, best first; checks that can teach nothing are left out. */
  readonly checks: readonly CheckForecast[];
  readonly advice: 'check' | 'repair';
  readonly nearTie: boolean;
}

const groupShares = (model: Model, p: ArrayLike<number>): readonly number[] =>
  model.groups.map((group) => group.causes.reduce((sum, i) => sum + (p[i] ?? 0), 0));

/** Expected bench minutes to a proved repair when no more is checked. */
export function repairCost(model: Model, p: ArrayLike<number>, tries: readonly number[]) {
  const shares = groupShares(model, p);
  const order = orderOfRepairs(shares, tries, ELSEWHERE_MIN);
  const later = model.groups.reduce((sum, group, g) => sum + (shares[g] ?? 0) * group.laterMin, 0);
  return { order: order.order, minutes: order.minutes + later };
}

const benchKey = (bench: Bench): string =>
  `${Math.round(bench.temperatureC)}|${bench.power}|${[...bench.off].sort().join()}`;

/** Two choices this close are as good as equal: the gentler one is taken, and the interface says so. */
const NEAR_TIE_MIN = 0.5;
/** A check that moves nothing by more than this many bits teaches nothing. */
const NOTHING_BITS = 1e-6;

/**
 * What to do next: for each check its price and, over its answers, the cost of the best order of repairs afterwards;
 * against repairing now. One step ahead; deeper search may replace it behind the same surface.
 */
export function decide(
  model: Model,
  p: readonly number[],
  bench: Bench,
  evidence: readonly Evidence[],
  barred: ReadonlySet<string>,
  answered: ReadonlySet<string>,
): Decision {
  const { machine } = model.kase;
  const triesAt = new Map<string, readonly number[]>();
  const tries = (at: Bench): readonly number[] => {
    const key = benchKey(at);
    const known = triesAt.get(key) ?? tryMinutes(machine, model.groups, at);
    triesAt.set(key, known);
    return known;
  };
  const now = repairCost(model, p, tries(bench));
  const doneGroups = new Map<string, number>();
  for (const item of evidence) doneGroups.set(item.group, (doneGroups.get(item.group) ?? 0) + 1);

  const checks = model.places.flatMap((place, index): CheckForecast[] => {
    if (barred.has(place.key)) return [];
    const repeats = doneGroups.get(errorSource(place)) ?? 0;
    const done = answered.has(place.key);
    // Asked once, the owner gives the same answer again.
    if (place.check.asks && repeats > 0) return [];
    const weight = repeats === 0 ? 1 : repeatWeight(repeats);
    return [forecast(model, index, p, bench, tries, weight, done)].filter((f) => f.bits > NOTHING_BITS);
  });
  checks.sort((a, b) => a.expectedMinutes - b.expectedMinutes);
  const ranked = [...gentlestFirst(checks.filter((check) => !check.done)), ...checks.filter((check) => check.done)];
  const best = ranked.find((check) => !check.done);
  const advice = best && best.expectedMinutes < now.minutes ? 'check' : 'repair';
  const second =
    advice === 'check'
      ? Math.min(ranked[1]?.expectedMinutes ?? Infinity, now.minutes)
      : (best?.expectedMinutes ?? Infinity);
  const first = advice === 'check' ? (best?.expectedMinutes ?? 0) : now.minutes;
  return {
    repairMinutes: now.minutes,
    repairOrder: now.order,
    checks: ranked,
    advice,
    nearTie: second - first < NEAR_TIE_MIN,
  };
}

/** What a further repeat adds to the weight of a group that has been answered `n` times. */
function repeatWeight(n: number): number {
  const item = { group: 'x', trust: 1 } as Evidence;
  const sum = (k: number): number => evidenceWeights(Array<Evidence>(k).fill(item)).reduce((total, w) => total + w, 0);
  return sum(n + 1) - sum(n);
}

/** Among those as good as the best: outside before opening, cold before hot, quick before slow. */
function gentlestFirst(checks: readonly CheckForecast[]): readonly CheckForecast[] {
  const best = checks[0];
  if (!best) return checks;
  const close = checks.filter((check) => check.expectedMinutes - best.expectedMinutes < NEAR_TIE_MIN);
  const roughness = (check: CheckForecast): number =>
    check.price.opened.length * 10 +
    (check.place.check.risk ?? 0) * 5 +
    (check.place.check.heat === 'hot' ? 2 : 0) +
    check.place.check.minutes / 10;
  const gentle = [...close].sort((a, b) => roughness(a) - roughness(b));
  return [...gentle, ...checks.slice(close.length)];
}

function forecast(
  model: Model,
  index: number,
  p: readonly number[],
  bench: Bench,
  tries: (at: Bench) => readonly number[],
  weight: number,
  done: boolean,
): CheckForecast {
  const place = model.places[index] as CheckAtPlace;
  const { check } = place;
  const price = priceOf(model.kase.machine, bench, {
    heat: check.heat,
    power: check.power,
    parts: place.parts,
    hotC: model.hotC,
  });
  const rows = model.likelihood[index] ?? [];
  const after = tries(price.after);
  let bits = 0;
  let ahead = 0;
  const raw = rows.map((row) => p.map((x, i) => x * (weight === 1 ? (row[i] ?? 0) : (row[i] ?? 0) ** weight)));
  const sums = raw.map((list) => list.reduce((sum, x) => sum + x, 0));
  const total = sums.reduce((sum, x) => sum + x, 0);
  const outcomes = raw.map((list, o): OutcomeForecast => {
    const sum = sums[o] ?? 0;
    const probability = sum / total;
    const next = sum > 0 ? list.map((x) => x / sum) : p;
    const minutes = repairCost(model, next, after).minutes;
    ahead += probability * minutes;
    for (let i = 0; i < p.length; i++) {
      const q = next[i] ?? 0;
      const before = p[i] ?? 0;
      if (q > 0 && before > 0) bits += probability * q * Math.log2(q / before);
    }
    return { outcome: (model.outcomes[index] ?? [])[o] as Outcome, probability, posterior: next, minutes };
  });
  const closingShare = closingOnlyFor(model, price, p);
  const checkMinutes = benchMinutes(price) + check.minutes + (check.risk ?? 0);
  // Whatever is opened is closed in the price of every repair afterwards; what the repair would have opened anyway costs nothing extra.
  return {
    place,
    index,
    price,
    checkMinutes,
    closingShare,
    expectedMinutes: checkMinutes + ahead,
    bits: Math.max(0, bits),
    outcomes,
    done,
  };
}

/** Minutes of closing that the likely repairs would not have needed anyway. */
function closingOnlyFor(model: Model, price: Price, p: readonly number[]): number {
  const shares = groupShares(model, p);
  let minutes = 0;
  for (const id of price.opened) {
    const needed = model.groups.reduce(
      (sum, group, g) => sum + (group.need.parts.includes(id) ? (shares[g] ?? 0) : 0),
      0,
    );
    minutes += (1 - Math.min(1, needed)) * (model.kase.machine.parts.find((part) => part.id === id)?.minutesOn ?? 0);
  }
  return minutes;
}
