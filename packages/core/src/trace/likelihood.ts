import type { Catalogue, Check, CheckResult, Shows } from '../catalogue/types';
import type { Route } from '../path/route';
import { onsetLikelihood, type Cause } from './causes';
import type { CheckAtPlace } from './places';
import { normalCdf, normalPdf, smearedMass, smearedPdf } from './normal';

/** An answer as look-ahead thinks of it: a result, with a band of values where it is a number. */
export interface Outcome {
  readonly result: string;
  readonly label: string;
  readonly low?: number;
  readonly high?: number;
}

/** Spread of a depth read off a marked strand: 4 mm and 1 % of the depth (chosen). */
const depthSd = (depthMm: number): number => 4 + 0.01 * depthMm;

const sees = (place: CheckAtPlace, cause: Cause): boolean => place.reach.has(cause.stop.index);

/** Probability that none of the results up to and including number `upTo` is called for. */
function quiet(check: Check, shows: Readonly<Record<string, Shows>>, upTo: number): number {
  const wanted = new Map<string, Set<string>>();
  for (const result of check.results.slice(0, upTo + 1))
    for (const [dimension, values] of Object.entries(result.when ?? {})) {
      const set = wanted.get(dimension) ?? new Set<string>();
      values.forEach((value) => set.add(value));
      wanted.set(dimension, set);
    }
  let probability = 1;
  for (const [dimension, values] of wanted) {
    let shown = 0;
    for (const value of values) shown += shows[dimension]?.[value] ?? 0;
    probability *= 1 - Math.min(1, shown);
  }
  return probability;
}

/**
 * P(result | cause) for a check with named results: what the cause shows in the dimensions that the check observes,
 * if it lies within reach, then the check's own errors. Results are looked for in their order; the last is the normal one.
 */
export function resultProbabilities(place: CheckAtPlace, cause: Cause): readonly number[] {
  const { check } = place;
  const normal = check.results.length - 1;
  if (check.swap) {
    const [cured, same] = sees(place, cause) ? [1 - check.miss, check.miss] : [check.falseAlarm, 1 - check.falseAlarm];
    return [cured, same];
  }
  const ideal = check.results.map((_, i) => {
    if (!sees(place, cause)) return i === normal ? 1 : 0;
    const before = i === 0 ? 1 : quiet(check, cause.mode.shows, i - 1);
    return i === normal ? before : before - quiet(check, cause.mode.shows, i);
  });
  const healthy = ideal[normal] ?? 0;
  return ideal.map((p, i) =>
    i === normal
      ? p * (1 - check.falseAlarm) + (1 - healthy) * check.miss
      : p * (1 - check.miss) + (healthy * check.falseAlarm) / normal,
  );
}

const depthResult = (check: Check): CheckResult | undefined => check.results.find((result) => result.depth);

/** Where the cause sits, mm from the entry of the check. */
function sitsAt(place: CheckAtPlace, cause: Cause): readonly [number, number] {
  const [from, to] = cause.mode.sits ?? [0, 1];
  const length = cause.stop.toMm - cause.stop.fromMm;
  const entry = place.entryMm ?? 0;
  return [cause.stop.fromMm + from * length - entry, cause.stop.fromMm + to * length - entry];
}

/** A reading may lie this far past the end of the span: the strand was marked a little long. */
const PAST_END_MM = 50;

const spanLength = (place: CheckAtPlace): number => {
  const [low, high] = place.reachMm ?? [0, 1];
  return Math.max(1, high - low);
};

/**
 * Density of a depth given that the strand stopped: at the cause if it is in reach and blocks, anywhere otherwise; whole
 * over the depths that can be read, from 0 to a little past the span.
 */
function depthShape(place: CheckAtPlace, cause: Cause) {
  const longest = spanLength(place) + PAST_END_MM;
  const at = sees(place, cause) ? sitsAt(place, cause) : undefined;
  // A stop that the cause itself does not make (a false alarm) can be anywhere on the span.
  const stray = at ? 0.05 : 1;
  const sd = depthSd(Math.max(0, at?.[1] ?? 0));
  const whole = at ? smearedMass(0, longest, at[0], at[1], sd) : 1;
  return {
    density: (depth: number): number =>
      stray / longest + (at ? ((1 - stray) * smearedPdf(depth, at[0], at[1], sd)) / whole : 0),
    mass: (a: number, b: number): number =>
      (stray * (b - a)) / longest + (at ? ((1 - stray) * smearedMass(a, b, at[0], at[1], sd)) / whole : 0),
  };
}

function quantityShape(place: CheckAtPlace, cause: Cause) {
  const quantity = place.check.quantity;
  if (!quantity) throw new RangeError(`${place.check.id} has no quantity.`);
  const reading = sees(place, cause) ? cause.mode.reads?.[quantity.reads] : undefined;
  const shown = reading ? reading.p * (1 - place.check.miss) : 0;
  const wild = place.check.falseAlarm;
  const { min, max, normal } = quantity;
  // What lies beyond an end of the scale is read as the end.
  const within = (mean: number, sd: number) => normalCdf(max, mean, sd) - normalCdf(min, mean, sd) || 1;
  const mix = (shape: (mean: number, sd: number) => number, flat: number): number =>
    (1 - wild) *
      ((1 - shown) * shape(normal.mean, normal.sd) + (reading ? shown * shape(reading.mean, reading.sd) : 0)) +
    wild * flat;
  return {
    density: (x: number): number => mix((mean, sd) => normalPdf(x, mean, sd) / within(mean, sd), 1 / (max - min)),
    mass: (a: number, b: number): number =>
      mix((mean, sd) => (normalCdf(b, mean, sd) - normalCdf(a, mean, sd)) / within(mean, sd), (b - a) / (max - min)),
  };
}

/** The answers that look-ahead distinguishes. A depth is split at the stations it can point to, a quantity into its bands. */
export function outcomesOf(place: CheckAtPlace, route: Route, catalogue: Catalogue): readonly Outcome[] {
  const { check } = place;
  if (check.asks === 'onset') return catalogue.onsets.map(({ id, label }) => ({ result: id, label }));
  if (check.quantity) {
    const { bands, min, max, unit } = check.quantity;
    const edges = [min, ...bands, max];
    const result = check.results[0]?.id ?? 'value';
    return edges
      .slice(1)
      .map((high, i) => ({ result, label: `${edges[i]} to ${high} ${unit}`, low: edges[i] as number, high }));
  }
  return check.results.flatMap((result): Outcome[] => {
    if (!result.depth) return [{ result: result.id, label: result.label }];
    const entry = place.entryMm ?? 0;
    const stops = [...place.reach]
      .sort((a, b) => a - b)
      .flatMap((index) => route.stops[index] ?? [])
      .filter((stop) => stop.toMm - stop.fromMm >= 0.5);
    return stops.map((stop, i) => ({
      result: result.id,
      label: `Stops in ${stop.station.name}`,
      low: i === 0 ? 0 : stop.fromMm - entry,
      high: i === stops.length - 1 ? spanLength(place) + PAST_END_MM : stop.toMm - entry,
    }));
  });
}

/** P(outcome | cause); over all outcomes of a check the values sum to about one (a depth may fall just outside its span). */
export function outcomeProbability(catalogue: Catalogue, place: CheckAtPlace, outcome: Outcome, cause: Cause): number {
  const { check } = place;
  if (check.asks === 'onset') return onsetLikelihood(catalogue, cause.mode, outcome.result);
  if (check.quantity) return quantityShape(place, cause).mass(outcome.low ?? 0, outcome.high ?? 0);
  const p = resultProbabilities(place, cause)[check.results.findIndex((result) => result.id === outcome.result)] ?? 0;
  if (outcome.low === undefined || outcome.high === undefined) return p;
  return p * depthShape(place, cause).mass(outcome.low, outcome.high);
}

/**
 * Likelihood of a recorded answer: a probability, or for a number a density per mm or unit. Only ratios between causes
 * matter, so the two never mix.
 *
 * @throws RangeError when the check does not give such a result.
 */
export function findingLikelihood(
  catalogue: Catalogue,
  place: CheckAtPlace,
  result: string,
  value: number | undefined,
  cause: Cause,
): number {
  const { check } = place;
  if (check.asks === 'onset') return onsetLikelihood(catalogue, cause.mode, result);
  if (check.quantity) {
    if (value === undefined) throw new RangeError(`"${place.name}" needs a value in ${check.quantity.unit}.`);
    return quantityShape(place, cause).density(value);
  }
  const index = check.results.findIndex((candidate) => candidate.id === result);
  if (index < 0) throw new RangeError(`"${place.name}" has no result "${result}".`);
  const p = resultProbabilities(place, cause)[index] ?? 0;
  if (result !== depthResult(check)?.id) return p;
  return value === undefined ? p : p * depthShape(place, cause).density(value);
}

/** P(symptom reported | cause): noisy-or over what it is a sign of. */
export function symptomLikelihood(catalogue: Catalogue, symptomId: string, cause: Cause): number {
  const symptom = catalogue.symptoms.find((candidate) => candidate.id === symptomId);
  if (!symptom) throw new RangeError(`The catalogue has no symptom "${symptomId}".`);
  let hidden = 1;
  for (const [dimension, values] of Object.entries(symptom.when)) {
    let shown = 0;
    for (const value of values) shown += cause.mode.shows[dimension]?.[value] ?? 0;
    hidden *= 1 - Math.min(1, shown);
  }
  return (1 - hidden) * (1 - symptom.miss) + hidden * symptom.falseAlarm;
}
