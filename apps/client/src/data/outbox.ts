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
    if (stopped || busy) return;
    // An entry that was refused holds back only the later entries of its own order.
    const { outbox } = store.getState().orders;
    const halted = new Set(outbox.filter((item) => item.problem).map((item) => item.orderId));
    const next = outbox.find((item) => !item.problem && !halted.has(item.orderId));
    if (!next) return;
    busy = true;
    const { orderId, event } = next;
    const result = await store.dispatch(api.endpoints.sendEvent.initiate({ orderId, event }, { track: false }));
    busy = false;
    const error = result.error;
    if (result.data) {
      store.dispatch(connection(true));
      store.dispatch(eventSent({ orderId, event, seq: result.data.seq }));
      void step();
    } else if (
      error &&
      'status' in error &&
      typeof error.status === 'number' &&
      error.status >= 400 &&
      error.status < 500
    ) {
      store.dispatch(connection(true));
      store.dispatch(eventRefused({ eventId: event.id, problem: problemOf(error.data, error.status) }));
      void step();
    } else {
      store.dispatch(connection(false));
      clearTimeout(timer);
      timer = setTimeout(() => void step(), RETRY_MS);
    }
  };

  const unsubscribe = store.subscribe(() => void step());
  void step();
  return () => {
    stopped = true;
    clearTimeout(timer);
    unsubscribe();
  };
}

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
