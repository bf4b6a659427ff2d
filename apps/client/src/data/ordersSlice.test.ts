import type { StoredEvent } from '@zealous/contracts/messages';
import type { Machine, OrderEvent } from '@zealous/core';
import {
  eventRecorded,
  eventRefused,
  eventsArrived,
  eventSent,
  knownUpTo,
  orderBegun,
  orderOpened,
  ordersReducer,
  refusedDropped,
} from './ordersSlice';

const machine = { id: 'm' } as Machine;
const event = (id: string): OrderEvent => ({
  id,
  at: '2026-11-24T09:00:00.000Z',
  by: 'bench 1',
  type: 'note-added',
  body: { text: id },
});
const stored = (seq: number, id = `e${seq}`): StoredEvent => ({ seq, event: event(id) });
const start = ordersReducer(undefined, orderBegun({ id: 'o', machine }));

test('what the server has and what was sent become one list, whatever comes first', () => {
  let state = ordersReducer(start, eventRecorded({ orderId: 'o', event: event('e3') }));
  state = ordersReducer(state, eventSent({ orderId: 'o', event: event('e3'), seq: 3 }));
  expect(state.outbox).toEqual([]);
  // Two findings of another phone are still missing: asking goes on from before the gap.
  expect(knownUpTo(state.byId['o']?.stored ?? [])).toBe(0);
  state = ordersReducer(state, eventsArrived({ orderId: 'o', events: [stored(1), stored(2), stored(3)] }));
  expect(state.byId['o']?.stored.map((item) => item.seq)).toEqual([1, 2, 3]);
  expect(knownUpTo(state.byId['o']?.stored ?? [])).toBe(3);
});

test('an older answer of the server does not take a newer event away', () => {
  let state = ordersReducer(start, eventSent({ orderId: 'o', event: event('e2'), seq: 2 }));
  state = ordersReducer(state, orderOpened({ id: 'o', machine, events: [stored(1)] }));
  expect(state.byId['o']?.stored.map((item) => item.event.id)).toEqual(['e1', 'e2']);
});

test('a refused entry stays with its reason until it is removed', () => {
  const problem = { type: 'about:blank', title: 'No', status: 409, detail: 'closed' };
  let state = ordersReducer(start, eventRecorded({ orderId: 'o', event: event('x') }));
  state = ordersReducer(state, eventRefused({ eventId: 'x', problem }));
  expect(state.outbox[0]?.problem).toEqual(problem);
  expect(ordersReducer(state, refusedDropped('x')).outbox).toEqual([]);
});
