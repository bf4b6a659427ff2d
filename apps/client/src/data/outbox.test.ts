import 'fake-indexeddb/auto';
import { API_VERSION, API_VERSION_HEADER } from '@zealous/contracts/limits';
import type { Machine } from '@zealous/core';
import { IDBFactory } from 'fake-indexeddb';
import { orderBegun, eventMended, eventRecorded, orderReconciled, orderOpened } from './ordersSlice';
import { DRAWN_FIRST_MS, runOutbox } from './outbox';
import { allUnsent, release } from './outboxStore';
import { makeStore } from './store';
import { makeEvent } from './useOrder';

/** A server made of answers: each call takes the next one. */
type Answer = { readonly status: number; readonly body: object } | 'gone';
const asked: { readonly url: string; readonly id: string }[] = [];
function serve(...answers: Answer[]): void {
  asked.length = 0;
  globalThis.fetch = jest.fn(async (input: RequestInfo | URL) => {
    const request = input as Request;
    const { id } = (await request.clone().json()) as { id: string };
    asked.push({ url: request.url, id });
    const answer = answers.shift() ?? 'gone';
    if (answer === 'gone') throw new TypeError('Failed to fetch');
    return new Response(JSON.stringify(answer.body), {
      status: answer.status,
      headers: { 'content-type': 'application/json' },
    });
  }) as typeof fetch;
}
const stored = (seq: number): Answer => ({ status: 201, body: { seq, already: false } });
const note = (text: string) => makeEvent('bench 1', 'note-added', { text });

async function settle(): Promise<void> {
  await jest.advanceTimersByTimeAsync(DRAWN_FIRST_MS);
  // The stand-in for the browser's database answers in real turns of the loop; clocks are the test's own.
  for (let i = 0; i < 60; i++) {
    await new Promise((resolve) => setImmediate(resolve));
    await jest.advanceTimersByTimeAsync(0);
  }
}

/** The browser's storage that needs no waiting; `full` refuses as a full one does. */
const rows = new Map<string, string>();
let full = false;
globalThis.localStorage = {
  getItem: (key: string) => rows.get(key) ?? null,
  setItem: (key: string, value: string) => {
    if (full) throw new DOMException('no room', 'QuotaExceededError');
    rows.set(key, value);
  },
  removeItem: (key: string) => void rows.delete(key),
  key: (i: number) => [...rows.keys()][i] ?? null,
  clear: () => rows.clear(),
  get length() {
    return rows.size;
  },
};

let stop: (() => void) | undefined;
function running() {
  const store = makeStore();
  store.dispatch(orderBegun({ id: 'o', machine: { id: 'm' } as Machine }));
  stop = runOutbox(store);
  return store;
}

beforeEach(() => {
  jest.useFakeTimers({ doNotFake: ['setImmediate', 'queueMicrotask', 'nextTick'] });
  globalThis.indexedDB = new IDBFactory();
  rows.clear();
  // The screens run on the web, where an address may be relative; Node's Request wants a whole one.
  const Plain = globalThis.Request;
  globalThis.Request = class extends Plain {
    constructor(input: RequestInfo | URL, init?: RequestInit) {
      super(typeof input === 'string' && input.startsWith('/') ? `http://bench${input}` : input, init);
    }
  };
});
afterEach(async () => {
  stop?.();
  await release();
  jest.useRealTimers();
});

test('entries go out one after the other, in the order in which they were recorded', async () => {
  serve(stored(1), stored(2), stored(3));
  const store = running();
  const events = ['a', 'b', 'c'].map(note);
  events.forEach((event) => store.dispatch(eventRecorded({ orderId: 'o', event })));
  await settle();
  expect(asked.map((item) => item.id)).toEqual(events.map((event) => event.id));
  expect(store.getState().orders.outbox).toEqual([]);
  expect(store.getState().orders.byId['o']?.stored.map((item) => item.seq)).toEqual([1, 2, 3]);
});

test('what was tapped is drawn before it is kept and sent; it is written down at once', async () => {
  serve(stored(1));
  const store = running();
  await settle();
  const event = note('drawn first');
  store.dispatch(eventRecorded({ orderId: 'o', event }));
  expect([...rows.keys()].filter((key) => key.includes(event.id))).toHaveLength(1);
  await jest.advanceTimersByTimeAsync(DRAWN_FIRST_MS - 1);
  expect(asked).toEqual([]);
  expect(await allUnsent()).toHaveLength(1);
  await settle();
  expect(asked.map(({ id }) => id)).toEqual([event.id]);
  expect([...rows.keys()].filter((key) => key.includes(event.id))).toEqual([]);
});

test('without a server they wait, are tried again now and then, and go out when it is back', async () => {
  serve('gone', 'gone', stored(1));
  const store = running();
  const event = note('kept');
  store.dispatch(eventRecorded({ orderId: 'o', event }));
  await settle();
  expect(store.getState().orders).toMatchObject({ online: false, outbox: [{ event: { id: event.id } }] });
  expect(asked).toHaveLength(1);
  await jest.advanceTimersByTimeAsync(1500);
  await settle();
  expect(asked).toHaveLength(2);
  await jest.advanceTimersByTimeAsync(1500);
  await settle();
  expect(store.getState().orders).toMatchObject({ online: true, outbox: [] });
  // The same id every time: stored twice it is stored once.
  expect(new Set(asked.map((item) => item.id)).size).toBe(1);
});

test('a refused entry stays with its reason and holds back only its own order', async () => {
  const problem = { type: 'about:blank', title: 'No', status: 409, detail: 'The order is closed.' };
  serve({ status: 409, body: problem }, stored(1));
  const store = running();
  const [refused, after, other] = [note('refused'), note('after'), note('other')];
  store.dispatch(eventRecorded({ orderId: 'o', event: refused }));
  store.dispatch(eventRecorded({ orderId: 'o', event: after }));
  store.dispatch(eventRecorded({ orderId: 'p', event: other }));
  await settle();
  expect(store.getState().orders.outbox.map((item) => [item.event.id, item.problem?.detail])).toEqual([
    [refused.id, 'The order is closed.'],
    [after.id, undefined],
  ]);
  expect(asked.at(-1)?.id).toBe(other.id);
});

test('what is recorded is written down at once, and kept in a row of its own; a page left before that loses nothing', async () => {
  serve();
  const store = running();
  const event = note('written');
  store.dispatch(eventRecorded({ orderId: 'o', event }));
  // Before any turn of the loop: the journal has it.
  expect([...rows.keys()]).toContain(`zt:journal:${event.id}`);
  await settle();
  expect([...rows.keys()].filter((key) => key.startsWith('zt:journal:'))).toEqual([]);
  // A page that was left between the two, and the list of an older version: both are taken over, in order.
  const [old, left] = [note('old'), note('left')];
  rows.set('zt:outbox', JSON.stringify([{ orderId: 'p', event: old }]));
  rows.set(`zt:journal:${left.id}`, JSON.stringify({ orderId: 'p', event: left, jotted: 1 }));
  expect((await allUnsent()).map((item) => item.event.id)).toEqual([event.id, old.id, left.id]);
  expect(rows.has('zt:outbox')).toBe(false);
});

test('a second window adds to what the first has, and neither takes the other’s away', async () => {
  serve();
  const first = running();
  const one = note('one');
  first.dispatch(eventRecorded({ orderId: 'o', event: one }));
  await settle();
  const firstStop = stop;
  const second = makeStore();
  const two = note('two');
  const secondStop = runOutbox(second);
  second.dispatch(eventRecorded({ orderId: 'o', event: two }));
  await settle();
  expect(second.getState().orders.outbox.map((item) => item.event.id)).toEqual([one.id, two.id]);
  expect((await allUnsent()).map((item) => item.event.id)).toEqual([one.id, two.id]);
  secondStop();
  firstStop?.();
});

test.each([
  [408, 'timed out'],
  [425, 'too early'],
  [429, 'too often'],
  [500, 'in trouble'],
  [503, 'busy'],
])('%i (%s): asked again, other orders go on meanwhile, and it is told when it does not end', async (status) => {
  const passing: Answer = { status, body: {} };
  serve(passing, stored(1), passing, passing, passing, passing, stored(2));
  const store = running();
  const [held, other] = [note('held'), note('other')];
  store.dispatch(eventRecorded({ orderId: 'o', event: held }));
  store.dispatch(eventRecorded({ orderId: 'p', event: other }));
  await settle();
  expect(asked.map((item) => item.id)).toEqual([held.id, other.id]);
  for (const ms of [1500, 1500, 3000, 6000]) {
    await jest.advanceTimersByTimeAsync(ms);
    await settle();
  }
  expect(store.getState().orders.outbox).toMatchObject([{ event: { id: held.id }, problem: { passing: true } }]);
  await jest.advanceTimersByTimeAsync(30_000);
  await settle();
  expect(store.getState().orders.outbox).toEqual([]);
});

test.each([401, 403, 413, 422])(
  '%i: not asked again by itself, said in words; mended or tried again it goes out',
  async (status) => {
    serve({ status, body: {} }, stored(1));
    const store = running();
    const event = note('as it was');
    store.dispatch(eventRecorded({ orderId: 'o', event }));
    await settle();
    await jest.advanceTimersByTimeAsync(120_000);
    await settle();
    expect(asked).toHaveLength(1);
    const [item] = store.getState().orders.outbox;
    expect(item?.problem?.detail).toMatch(/\.$/);
    store.dispatch(eventMended({ ...event, body: { text: 'mended' } } as typeof event));
    await settle();
    expect(store.getState().orders.outbox).toEqual([]);
  },
);

test('a device without room says so, and the entry goes out all the same', async () => {
  full = true;
  globalThis.indexedDB = {
    open: () => {
      throw new DOMException('no room', 'QuotaExceededError');
    },
  } as unknown as IDBFactory;
  serve('gone', stored(1));
  const store = running();
  store.dispatch(eventRecorded({ orderId: 'o', event: note('homeless') }));
  await settle();
  expect(store.getState().orders.keeping).not.toBe('kept');
  expect(store.getState().orders.outbox).toHaveLength(1);
  await jest.advanceTimersByTimeAsync(1500);
  await settle();
  expect(store.getState().orders.outbox).toEqual([]);
  full = false;
});

test('a server with an older past: what it lost waits to be sent again, and the person is told', () => {
  const store = makeStore();
  const [one, two, other] = [note('one'), note('two'), note('other')];
  const machine = { id: 'm' } as Machine;
  const at = (...events: (typeof one)[]) => ({
    id: 'o',
    machine,
    events: events.map((event, i) => ({ seq: i + 1, event })),
  });
  store.dispatch(orderOpened(at(one, two)));
  store.dispatch(orderReconciled(at(one, other)));
  const { byId, outbox, recovered } = store.getState().orders;
  expect(byId['o']?.stored.map((item) => item.event.id)).toEqual([one.id, other.id]);
  expect(outbox.map((item) => item.event.id)).toEqual([two.id]);
  expect(recovered['o']).toBe(1);
});

test('a server of another version is told, and the entry goes out all the same', async () => {
  const store = running();
  const answered = (version: string) => {
    globalThis.fetch = jest.fn(
      async () =>
        new Response(JSON.stringify({ seq: 1, already: false }), {
          status: 201,
          headers: { 'content-type': 'application/json', [API_VERSION_HEADER]: version },
        }),
    ) as typeof fetch;
  };
  answered(API_VERSION);
  store.dispatch(eventRecorded({ orderId: 'o', event: note('same') }));
  await settle();
  expect(store.getState().orders.version).toBe('same');
  answered('0');
  store.dispatch(eventRecorded({ orderId: 'o', event: note('other') }));
  await settle();
  expect(store.getState().orders).toMatchObject({ version: 'other', outbox: [] });
});
