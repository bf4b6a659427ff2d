import { proxy, wrap, type Remote } from 'comlink';
import type { RoundReview } from '@zealous/core/practice';
import type { KeptRound, PracticeService } from './practice.worker';

export type { KeptRound } from './practice.worker';

let remote: Remote<PracticeService> | undefined;

/** The practice bench, off the main thread; started at its first use. */
export function practice(): Remote<PracticeService> {
  remote ??= wrap<PracticeService>(new Worker(new URL('./practice.worker.ts', import.meta.url)));
  return remote;
}

export const reviewOf = (round: KeptRound, onStep: (done: number) => void): Promise<RoundReview> =>
  practice().review(round, proxy(onStep));
