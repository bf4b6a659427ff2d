import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { OrderDocument, Problem, StoredEvent } from '@zealous/contracts/messages';
import type { Machine, OrderEvent } from '@zealous/core';
import { load } from './storage';

export interface OrderEntry {
  readonly machine: Machine;
  /** What the server has, in its order. */
  readonly stored: readonly StoredEvent[];
}

export interface Unsent {
  readonly orderId: string;
  readonly event: OrderEvent;
  /** The server refused it; it stands here until the person has read why. */
  readonly problem?: Problem;
}

export interface OrdersState {
  readonly byId: Readonly<Record<string, OrderEntry>>;
  readonly outbox: readonly Unsent[];
  readonly online: boolean;
}

const initialState: OrdersState = { byId: load('orders', {}), outbox: load('outbox', []), online: true };

const merged = (one: readonly StoredEvent[], other: readonly StoredEvent[]): readonly StoredEvent[] =>
  [...new Map([...one, ...other].map((item) => [item.seq, item])).values()].sort((a, b) => a.seq - b.seq);

/** Number of the last event up to which nothing is missing. */
export function knownUpTo(stored: readonly StoredEvent[]): number {
  const gap = stored.findIndex((item, i) => item.seq !== i + 1);
  return gap === -1 ? stored.length : gap;
}

const slice = createSlice({
  name: 'orders',
  initialState: initialState as OrdersState,
  reducers: {
    orderOpened(state, { payload }: PayloadAction<OrderDocument>) {
      const { id, machine, events } = payload;
      return {
        ...state,
        byId: { ...state.byId, [id]: { machine, stored: merged(state.byId[id]?.stored ?? [], events) } },
      };
    },
    /** A new order, made on this device before the server knows of it. */
    orderBegun(state, { payload }: PayloadAction<{ id: string; machine: Machine }>) {
      return { ...state, byId: { ...state.byId, [payload.id]: { machine: payload.machine, stored: [] } } };
    },
    eventsArrived(state, { payload }: PayloadAction<{ orderId: string; events: readonly StoredEvent[] }>) {
      const entry = state.byId[payload.orderId];
      if (!entry || payload.events.length === 0) return state;
      const stored = merged(entry.stored, payload.events);
      return { ...state, byId: { ...state.byId, [payload.orderId]: { ...entry, stored } } };
    },
    eventRecorded(state, { payload }: PayloadAction<{ orderId: string; event: OrderEvent }>) {
      return { ...state, outbox: [...state.outbox, payload] };
    },
    eventSent(state, { payload }: PayloadAction<{ orderId: string; event: OrderEvent; seq: number }>) {
      const entry = state.byId[payload.orderId];
      const outbox = state.outbox.filter((item) => item.event.id !== payload.event.id);
      if (!entry || entry.stored.some((item) => item.event.id === payload.event.id)) return { ...state, outbox };
      const stored = merged(entry.stored, [{ seq: payload.seq, event: payload.event }]);
      return { ...state, outbox, byId: { ...state.byId, [payload.orderId]: { ...entry, stored } } };
    },
    eventRefused(state, { payload }: PayloadAction<{ eventId: string; problem: Problem }>) {
      const outbox = state.outbox.map((item) =>
        item.event.id === payload.eventId ? { ...item, problem: payload.problem } : item,
      );
      return { ...state, outbox };
    },
    refusedDropped(state, { payload }: PayloadAction<string>) {
      return { ...state, outbox: state.outbox.filter((item) => item.event.id !== payload) };
    },
    connection(state, { payload }: PayloadAction<boolean>) {
      return state.online === payload ? state : { ...state, online: payload };
    },
  },
});

export const {
  orderOpened,
  orderBegun,
  eventsArrived,
  eventRecorded,
  eventSent,
  eventRefused,
  refusedDropped,
  connection,
} = slice.actions;
export const ordersReducer = slice.reducer;
