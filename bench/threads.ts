import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { Worker } from 'node:worker_threads';

/** Runs a job of this folder in a thread of its own; the job answers with one message. */
export const inThread = <J, R>(file: string, job: J): Promise<R> =>
  new Promise((resolve, reject) => {
    const worker = new Worker(join(__dirname, file), { workerData: job, execArgv: ['-r', '@swc-node/register'] });
    worker.once('message', resolve);
    worker.once('error', reject);
  });

/** As many at a time as there are processors. */
export async function all<T, R>(items: readonly T[], work: (item: T) => Promise<R>): Promise<readonly R[]> {
  const results: R[] = [];
  let next = 0;
  const runner = async (): Promise<void> => {
    for (let i = next++; i < items.length; i = next++) results[i] = await work(items[i] as T);
  };
  await Promise.all(Array.from({ length: availableParallelism() }, runner));
  return results;
}
