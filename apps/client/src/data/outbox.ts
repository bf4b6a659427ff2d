import type { Problem } from '@zealous/contracts/messages';
import { api } from './api';
import { connection, eventRefused, eventSent } from './ordersSlice';
import type { AppStore } from './store';

const RETRY_MS = 1500;

/** Sends what this device recorded, one entry after the other, for as long as it takes. */
export function runOutbox(store: AppStore): () => void {
  let stopped = false;
  let busy = false;
  let timer: ReturnType<typeof setTimeout> | undefined;

  const step = async (): Promise<void> => {
    if (stopped || busy || timer !== undefined) return;
    // An entry that was refused holds back only the later entries of its own order.
    const { outbox } = store.getState().orders;
    const halted = new Set(outbox.filter((item) => item.problem).map((item) => item.orderId));
    const next = outbox.find((item) => !item.problem && !halted.has(item.orderId));
    if (!next) return;
    busy = true;
    const { orderId, event } = next;
    const result = await store.dispatch(api.endpoints.sendEvent.initiate({ orderId, event }, { track: false }));
    const error = result.error;
    if (!result.data && !(error && isRefusal(error))) {
      // Before any dispatch: each one comes back here through the subscription.
      timer = setTimeout(() => {
        timer = undefined;
        void step();
      }, RETRY_MS);
      busy = false;
      store.dispatch(connection(false));
      return;
    }
    store.dispatch(connection(true));
    if (result.data) store.dispatch(eventSent({ orderId, event, seq: result.data.seq }));
    else if (error && isRefusal(error))
      store.dispatch(eventRefused({ eventId: event.id, problem: problemOf(error.data, error.status) }));
    busy = false;
    void step();
  };

  const unsubscribe = store.subscribe(() => void step());
  void step();
  return () => {
    stopped = true;
    clearTimeout(timer);
    unsubscribe();
  };
}

interface Refusal {
  readonly status: number;
  readonly data: unknown;
}

/** An answer that will not change by asking again. */
const isRefusal = (error: object): error is Refusal =>
  'status' in error && typeof error.status === 'number' && error.status >= 400 && error.status < 500;

function problemOf(data: unknown, status: number): Problem {
  if (typeof data === 'object' && data !== null && 'detail' in data) return data as Problem;
  if (typeof data === 'string') {
    try {
      return JSON.parse(data) as Problem;
    } catch {
      // not a problem document
    }
  }
  return {
    type: 'about:blank',
    title: 'Not taken',
    status,
    detail: 'The server did not take this entry. Remove it and record it again.',
  };
}
