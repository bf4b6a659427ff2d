/** One share of `bench:trace`, in a thread of its own: a machine, a world, a policy, some seeds. */
import { readFileSync } from 'node:fs';
import { parentPort, workerData } from 'node:worker_threads';
import { mersenne, unsafeUniformIntDistribution } from 'pure-rand';
import { deliveredCatalogue } from '@zealous/core';
import { parseMachine } from '@zealous/core/formats';
import {
  drawOrder,
  followInformation,
  followTracer,
  HABITS,
  lookByHabit,
  perturbed,
  renewByHabit,
  type HiddenOrder,
  type Random,
  type Tally,
} from '@zealous/core/practice';

export type World = 'own' | 'perturbed' | 'wrong findings';
export interface Job {
  readonly file: string;
  readonly world: World;
  readonly policy: string;
  readonly from: number;
  readonly to: number;
  readonly seed: number;
}

export function seeded(seed: number): Random {
  const generator = mersenne(seed);
  return () => unsafeUniformIntDistribution(0, 0x7fffffff, generator) / 0x80000000;
}

export const POLICIES: Readonly<Record<string, (hidden: HiddenOrder, random: Random, wrong: number) => Tally>> = {
  'tracer, one step': (hidden, random, wrong) => followTracer(hidden, random, { depth: 1, wrong }),
  tracer: (hidden, random, wrong) => followTracer(hidden, random, { depth: 2, wrong }),
  'information a minute': (hidden, random, wrong) => followInformation(hidden, random, wrong),
  ...Object.fromEntries(
    HABITS.flatMap((habit) => [
      [`${habit.name}, looking`, (h: HiddenOrder, r: Random, w: number) => lookByHabit(habit, h, r, w)],
      [`${habit.name}, renewing`, (h: HiddenOrder, r: Random) => renewByHabit(habit, h, r)],
    ]),
  ),
};

/** Chance that a finding is noted down wrongly, in that world. */
const WRONG = 0.1;

export function run({ file, world, policy, from, to, seed }: Job): readonly Tally[] {
  const machine = parseMachine(JSON.parse(readFileSync(file, 'utf8')));
  const follow = POLICIES[policy];
  if (!follow) throw new Error(`no policy ${policy}`);
  const tallies: Tally[] = [];
  for (let i = from; i < to; i++) {
    // Every tenth order comes from another world that the catalogue has wrong.
    const truth =
      world === 'perturbed' ? perturbed(deliveredCatalogue, seeded(seed * 7 + (i % 10))) : deliveredCatalogue;
    const hidden = drawOrder(machine, truth, seeded(seed + i), deliveredCatalogue);
    tallies.push(follow(hidden, seeded(seed * 2 + i), world === 'wrong findings' ? WRONG : 0));
  }
  return tallies;
}

if (parentPort) parentPort.postMessage(run(workerData as Job));
