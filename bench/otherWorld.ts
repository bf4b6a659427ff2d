/**
 * A world of other structure than the engine takes it to have, written apart from `practice/`: how bad a fault is moves all its sides
 * together, errors of checks do not repeat, rates are off, more faults are on no list, and taking everything apart takes longer.
 */
import {
  causesOf,
  laneRuns,
  routeOf,
  type Case,
  type Catalogue,
  type Cause,
  type FailureMode,
  type Machine,
} from '@zealous/core';
import {
  drawUntilBrought,
  hasSymptom,
  perturbed,
  withoutEye,
  type BenchNature,
  type HiddenOrder,
  type Random,
} from '@zealous/core/practice';

/** Log-odds noise of every rate; share of faults on no list, of two at once; all as an independent check of the engine had them. */
const RATES_SD = 0.8;
const UNLISTED = 0.08;
const TWO = 0.1;
/** Of the faults on no list, those that sit somewhere on the path and show to an eye there: two of four in the cases from practice. */
const SEEN = 0.5;
const KNOWS_ONSET = 0.8;
const MOST_WEEKS = 8;

export const OTHER_BENCH: BenchNature = { independent: true, apartFactor: 1.5 };

export const otherTruth = (catalogue: Catalogue, random: Random): Catalogue =>
  perturbed(catalogue, random, RATES_SD, 1);

const pick = <T>(list: readonly T[], weight: (item: T) => number, random: Random): T | undefined => {
  let at = random() * list.reduce((sum, item) => sum + weight(item), 0);
  return list.find((item) => (at -= weight(item)) < 0) ?? list.at(-1);
};

/** One severity for the whole fault: where it is bad, everything that it may show is shown. */
function manifest(mode: FailureMode, severity: number): FailureMode {
  const shows = Object.entries(mode.shows).map(([dimension, values]) => {
    const any = Object.values(values).reduce((sum, p) => sum + p, 0);
    // The rarest value is that of the worst case.
    const order = Object.entries(values).sort((a, b) => a[1] - b[1]);
    let at = severity;
    const value = severity < any ? order.find(([, p]) => (at -= p) < 0)?.[0] : undefined;
    return [dimension, value === undefined ? {} : { [value]: 1 }];
  });
  const reads = Object.entries(mode.reads ?? {}).map(([name, reading]) => [
    name,
    { ...reading, p: severity < reading.p ? 1 : 0 },
  ]);
  return {
    ...mode,
    shows: Object.fromEntries(shows) as FailureMode['shows'],
    reads: Object.fromEntries(reads) as FailureMode['reads'],
  };
}

export const drawOther = (machine: Machine, truth: Catalogue, random: Random, believed: Catalogue): HiddenOrder =>
  drawUntilBrought(() => drawAny(machine, truth, random, believed));

function drawAny(machine: Machine, truth: Catalogue, random: Random, believed: Catalogue): HiddenOrder {
  const lanes = laneRuns(machine);
  const lane = lanes[Math.floor(random() * lanes.length)]?.id;
  const materials = truth.materials.filter(({ printC }) => printC <= machine.heat.limitC);
  const material = pick(materials, ({ id }) => (id === 'PLA' ? 4 : 1), random)?.id;
  const said: Case = {
    machine,
    catalogue: believed,
    symptoms: [],
    before: [],
    weeksLoaded: Math.floor(random() * MOST_WEEKS),
    ...(lane === undefined ? {} : { lane }),
    ...(material === undefined ? {} : { material }),
  };
  const causes = causesOf({ ...said, catalogue: truth }, routeOf(machine, lane));
  const one = (): Cause | undefined => pick(causes, ({ weight }) => weight, random);
  const drawn = random() < UNLISTED ? [] : random() < TWO ? [one(), one()] : [one()];
  const faults = [...new Set(drawn)]
    .filter((cause): cause is Cause => cause !== undefined)
    .map((cause): Cause => ({ ...cause, mode: manifest(cause.mode, random()) }))
    .sort((a, b) => a.stop.index - b.stop.index);
  // What is on no list makes the complaint of something that is: the owner takes it for a fault of the filament path.
  const alike = faults.length === 0 ? one() : undefined;
  const strange = alike && { ...alike, mode: withoutEye(truth, manifest(alike.mode, random())) };
  const complaint = strange ? [strange] : faults;
  const symptoms = truth.symptoms
    .filter((symptom) => {
      const there = complaint.some(({ mode }) => hasSymptom(symptom, mode));
      return random() < (there ? 1 - symptom.miss : symptom.falseAlarm);
    })
    .map(({ id }) => id);
  const seen = random() < SEEN;
  const [first] = faults;
  const onset = pick(truth.onsets, ({ id }) => first?.mode.onset?.[id] ?? 1, random)?.id;
  return {
    kase: {
      ...said,
      symptoms,
      unseen: truth.symptoms.map(({ id }) => id).filter((id) => !symptoms.includes(id)),
      ...(onset !== undefined && random() < KNOWS_ONSET ? { onset } : {}),
    },
    faults,
    truth,
    ...(strange && seen ? { like: strange } : {}),
  };
}
