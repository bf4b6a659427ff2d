import type { Catalogue, Check, CheckResult, Quantity } from '../catalogue/types';
import type { Route } from '../path/route';
import { onsetLikelihood, type Cause } from './causes';
import { lookOf, symptomLook, type Look } from './looks';
import type { CheckAtPlace } from '../bench/places';
import { normalCdf, normalPdf, smearedMass, smearedPdf } from '../quantities/normal';
import { allWays, resultShares } from './ways';

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

/** Share of the misses in which a fault is seen but taken for another one (chosen). */
const MISTAKEN = 0.2;

/**
 * Chance that one result is given although no fault shows it: an error of the check, or what sound machines have too. That something is wrong
 * which has no word is not said in error.
 */
const falseTick = (check: Check, { innocent = 0, ownWords }: CheckResult): number =>
  innocent + (ownWords ? 0 : check.falseAlarm / (check.results.length - 1));

/** P(answer | what there is to be seen), for named results. */
function answered(check: Check, answer: number, seen: number): number {
  const normal = check.results.length - 1;
  if (seen === normal) {
    const chances = check.results.slice(0, -1).map((result) => falseTick(check, result));
    return answer === normal ? 1 - chances.reduce((sum, p) => sum + p, 0) : (chances[answer] ?? 0);
  }
  if (answer === seen) return 1 - check.miss;
  const others = normal - 1;
  const mistaken = others > 0 ? check.miss * MISTAKEN : 0;
  return answer === normal ? check.miss - mistaken : mistaken / others;
}

/** Indices of the results that an answer may mean: one, but for an answer that the check gives no more. */
function meant({ results, earlier = [] }: Check, id: string): readonly number[] {
  const at = results.findIndex((result) => result.id === id);
  if (at >= 0) return [at];
  const stands = earlier.find((known) => known.id === id)?.stands ?? [];
  return results.flatMap((result, index) => (stands.includes(result.id) ? [index] : []));
}

/** P(one of these answers | what there is to be seen), for named results. */
const answeredAny = (check: Check, answers: readonly number[], seen: number): number =>
  answers.reduce((sum, answer) => sum + answered(check, answer, seen), 0);

const depthResult = (check: Check): CheckResult | undefined => check.results.find((result) => result.depth);

/** Where the cause sits, mm from the entry of the check. */
function sitsAt(place: CheckAtPlace, cause: Cause): readonly [number, number] {
  const [from, to] = cause.mode.sits ?? [0, 1];
  const length = cause.stop.toMm - cause.stop.fromMm;
  const entry = place.entryMm ?? 0;
  const [near, far] = [cause.stop.fromMm + from * length, cause.stop.fromMm + to * length];
  return place.check.reach === 'upward' ? [entry - far, entry - near] : [near - entry, far - entry];
}

/** A reading may lie this far past the end of the span: the strand was marked a little long. */
const PAST_END_MM = 50;

const spanLength = (place: CheckAtPlace): number => {
  const [low, high] = place.reachMm ?? [0, 1];
  return Math.max(1, high - low);
};

/** How a number is spread: its density, and its mass over an interval. */
interface Spread {
  readonly density: (x: number) => number;
  readonly mass: (low: number, high: number) => number;
}

/** Where a strand stops that something else than the cause stops: anywhere on the span and a little past it. */
function strayDepth(place: CheckAtPlace): Spread {
  const longest = spanLength(place) + PAST_END_MM;
  return { density: () => 1 / longest, mass: (low, high) => (high - low) / longest };
}

/** Share of stops at a cause that are read off wrongly by more than their spread (chosen). */
const MISREAD = 0.03;

/** Where a strand stops at a cause: over its place in the station, whole over the depths that can be read. */
function depthAt(place: CheckAtPlace, cause: Cause): Spread {
  const longest = spanLength(place) + PAST_END_MM;
  const [from, to] = sitsAt(place, cause);
  const sd = depthSd(Math.max(0, to));
  const whole = smearedMass(0, longest, from, to, sd);
  const stray = strayDepth(place);
  return {
    density: (x) => MISREAD * stray.density(x) + ((1 - MISREAD) * smearedPdf(x, from, to, sd)) / whole,
    mass: (low, high) =>
      MISREAD * stray.mass(low, high) + ((1 - MISREAD) * smearedMass(low, high, from, to, sd)) / whole,
  };
}

/** A measured value around a mean, within the scale; what lies beyond an end of the scale is read as the end. */
function around(quantity: Quantity, mean: number, sd: number, wild: number): Spread {
  const { min, max } = quantity;
  const within = normalCdf(max, mean, sd) - normalCdf(min, mean, sd) || 1;
  return {
    density: (x) => ((1 - wild) * normalPdf(x, mean, sd)) / within + wild / (max - min),
    mass: (low, high) =>
      ((1 - wild) * (normalCdf(high, mean, sd) - normalCdf(low, mean, sd))) / within +
      (wild * (high - low)) / (max - min),
  };
}

/** What a sound machine would read here. */
function soundReading(place: CheckAtPlace): Spread {
  const { quantity, falseAlarm } = place.check;
  if (!quantity) throw new RangeError(`${place.check.id} has no quantity.`);
  const normal = place.normal ?? quantity.normal;
  return around(quantity, normal.mean, normal.sd, falseAlarm);
}

/** What a sound machine would read here, and what it would read under a cause. */
function readings(place: CheckAtPlace, cause: Cause): { readonly sound: Spread; readonly off: Spread } {
  const quantity = place.check.quantity;
  if (!quantity) throw new RangeError(`${place.check.id} has no quantity.`);
  const normal = place.normal ?? quantity.normal;
  const wild = place.check.falseAlarm;
  const reading = cause.mode.reads?.[quantity.reads];
  const times = reading?.relative ? normal.mean : 1;
  const sound = soundReading(place);
  const off = reading ? around(quantity, reading.mean * times, reading.sd * times, wild) : sound;
  return { sound, off };
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
    const up = check.reach === 'upward';
    const met = up ? [...stops].reverse() : stops;
    return met.map((stop, i) => ({
      result: result.id,
      label: `Stops in ${stop.station.name}`,
      low: i === 0 ? 0 : up ? entry - stop.toMm : stop.fromMm - entry,
      high: i === met.length - 1 ? spanLength(place) + PAST_END_MM : up ? entry - stop.fromMm : stop.toMm - entry,
    }));
  });
}

/** An answer as recorded, with its number, or as look-ahead thinks of it, with a band. */
export interface Answer {
  readonly result: string;
  readonly value?: number;
  readonly low?: number;
  readonly high?: number;
}

/** By what there is to be seen, or one number where the way in which the cause shows does not matter. */
export type Given = readonly number[] | number;

/**
 * How likely answers of a check are under a cause: one entry a result of the check's look when the cause lies within
 * reach; one number where what is seen does not depend on the way in which the cause shows. A probability, or for a
 * recorded number its density against an even spread over what can be read: free of units, so that a weight on it means the
 * same whatever the unit is.
 *
 * @throws RangeError (from the function returned) when the check does not give such a result, or a measured value is missing.
 */
export function answersUnder(catalogue: Catalogue, place: CheckAtPlace, cause: Cause): (answer: Answer) => Given {
  const { check } = place;
  if (check.asks === 'onset') return (answer) => onsetLikelihood(catalogue, cause.mode, answer.result);
  const reached = sees(place, cause);
  const at = (spread: Spread, answer: Answer): number => said(place, spread, answer);
  if (check.quantity) {
    const { sound, off } = readings(place, cause);
    const { unit } = check.quantity;
    return (answer) => {
      if (answer.value === undefined && answer.low === undefined)
        throw new RangeError(`"${place.name}" needs a value in ${unit}.`);
      const soundAt = at(sound, answer);
      return reached ? [(1 - check.miss) * at(off, answer) + check.miss * soundAt, soundAt] : soundAt;
    };
  }
  const indicesOf = (answer: Answer): readonly number[] => {
    const indices = meant(check, answer.result);
    if (indices.length === 0) throw new RangeError(`"${place.name}" has no result "${answer.result}".`);
    return indices;
  };
  if (check.swap) {
    const cured = reached || cause.mode.curedBySwap?.includes(check.id) ? 1 - check.miss : check.falseAlarm;
    return (answer) => (indicesOf(answer).includes(0) ? cured : 1 - cured);
  }
  const deepest = depthResult(check)?.id;
  const here = deepest !== undefined && reached ? depthAt(place, cause) : undefined;
  const stray = strayDepth(place);
  const normal = check.results.length - 1;
  return (answer) => {
    const indices = indicesOf(answer);
    const deep = answer.result === deepest && (answer.value !== undefined || answer.low !== undefined);
    const elsewhere = deep ? at(stray, answer) : 1;
    if (!reached) return answeredAny(check, indices, normal) * elsewhere;
    const mine = deep && here ? at(here, answer) : 1;
    return check.results.map(
      (_, seen) => answeredAny(check, indices, seen) * (indices.includes(seen) ? mine : elsewhere),
    );
  };
}

/** P(answer | nothing within reach of the check is at fault): only its own errors, and what sound machines may show. */
export function soundAnswer(place: CheckAtPlace, answer: Answer): number {
  const { check } = place;
  if (check.quantity) return said(place, soundReading(place), answer);
  const indices = meant(check, answer.result);
  const deep =
    indices.some((index) => check.results[index]?.depth) && (answer.value !== undefined || answer.low !== undefined);
  return answeredAny(check, indices, check.results.length - 1) * (deep ? said(place, strayDepth(place), answer) : 1);
}

/** P(answer | no fault within reach); where nothing is left at all, a swap finds the machine well. */
export const soundUnder = (place: CheckAtPlace, answer: Answer): number => {
  if (place.check.swap) return answer.result === place.check.results[0]?.id ? 1 : 0;
  return place.check.asks ? 1 : soundAnswer(place, answer);
};

/** A band by its mass; a recorded number by its density against an even spread. */
const said = (place: CheckAtPlace, spread: Spread, { low, high, value }: Answer): number =>
  low !== undefined && high !== undefined ? spread.mass(low, high) : spread.density(value ?? NaN) * readable(place);

/** Share of what can be read that a band takes up; 1 where the answer has no number. */
export const shareOfRange = (place: CheckAtPlace, { low, high }: Outcome): number =>
  low === undefined || high === undefined ? 1 : (high - low) / readable(place);

/** How much there is to be read, in the unit of the check. */
const readable = (place: CheckAtPlace): number =>
  place.check.quantity ? place.check.quantity.max - place.check.quantity.min : spanLength(place) + PAST_END_MM;

/** P(ticked, or not, in a finished look | the thing is there; it is not there). */
export function itemGiven(check: Check, result: CheckResult, ticked: boolean): readonly [number, number] {
  const chance = falseTick(check, result);
  return ticked ? [1 - check.miss, chance] : [check.miss, 1 - chance];
}

/**
 * By cause, in which order a check meets faults that show alike: a strand stops at the first one that blocks it; of two
 * faults that both put a reading off, the one that puts it off further is what is read. Undefined where it makes no difference.
 */
export function metFirst(place: CheckAtPlace, causes: readonly Cause[]): readonly number[] | undefined {
  const { check } = place;
  if (check.quantity) {
    const { reads, normal: usual } = check.quantity;
    const normal = place.normal ?? usual;
    return causes.map(({ mode }) => {
      const reading = mode.reads?.[reads];
      if (!reading) return 0;
      return -Math.abs(reading.mean * (reading.relative ? normal.mean : 1) - normal.mean) / normal.sd;
    });
  }
  if (!depthResult(check)) return undefined;
  return causes.map(({ stop }) => (check.reach === 'upward' ? -stop.index : stop.index));
}

/** Over every way in which a cause may show; nothing else known. */
export const overall = (look: Look | undefined, cause: Cause, given: Given): number =>
  typeof given === 'number' || !look
    ? Number(given)
    : resultShares(allWays(cause.mode), look).reduce((sum, share, k) => sum + share * (given[k] ?? 0), 0);

/** Whether what a check says of a cause within its reach is the same for all causes that show alike: no depth, no number. */
export const saysAlike = ({ results, quantity, swap, asks }: Check): boolean =>
  !quantity && !swap && !asks && !results.some((result) => result.depth);

/** P(answer | cause), over every way in which it may show; nothing else known. */
export const answerLikelihood = (catalogue: Catalogue, place: CheckAtPlace, answer: Answer, cause: Cause): number =>
  overall(lookOf(place.check), cause, answersUnder(catalogue, place, cause)(answer));

/** P(symptom seen, or looked for and not seen | what there is to be seen): it is, or it is not. */
export function symptomGiven(
  catalogue: Catalogue,
  symptomId: string,
  reported = true,
): { look: Look; given: readonly number[] } {
  const symptom = catalogue.symptoms.find((candidate) => candidate.id === symptomId);
  if (!symptom) throw new RangeError(`The catalogue has no symptom "${symptomId}".`);
  const { miss, falseAlarm } = symptom;
  return { look: symptomLook(symptom), given: reported ? [1 - miss, falseAlarm] : [miss, 1 - falseAlarm] };
}

/** P(symptom reported | cause). */
export function symptomLikelihood(catalogue: Catalogue, symptomId: string, cause: Cause): number {
  const { look, given } = symptomGiven(catalogue, symptomId);
  return overall(look, cause, given);
}
