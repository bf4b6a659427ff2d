import type { Lesson } from '@zealous/core';
import { resolve } from 'node:path';
import Piscina from 'piscina';
import type { OrderIndex } from '../db/entities';
import { Busy, Problem } from '../http/problem';
import type { IndexTask, PdfTask } from './tasks';

/** Milliseconds after which a task is given up and its thread ended. */
const LIMIT_MS = 20_000;
/** A thread that begins translates the whole computation. */
const BEGINS_MS = 90_000;
/** One beside the one that answers: small machines have two cores, and each thread holds the whole computation in memory. */
const THREADS = 1;
const QUEUE = 64;

let pool: Piscina | undefined;

/** Threads for work that would hold the event loop; made when they are first needed. */
const threads = (): Piscina =>
  (pool ??= new Piscina({
    filename: resolve(__dirname, 'worker.cjs'),
    minThreads: 1,
    maxThreads: THREADS,
    maxQueue: QUEUE,
    idleTimeout: 30_000,
    resourceLimits: { maxOldGenerationSizeMb: 256 },
  }));

/** @throws Busy when too much waits, Problem 503 when it takes too long */
async function run<T>(name: string, task: object, limitMs = LIMIT_MS): Promise<T> {
  try {
    return (await threads().run(task, { name, signal: AbortSignal.timeout(limitMs) })) as T;
  } catch (error) {
    const { name: kind, message } = error as Error;
    if (kind === 'AbortError' || kind === 'TimeoutError')
      throw new Problem(503, 'Took too long', 'This took too long and was given up. Try again; nothing was changed.');
    // Full, or ended because the server stops.
    if (/queue|Terminating/i.test(message)) throw new Busy();
    throw error;
  }
}

const bytesOf = async (name: 'record' | 'owner', task: PdfTask): Promise<Buffer> =>
  Buffer.from(await run<Uint8Array>(name, task));

export const recordSheet = (task: PdfTask): Promise<Buffer> => bytesOf('record', task);
export const ownerSheet = (task: PdfTask): Promise<Buffer> => bytesOf('owner', task);
export const indexInThread = (task: IndexTask): Promise<OrderIndex> => run('index', task);

/** What an order teaches; whoever closes it waits for a thread that only begins. */
export const lessonInThread = (task: IndexTask): Promise<Lesson | undefined> => run('lesson', task, BEGINS_MS);

/** Ends the threads. */
export async function closePool(): Promise<void> {
  const open = pool;
  pool = undefined;
  await open?.destroy();
}
