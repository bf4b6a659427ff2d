import type { Problem } from '@zealous/contracts/messages';
import { api } from './api';
import {
  connection,
  eventRefused,
  eventSent,
  eventStuck,
  keepingChanged,
  outboxRead,
  type OrdersState,
  type Unsent,
} from './ordersSlice';
import { allUnsent, alone, askToPersist, forget, jot, keep, release, windows, type Windows } from './outboxStore';
import type { AppStore } from './store';

/** Between two tries: soon, then less and less often, ms. */
const RETRY_MS = [1500, 1500, 3000, 6000, 12_000, 30_000] as const;
/** After so many answers that say "not now" it is told that the entry is stuck. */
const STUCK_AFTER = 5;
const waitAfter = (tries: number): number => RETRY_MS[Math.min(tries, RETRY_MS.length) - 1] ?? RETRY_MS[0];

/**
 * So long an entry that was recorded has for being drawn, ms: writing its row and sending it would take the thread from that. It has been
 * written down already by then.
 */
export const DRAWN_FIRST_MS = 200;

/** Keeps the rows of this device and the entries of this window the same. */
function mirror(store: AppStore, others: Windows): () => void {
  let last: OrdersState['outbox'] = [];
  let asked = false;
  const changed = async (now: OrdersState['outbox']): Promise<void> => {
    const before = new Map(last.map((item) => [item.event.id, item]));
    const after = new Set(now.map((item) => item.event.id));
    const put = now.filter((item) => before.get(item.event.id) !== item);
    const gone = last.filter((item) => !after.has(item.event.id));
    last = now;
    if (put.length > 0 && !asked) {
      asked = true;
      void askToPersist();
    }
    // One after the other: the rows stand in the order in which they were recorded.
    for (const item of put) {
      const how = await keep(item);
      if (how !== store.getState().orders.keeping) store.dispatch(keepingChanged(how));
    }
    for (const item of gone) await forget(item.event.id);
    if (put.length + gone.length > 0) others.tell({ kind: 'changed' });
  };
  let work: Promise<void> = Promise.resolve();
  let noticed = last;
  let due: ReturnType<typeof setTimeout> | undefined;
  /** The rows in their turn: all that has come together by then. */
  const keepRows = (): void => {
    clearTimeout(due);
    due = undefined;
    work = work.then(() => changed(store.getState().orders.outbox)).catch(() => undefined);
  };
  const look = (): void => {
    const { outbox, fromRows } = store.getState().orders;
    if (outbox === noticed) return;
    const before = noticed;
    noticed = outbox;
    if (outbox === fromRows) {
      work = work.then(() => void (last = outbox));
      return;
    }
    // The journal at once; what cannot be written there is not kept waiting, nor what was sent and goes.
    const jotted = outbox.filter((item) => !before.includes(item)).map(jot);
    if (jotted.length > 0 && jotted.every(Boolean)) due ??= setTimeout(keepRows, DRAWN_FIRST_MS);
    else keepRows();
  };
  return store.subscribe(look);
}

/** Sends what this device recorded, one entry after the other, for as long as it takes. */
export function runOutbox(store: AppStore): () => void {
  let stopped = false;
  // One after the other: an older look at the rows must not come after a newer one and take entries away.
  let reading: Promise<void> = Promise.resolve();
  const read = (): Promise<void> =>
    (reading = reading.then(async () => {
      const rows = await allUnsent();
      if (!stopped) store.dispatch(outboxRead(rows));
    }));
  const others = windows((told) => {
    if (told.kind === 'sent') store.dispatch(eventSent(told));
    else void read();
  });
  const unmirror = mirror(store, others);
  const first = read();
  const giveUp = alone(async (ended) => {
    await first;
    const end = sendAll(store, others);
    await ended;
    end();
  });
  return () => {
    stopped = true;
    giveUp();
    unmirror();
    others.close();
    void first.then(release);
  };
}

function sendAll(store: AppStore, others: Windows): () => void {
  let stopped = false;
  let busy = false;
  let away = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;
  /** By order, until when it rests after an answer that said "not now". */
  const rests = new Map<string, number>();
  const tries = new Map<string, number>();

  const later = (ms: number): void => {
    clearTimeout(timer);
    timer = setTimeout(() => {
      timer = undefined;
      void step();
    }, ms);
  };

  const next = (): Unsent | undefined => {
    const { outbox } = store.getState().orders;
    // An entry that was refused, or waits, holds back only the later entries of its own order.
    const halted = new Set(outbox.filter((item) => item.problem && !item.problem.passing).map((item) => item.orderId));
    const now = Date.now();
    const open = outbox.filter(({ orderId }) => !halted.has(orderId));
    const ready = open.find(({ orderId }) => (rests.get(orderId) ?? 0) <= now);
    if (!ready && open.length > 0)
      later(Math.max(1, Math.min(...open.map(({ orderId }) => rests.get(orderId) ?? 0)) - now));
    return ready;
  };

  const step = async (): Promise<void> => {
    if (stopped || busy || timer !== undefined) return;
    const item = next();
    if (!item) return;
    busy = true;
    const { orderId, event } = item;
    const result = await store.dispatch(api.endpoints.sendEvent.initiate({ orderId, event }, { track: false }));
    if (stopped) return;
    // Busy until all is dispatched: each dispatch comes back here through the subscription.
    const { error } = result;
    if (result.data) {
      away = 0;
      tries.delete(event.id);
      rests.delete(orderId);
      store.dispatch(connection(true));
      others.tell({ kind: 'sent', orderId, event, seq: result.data.seq });
      store.dispatch(eventSent({ orderId, event, seq: result.data.seq }));
    } else if (error && isAnswer(error)) {
      away = 0;
      store.dispatch(connection(!isAway(error.status)));
      const problem = problemOf(error.data, error.status);
      if (passes(error.status)) {
        const count = (tries.get(event.id) ?? 0) + 1;
        tries.set(event.id, count);
        rests.set(orderId, Date.now() + waitAfter(count));
        if (count >= STUCK_AFTER) store.dispatch(eventStuck({ eventId: event.id, problem }));
      } else store.dispatch(eventRefused({ eventId: event.id, problem }));
    } else {
      later(waitAfter(++away));
      store.dispatch(connection(false));
    }
    busy = false;
    void step();
  };

  const unsubscribe = store.subscribe(() => {
    if (!busy && timer === undefined && store.getState().orders.outbox.length > 0) later(DRAWN_FIRST_MS);
  });
  void step();
  return () => {
    stopped = true;
    clearTimeout(timer);
    unsubscribe();
  };
}

interface Answer {
  readonly status: number;
  readonly data: unknown;
}
const isAnswer = (error: object): error is Answer => 'status' in error && typeof error.status === 'number';

/** Answers of whatever stands before a server that is away. */
const isAway = (status: number): boolean => status === 502 || status === 503 || status === 504;

/**
 * Whether the same entry may be taken later (RFC 9110, 15.5 and 15.6; RFC 8470; RFC 6585): a request that timed out, came too
 * early or too often, or a server in trouble. Everything else is an answer about the entry itself.
 */
const passes = (status: number): boolean => status === 408 || status === 425 || status === 429 || status >= 500;

const MEANS: Readonly<Record<number, string>> = {
  401: 'The server wants to know who you are. Sign in, then try again; the entry is kept.',
  403: 'The server takes no changes from here. Open it by its own address, then try again; the entry is kept.',
  413: 'The entry is larger than the server takes. Shorten it, or save it and record it in parts.',
};

function problemOf(data: unknown, status: number): Problem {
  if (typeof data === 'object' && data !== null && 'detail' in data) return data as Problem;
  if (typeof data === 'string') {
    try {
      const problem: unknown = JSON.parse(data);
      if (typeof problem === 'object' && problem !== null && 'detail' in problem) return problem as Problem;
    } catch {
      // not a problem document
    }
  }
  return {
    type: 'about:blank',
    title: passes(status) ? 'Not taken yet' : 'Not taken',
    status,
    detail:
      MEANS[status] ??
      (passes(status)
        ? `The server answers "${status}" again and again.`
        : 'The server did not take this entry. Mend it, or remove it and record it again.'),
  };
}
