/** One share of `bench:trace`, in a thread of its own: a machine, a world, a policy, some seeds. */
import { readFileSync } from 'node:fs';
import { parentPort, workerData } from 'node:worker_threads';
import { deliveredCatalogue, type Catalogue } from '@zealous/core';
import { parseMachine } from '@zealous/core/formats';
import {
  drawOrder,
  followInformation,
  followTracer,
  HABITS,
  lookByHabit,
  renewByHabit,
  type HiddenOrder,
  type Luck,
  type Tally,
} from '@zealous/core/practice';
import { LEARNED_ORDERS, luckOf, seeded, taught, worldOf } from './worlds';

export type World = 'own' | 'perturbed' | 'wrong findings';
export interface Job {
  readonly file: string;
  readonly world: World;
  readonly policy: string;
  readonly from: number;
  readonly to: number;
  readonly seed: number;
}

export const POLICIES: Readonly<Record<string, (hidden: HiddenOrder, luck: Luck, wrong: number) => Tally>> = {
  'tracer, one step': (hidden, luck, wrong) => followTracer(hidden, luck, { depth: 1, wrong }),
  tracer: (hidden, luck, wrong) => followTracer(hidden, luck, { depth: 2, wrong }),
  'information a minute': (hidden, luck, wrong) => followInformation(hidden, luck, wrong),
  ...Object.fromEntries(
    HABITS.flatMap((habit) => [
      [`${habit.name}, looking`, (h: HiddenOrder, r: Luck, w: number) => lookByHabit(habit, h, r, w)],
      [`${habit.name}, renewing`, (h: HiddenOrder, r: Luck) => renewByHabit(habit, h, r)],
    ]),
  ),
};

export const LEARNED = `tracer, ${LEARNED_ORDERS} orders learned`;
export const KNOWING = 'tracer, knowing the world';
/** Worlds that the catalogue has wrong. */
const WORLDS = 2;

/** Chance that a finding is noted down wrongly, in that world. */
const WRONG = 0.1;

export function run({ file, world, policy, from, to, seed }: Job): readonly Tally[] {
  const machine = parseMachine(JSON.parse(readFileSync(file, 'utf8')));
  const follow = POLICIES[policy === LEARNED || policy === KNOWING ? 'tracer' : policy];
  if (!follow) throw new Error(`no policy ${policy}`);
  const worlds =
    world === 'perturbed' ? Array.from({ length: WORLDS }, (_, w) => worldOf(seed, w)) : [deliveredCatalogue];
  const beliefs = worlds.map((truth) =>
    policy === LEARNED ? taught(machine, truth, seed) : policy === KNOWING ? truth : deliveredCatalogue,
  );
  const tallies: Tally[] = [];
  for (let i = from; i < to; i++) {
    const w = i % worlds.length;
    const hidden = drawOrder(machine, worlds[w] as Catalogue, seeded(seed + i), beliefs[w]);
    tallies.push(follow(hidden, luckOf(seed * 2 + i), world === 'wrong findings' ? WRONG : 0));
  }
  return tallies;
}

if (parentPort) parentPort.postMessage(run(workerData as Job));
