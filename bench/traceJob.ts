/** One share of `bench:trace`, in a thread of its own: a machine, a world, a policy, some seeds. */
import { readFileSync } from 'node:fs';
import { parentPort, workerData } from 'node:worker_threads';
import { deliveredCatalogue } from '@zealous/core';
import { parseMachine } from '@zealous/core/formats';
import {
  drawOrder,
  followInformation,
  followTracer,
  HABITS,
  lookByHabit,
  renewByHabit,
  type BenchNature,
  type HiddenOrder,
  type Luck,
  type Tally,
  type Told,
} from '@zealous/core/practice';
import { followTechnician } from './fairTechnician';
import { drawOther, OTHER_BENCH, otherTruth } from './otherWorld';
import { LEARNED_ORDERS, luckOf, seeded, taught, worldOf } from './worlds';

export type World = 'own' | 'perturbed' | 'wrong findings' | 'other';
export interface Job {
  readonly file: string;
  readonly world: World;
  readonly policy: string;
  readonly from: number;
  readonly to: number;
  readonly seed: number;
}

type Follow = (hidden: HiddenOrder, luck: Luck, nature: BenchNature) => Tally & Partial<Told>;
export const POLICIES: Readonly<Record<string, Follow>> = {
  tracer: (hidden, luck, nature) => followTracer(hidden, luck, { depth: 2, ...nature }),
  'fair technician': followTechnician,
  'tracer, one step': (hidden, luck, nature) => followTracer(hidden, luck, { depth: 1, ...nature }),
  'information a minute': followInformation,
  ...Object.fromEntries(
    HABITS.flatMap((habit): [string, Follow][] => [
      [`${habit.name}, looking`, (h, r, nature) => lookByHabit(habit, h, r, nature)],
      [`${habit.name}, renewing`, (h, r, nature) => renewByHabit(habit, h, r, nature)],
    ]),
  ),
};

export const LEARNED = `tracer, ${LEARNED_ORDERS} orders learned`;
export const KNOWING = 'tracer, knowing the world';
/** Worlds that the catalogue has wrong. */
const WORLDS = 2;

/** Farther apart than any number of orders asked for. */
const STRIDE = 100_000;

/** Chance that a finding is noted down wrongly, in that world. */
const WRONG = 0.1;

export function run({ file, world, policy, from, to, seed }: Job): readonly (Tally & Partial<Told>)[] {
  const machine = parseMachine(JSON.parse(readFileSync(file, 'utf8')));
  const follow = POLICIES[policy === LEARNED || policy === KNOWING ? 'tracer' : policy];
  if (!follow) throw new Error(`no policy ${policy}`);
  const worlds =
    world === 'perturbed' ? Array.from({ length: WORLDS }, (_, w) => worldOf(seed, w)) : [deliveredCatalogue];
  const beliefs = worlds.map((truth) =>
    policy === LEARNED ? taught(machine, truth, seed) : policy === KNOWING ? truth : deliveredCatalogue,
  );
  const nature = world === 'other' ? OTHER_BENCH : world === 'wrong findings' ? { wrong: WRONG } : {};
  const draw = world === 'other' ? drawOther : drawOrder;
  const tallies: (Tally & Partial<Told>)[] = [];
  for (let i = from; i < to; i++) {
    const w = i % worlds.length;
    // Each machine draws its own: with one seed for all, the orders that are on no list would be the same on every machine.
    const own =
      seed + i + STRIDE * [...machine.id].reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0)) % 9973, 7);
    // Each order lies in another catalogue of its own: with one for many, how far that one happens to be off decides the row.
    const truth = world === 'other' ? otherTruth(deliveredCatalogue, seeded(own * 11)) : worlds[w];
    const hidden = draw(machine, truth ?? deliveredCatalogue, seeded(own), beliefs[w] ?? deliveredCatalogue);
    tallies.push(follow(hidden, luckOf(own), nature));
  }
  return tallies;
}

if (parentPort) parentPort.postMessage(run(workerData as Job));
