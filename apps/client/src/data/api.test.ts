import type { Machine } from '@zealous/core';
import { api } from './api';
import { makeStore } from './store';

// A question that is answered leaves its clock behind.
beforeEach(() => void jest.useFakeTimers({ doNotFake: ['setImmediate', 'queueMicrotask', 'nextTick'] }));
afterEach(() => void jest.useRealTimers());

test('orders of one machine hold it once, however often it was sent', async () => {
  const Plain = globalThis.Request;
  globalThis.Request = class extends Plain {
    constructor(input: RequestInfo | URL, init?: RequestInit) {
      super(typeof input === 'string' && input.startsWith('/') ? `http://bench${input}` : input, init);
    }
  };
  globalThis.fetch = jest.fn(async (input: RequestInfo | URL) => {
    const id = (input as Request).url.split('/').at(-1);
    const machine = { id: id === 'c' ? 'whelk' : 'dunlin', name: 'M' };
    return new Response(JSON.stringify({ id, machine, events: [] }), {
      headers: { 'content-type': 'application/json' },
    });
  }) as typeof fetch;
  const store = makeStore();
  const machineOf = async (id: string): Promise<Machine | undefined> =>
    (await store.dispatch(api.endpoints.order.initiate(id))).data?.machine;
  const [a, b, c] = [await machineOf('a'), await machineOf('b'), await machineOf('c')];
  expect(a).toMatchObject({ id: 'dunlin' });
  expect(b).toBe(a);
  expect(c).not.toBe(a);
});
