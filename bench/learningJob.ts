import { readFileSync } from 'node:fs';
import { parentPort, workerData } from 'node:worker_threads';
import { deliveredCatalogue, type Catalogue } from '@zealous/core';
import { parseMachine } from '@zealous/core/formats';
import { drawOrder, followTracer } from '@zealous/core/practice';
import { luckOf, seeded, taught, withWeights, worldOf } from './worlds';

export interface LearningJob {
  readonly file: string;
  readonly world: number;
  readonly orders: number;
  readonly seed: number;
}

/** What is believed: what was delivered, what was learned, the world as it is, and halves of it. */
export const BELIEFS = ['delivered', 'learned', 'knowing', 'knowing weights', 'knowing shows'] as const;
/** Minutes of the same order, by belief. */
export type Minutes = Readonly<Record<(typeof BELIEFS)[number], number>>;

function run({ file, world, orders, seed }: LearningJob): readonly Minutes[] {
  const machine = parseMachine(JSON.parse(readFileSync(file, 'utf8')));
  const truth = worldOf(seed, world);
  const beliefs: Readonly<Record<keyof Minutes, Catalogue>> = {
    delivered: deliveredCatalogue,
    learned: taught(machine, truth, seed + 31 * world),
    knowing: truth,
    'knowing weights': withWeights(deliveredCatalogue, truth),
    'knowing shows': withWeights(truth, deliveredCatalogue),
  };
  return Array.from({ length: orders }, (_, i): Minutes => {
    const minutes = BELIEFS.map((name) => {
      const hidden = drawOrder(machine, truth, seeded(seed + 1000 * world + i), beliefs[name]);
      return [name, followTracer(hidden, luckOf(seed * 2 + 1000 * world + i), { depth: 2 }).minutes];
    });
    return Object.fromEntries(minutes) as Minutes;
  });
}

parentPort?.postMessage(run(workerData as LearningJob));
