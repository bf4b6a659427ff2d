import { readFileSync } from 'node:fs';
import { parentPort, workerData } from 'node:worker_threads';
import { deliveredCatalogue } from '@zealous/core';
import { parseMachine } from '@zealous/core/formats';
import { drawOrder, followTracer } from '@zealous/core/practice';
import { seeded, taught, worldOf } from './worlds';

export interface LearningJob {
  readonly file: string;
  readonly world: number;
  readonly orders: number;
  readonly seed: number;
}

/** Minutes of the same order with what was delivered, what was learned, and the world as it is. */
export type Triple = readonly [delivered: number, learned: number, knowing: number];

function run({ file, world, orders, seed }: LearningJob): readonly Triple[] {
  const machine = parseMachine(JSON.parse(readFileSync(file, 'utf8')));
  const truth = worldOf(seed, world);
  const beliefs = [deliveredCatalogue, taught(machine, truth, seed + 31 * world), truth];
  return Array.from({ length: orders }, (_, i): Triple => {
    const [delivered, learned, knowing] = beliefs.map(
      (belief) =>
        followTracer(drawOrder(machine, truth, seeded(seed + 1000 * world + i), belief), seeded(seed * 2 + i), {
          depth: 2,
        }).minutes,
    ) as [number, number, number];
    return [delivered, learned, knowing];
  });
}

parentPort?.postMessage(run(workerData as LearningJob));
