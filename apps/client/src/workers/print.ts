import type { DrawnLine, PrintFile, ReadOptions } from '@zealous/core';
import { proxy, wrap, type Remote } from 'comlink';
import type { PrintService } from './print.worker';

export interface Reading<T> {
  readonly done: Promise<T>;
  readonly cancel: () => void;
}

/** Reads off the main thread, in a worker of its own that ends with it: given up, nothing runs on. */
function inWorker<T>(work: (service: Remote<PrintService>) => Promise<T>): Reading<T> {
  const worker = new Worker(new URL('./print.worker.ts', import.meta.url));
  let fail: ((error: Error) => void) | undefined;
  const failed = new Promise<never>((_, reject) => (fail = reject));
  worker.addEventListener('error', () => fail?.(new Error('The file could not be read. Choose it again.')));
  const done = Promise.race([work(wrap<PrintService>(worker)), failed]).finally(() => worker.terminate());
  return {
    done,
    cancel: () => {
      worker.terminate();
      fail?.(new Error('Given up.'));
    },
  };
}

export const readPrint = (file: Blob, options: ReadOptions, onProgress: (share: number) => void): Reading<PrintFile> =>
  inWorker((service) => service.read(file, options, proxy(onProgress)));

export const drawLayer = (file: Blob, strandMm: number, layer: number): Reading<readonly DrawnLine[]> =>
  inWorker((service) => service.draw(file, strandMm, layer));
