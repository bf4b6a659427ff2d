import type { Machine } from '@zealous/core';
import { orderBegun, eventRecorded } from './ordersSlice';
import { runOutbox } from './outbox';
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
  for (let i = 0; i < 20; i++) await jest.advanceTimersByTimeAsync(0);
}

let stop: (() => void) | undefined;
function running() {
  const store = makeStore();
  store.dispatch(orderBegun({ id: 'o', machine: { id: 'm' } as Machine }));
  stop = runOutbox(store);
  return store;
}

beforeEach(() => {
  jest.useFakeTimers();
  // The screens run on the web, where an address may be relative; Node's Request wants a whole one.
  const Plain = globalThis.Request;
  globalThis.Request = class extends Plain {
    constructor(input: RequestInfo | URL, init?: RequestInit) {
      super(typeof input === 'string' && input.startsWith('/') ? `http://bench${input}` : input, init);
    }
  };
});
afterEach(() => {
  stop?.();
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
