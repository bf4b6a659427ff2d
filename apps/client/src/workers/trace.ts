import { wrap, type Remote } from 'comlink';
import type { TraceService } from './trace.worker';

let remote: Remote<TraceService> | undefined;

/** The tracer, off the main thread; started at its first use. */
export function tracer(): Remote<TraceService> {
  remote ??= wrap<TraceService>(new Worker(new URL('./trace.worker.ts', import.meta.url)));
  return remote;
}
