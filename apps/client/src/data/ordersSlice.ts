import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { OrderDocument, Problem, StoredEvent } from '@zealous/contracts/messages';
import type { Catalogue, Machine, OrderEvent } from '@zealous/core';
import type { Keeping } from './outboxStore';
import { load } from './storage';

export interface OrderEntry {
  readonly machine: Machine;
  /** Of a closed order: what it was closed with, where that is not the present catalogue. */
  readonly catalogue?: Catalogue;
  /** What the server has, in its order. */
  readonly stored: readonly StoredEvent[];
}

export interface Unsent {
  readonly orderId: string;
  readonly event: OrderEvent;
  /** The server refused it, or (`passing`) it has been stuck for some time; it stands here until the person has read why. */
  readonly problem?: Problem & { readonly passing?: boolean };
}

export interface OrdersState {
  readonly byId: Readonly<Record<string, OrderEntry>>;
  readonly outbox: readonly Unsent[];
  /** The outbox as it was last read from the device: nothing of it is news to the device. */
  readonly fromRows: readonly Unsent[];
  readonly keeping: Keeping;
  readonly online: boolean;
  /** The page is not of the server's version, or a newer page waits: it is to be loaded anew, when it suits. */
  readonly version: 'same' | 'other' | 'waiting';
  /** By order, how many entries a restored server had lost and this device kept. */
  readonly recovered: Readonly<Record<string, number>>;
}

const initialState: OrdersState = {
  byId: load('orders', {}),
  outbox: [],
  fromRows: [],
  keeping: 'kept',
  online: true,
  version: 'same',
  recovered: {},
};

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
      const { id, machine, events, catalogue } = payload;
      const stored = merged(state.byId[id]?.stored ?? [], events);
      return {
        ...state,
        byId: { ...state.byId, [id]: { machine, stored, ...(catalogue ? { catalogue } : {}) } },
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
    /** What all windows of this device have recorded and not sent; what this one has just recorded stays at the end. */
    outboxRead(state, { payload }: PayloadAction<readonly Unsent[]>) {
      const rows = new Set(payload.map((item) => item.event.id));
      const known = new Set(state.fromRows.map((item) => item.event.id));
      const own = state.outbox.filter(({ event: { id } }) => !rows.has(id) && !known.has(id));
      const outbox = own.length > 0 ? [...payload, ...own] : payload;
      return { ...state, outbox, fromRows: payload };
    },
    eventStuck(state, { payload }: PayloadAction<{ eventId: string; problem: Problem }>) {
      const outbox = state.outbox.map((item) =>
        item.event.id === payload.eventId ? { ...item, problem: { ...payload.problem, passing: true } } : item,
      );
      return { ...state, outbox };
    },
    /** The person has mended an entry, or wants it tried once more as it is. */
    eventMended(state, { payload }: PayloadAction<OrderEvent>) {
      const outbox = state.outbox.map((item): Unsent =>
        item.event.id === payload.id ? { orderId: item.orderId, event: payload } : item,
      );
      return { ...state, outbox };
    },
    keepingChanged(state, { payload }: PayloadAction<Keeping>) {
      return { ...state, keeping: payload };
    },
    /** The server has another past than this device knows, as after an older backup: what it lost waits to be sent again. */
    orderReconciled(state, { payload }: PayloadAction<OrderDocument>) {
      const { id, machine, events } = payload;
      const there = new Set([...events.map(({ event }) => event.id), ...state.outbox.map(({ event }) => event.id)]);
      const lost = (state.byId[id]?.stored ?? []).filter(({ event }) => !there.has(event.id));
      return {
        ...state,
        byId: { ...state.byId, [id]: { machine, stored: events } },
        outbox: [...lost.map(({ event }): Unsent => ({ orderId: id, event })), ...state.outbox],
        recovered: lost.length ? { ...state.recovered, [id]: lost.length } : state.recovered,
      };
    },
    recoveredRead(state, { payload }: PayloadAction<string>) {
      const { [payload]: _read, ...recovered } = state.recovered;
      return { ...state, recovered };
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
    versionSeen(state, { payload }: PayloadAction<OrdersState['version']>) {
      return state.version === payload || state.version === 'waiting' ? state : { ...state, version: payload };
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
  eventStuck,
  eventMended,
  outboxRead,
  keepingChanged,
  orderReconciled,
  recoveredRead,
  refusedDropped,
  versionSeen,
  connection,
} = slice.actions;
export const ordersReducer = slice.reducer;
