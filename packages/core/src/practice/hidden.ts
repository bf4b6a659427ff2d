import type { Catalogue, FailureMode, Shows, Symptom } from '../catalogue/types';
import { mayShow } from '../catalogue/index';
import type { Machine } from '../path/machine';
import { laneRuns, routeOf } from '../path/route';
import { causesOf, onsetLikelihood, type Cause } from '../observation/causes';
import type { Case } from '../observation/context';
import { symptomLikelihood } from '../observation/likelihood';
import { gaussian, type Random } from '../quantities/random';
import { ASIDE, FURTHER_SHARE, priorOf } from '../inference/prior';
import { unlistedLikelihood, UNLISTED_SYMPTOM } from '../inference/unlisted';

export type { Random };

/**
 * Uniform on [0, 1), by what it is drawn for. Where the same thing always draws the same number, two policies meet the same
 * answers and cures in an order, and differ by their decisions only.
 */
export type Luck = (what: string) => number;

/**
 * A machine with a fault that nobody has seen, and what its owner says. No fault is one that is on no list; two happen
 * together now and then. The modes show for certain what these faults show, so that two checks of one thing agree but for
 * their own errors.
 */
export interface HiddenOrder {
  /** What the bench knows; its catalogue is the one that the engine believes. */
  readonly kase: Case;
  readonly faults: readonly Cause[];
  /** The catalogue by which the world really behaves. */
  readonly truth: Catalogue;
  /**
   * Of a fault on no list that sits on the path: the listed fault that it is like in all but what an eye sees. An eye that looks straight at
   * its place sees it, and has no word for it. Without, it lies aside of the path.
   */
  readonly like?: Cause;
}

export function pick(weights: ArrayLike<number>, random: Random): number {
  let total = 0;
  for (let i = 0; i < weights.length; i++) total += weights[i] ?? 0;
  let at = random() * total;
  for (let i = 0; i < weights.length; i++) {
    at -= weights[i] ?? 0;
    if (at < 0) return i;
  }
  return weights.length - 1;
}

/** One way in which a mode can show: every dimension at one value, every reading there or not. */
function manifest(mode: FailureMode, random: Random): FailureMode {
  const shows = Object.entries(mode.shows).map(([dimension, values]): [string, Shows] => {
    let at = random();
    const value = Object.entries(values).find(([, p]) => (at -= p) < 0)?.[0];
    return [dimension, value === undefined ? {} : { [value]: 1 }];
  });
  const reads = Object.entries(mode.reads ?? {}).map(([name, reading]) => [
    name,
    { ...reading, p: random() < reading.p ? 1 : 0 },
  ]);
  return { ...mode, shows: Object.fromEntries(shows), reads: Object.fromEntries(reads) as FailureMode['reads'] };
}

/** What an eye would know it by is not there. */
export const withoutEye = ({ dimensions }: Catalogue, mode: FailureMode): FailureMode => ({
  ...mode,
  shows: Object.fromEntries(
    Object.entries(mode.shows).filter(([dimension]) => !dimensions.some(({ id, byEye }) => byEye && id === dimension)),
  ) as FailureMode['shows'],
});

/** Chance that the owner can say when it began (chosen). */
const KNOWS_ONSET = 0.8;

/** Draws are given up after so many: a world in which nobody would complain. */
const MOST_DRAWS = 1000;

/** Whether a symptom is there: a drawn fault shows one of its signs for certain, or never. */
export const hasSymptom = ({ when }: Symptom, mode: FailureMode): boolean => mayShow(mode, when);

/**
 * Whether a fault does anything that somebody could complain of. One that does nothing of the kind passes every test and prints: a machine
 * that has it is not ill.
 */
const troubles = ({ symptoms }: Catalogue, { mode }: Cause): boolean =>
  symptoms.some((symptom) => hasSymptom(symptom, mode));

/**
 * Whether an owner has reason to come: something that is complained of is so. What lies aside of the path is known by its
 * complaints alone, so any will do.
 */
function hasReason({ kase, faults, truth, like }: HiddenOrder): boolean {
  const there = like ? [like] : faults;
  if (there.length === 0) return kase.symptoms.length > 0;
  return truth.symptoms.some(
    (symptom) => kase.symptoms.includes(symptom.id) && there.some(({ mode }) => hasSymptom(symptom, mode)),
  );
}

/**
 * Draws until somebody would bring the machine in: something of what is complained of is so, and every fault does
 * something that could be. Nobody comes for false alarms alone: with two dozen complaints one in ten orders would be such a one.
 *
 * @throws Error
 */
export function drawUntilBrought(draw: () => HiddenOrder): HiddenOrder {
  for (let i = 0; i < MOST_DRAWS; i++) {
    const order = draw();
    if (hasReason(order) && order.faults.every((fault) => troubles(order.truth, fault))) return order;
  }
  throw new Error('Nothing is ever complained of in this world.');
}

/** Draws an order from a world: filament, then one or two causes, then onset and symptoms as they show them. */
export const drawOrder = (
  machine: Machine,
  truth: Catalogue,
  random: Random,
  believed: Catalogue = truth,
): HiddenOrder => drawUntilBrought(() => drawAny(machine, truth, random, believed));

function drawAny(machine: Machine, truth: Catalogue, random: Random, believed: Catalogue): HiddenOrder {
  const materials = truth.materials.filter((material) => material.printC <= machine.heat.limitC);
  // The filament that the catalogue names first is the usual one.
  const usual = materials.map((item) => (item === truth.materials[0] ? 4 : 1));
  const material = materials[pick(usual, random)]?.id;
  const lanes = laneRuns(machine);
  const lane = lanes[Math.floor(random() * lanes.length)]?.id;
  const said = {
    machine,
    ...(lane === undefined ? {} : { lane }),
    ...(material === undefined ? {} : { material }),
    weeksLoaded: Math.floor(random() * 8),
    symptoms: [],
    before: [],
  };
  const route = routeOf(machine, lane);
  const causes = causesOf({ ...said, catalogue: truth }, route);
  const prior = priorOf(causes);
  const first = causes[pick(prior, random)];
  const alike = first ? undefined : causes[pick(prior.slice(0, -1), random)];
  const strange = alike && { ...alike, mode: withoutEye(truth, manifest(alike.mode, random)) };
  const shows = random() >= ASIDE;
  const second = first && random() < FURTHER_SHARE ? causes[pick(prior.slice(0, -1), random)] : undefined;
  const faults = [...new Set([first, second])]
    .filter((cause): cause is Cause => cause !== undefined)
    .map((cause): Cause => ({ ...cause, mode: manifest(cause.mode, random) }));
  faults.sort((a, b) => a.stop.index - b.stop.index);
  const kase: Case = { ...said, catalogue: believed };
  const listed = prior.slice(0, -1);
  const average = (of: (cause: Cause) => number): number =>
    causes.reduce((sum, cause, c) => sum + of(cause) * (listed[c] ?? 0), 0) / listed.reduce((sum, p) => sum + p, 0);
  // What nobody knows behaves as the engine takes it to: like one of the causes, flattened.
  const flattened = (l: number, flat: number): number => unlistedLikelihood(l, { flat, sound: flat, eye: false });
  const odds = truth.onsets.map(({ id }) => {
    const of = (cause: Cause): number => onsetLikelihood(truth, cause.mode, id);
    if (faults.length === 0) return flattened(average(of), 1 / truth.onsets.length);
    return faults.reduce((sum, cause) => sum + of(cause), 0);
  });
  const onset = truth.onsets[pick(odds, random)]?.id;
  const symptoms = truth.symptoms
    .filter(({ id }) => {
      const of = (cause: Cause): number => symptomLikelihood(truth, id, cause);
      if (strange) return random() < flattened(of(strange), UNLISTED_SYMPTOM);
      return faults.some((cause) => random() < of(cause));
    })
    .map(({ id }) => id);
  return {
    kase: {
      ...kase,
      symptoms,
      unseen: truth.symptoms.map(({ id }) => id).filter((id) => !symptoms.includes(id)),
      ...(random() < KNOWS_ONSET && onset !== undefined ? { onset } : {}),
    },
    faults,
    truth,
    ...(strange && shows ? { like: strange } : {}),
  };
}

const logit = (p: number): number => Math.log(p) - Math.log1p(-p);
const logistic = (x: number): number => 1 / (1 + Math.exp(-x));

/** A world that the catalogue has wrong: effects off by log-odds noise of sd 1, weights by a factor 3 either way. */
export function perturbed(catalogue: Catalogue, random: Random, sd = 1, factor = 3): Catalogue {
  const shifted = (p: number): number => {
    const certain = p <= 0 || p >= 1;
    return certain ? p : logistic(logit(p) + sd * gaussian(random));
  };
  return {
    ...catalogue,
    modes: catalogue.modes.map((mode) => ({
      ...mode,
      weight: mode.weight * factor ** (2 * random() - 1),
      shows: Object.fromEntries(
        Object.entries(mode.shows).map(([dimension, values]) => {
          const moved = Object.entries(values).map(([value, p]): [string, number] => [value, shifted(p)]);
          const sum = moved.reduce((total, [, p]) => total + p, 0);
          return [dimension, Object.fromEntries(moved.map(([value, p]) => [value, sum > 1 ? p / sum : p]))];
        }),
      ),
      reads: Object.fromEntries(
        Object.entries(mode.reads ?? {}).map(([name, reading]) => [name, { ...reading, p: shifted(reading.p) }]),
      ),
    })),
  };
}
