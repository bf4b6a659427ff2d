import { createSelector } from '@reduxjs/toolkit';
import {
  keptMachine,
  phaseOf,
  reduceOrder,
  type Catalogue,
  type EventBodies,
  type EventType,
  type Machine,
  type OrderEvent,
  type OrderState,
  type Phase,
} from '@zealous/core';
import type { OrderDocument } from '@zealous/contracts/messages';
import { useCallback, useEffect, useMemo } from 'react';
import { v4 as uuid } from 'uuid';
import { api, useOrderQuery } from './api';
import {
  connection,
  eventRecorded,
  eventsArrived,
  knownUpTo,
  orderOpened,
  orderReconciled,
  type Unsent,
} from './ordersSlice';
import { catalogueFrom } from './shopCatalogue';
import { useAppDispatch, useAppSelector, useAppStore, type RootState } from './store';

export interface OpenOrder {
  readonly id: string;
  readonly machine: Machine;
  readonly events: readonly OrderEvent[];
  readonly state: OrderState;
  readonly phase: Phase;
  readonly unsent: readonly Unsent[];
  /** What it is read by: the present catalogue, or the one that it was closed with. */
  readonly catalogue: Catalogue;
}

const makeSelector = (id: string) =>
  createSelector(
    [
      (root: RootState) => root.orders.byId[id],
      (root: RootState) => root.orders.outbox,
      (root: RootState) => catalogueFrom(root.shop),
    ],
    (entry, outbox, present): OpenOrder | undefined => {
      if (!entry) return undefined;
      const unsent = outbox.filter((item) => item.orderId === id);
      const known = new Set(entry.stored.map((item) => item.event.id));
      const events = [
        ...entry.stored.map((item) => item.event),
        ...unsent
          .filter((item) => (!item.problem || item.problem.passing) && !known.has(item.event.id))
          .map((item) => item.event),
      ];
      const kept = entry.catalogue && reduceOrder(entry.machine, entry.catalogue, events);
      const catalogue = kept?.closed && entry.catalogue ? entry.catalogue : present;
      const state = kept?.closed ? kept : reduceOrder(entry.machine, present, events);
      return {
        id,
        machine: entry.machine,
        events,
        state,
        phase: phaseOf(entry.machine, catalogue, state),
        unsent,
        catalogue,
      };
    },
  );

type Selector = ReturnType<typeof makeSelector>;
/** One for each order that was opened lately: what one reader has worked out, the next finds done. */
const selectors = new Map<string, Selector>();
const MOST_SELECTORS = 4;

export function orderSelector(id: string): Selector {
  const known = selectors.get(id) ?? makeSelector(id);
  selectors.delete(id);
  selectors.set(id, known);
  for (const oldest of selectors.keys()) {
    if (selectors.size <= MOST_SELECTORS) break;
    selectors.delete(oldest);
  }
  return known;
}

/** How often the other phone's findings are asked for. */
const POLL_MS = 2000;

export type Recorder = <T extends EventType>(type: T, body: EventBodies[T]) => string;

/** An event with an id and a time made here. */
export function makeEvent<T extends EventType>(by: string, type: T, body: EventBodies[T]): OrderEvent {
  return { id: uuid(), at: new Date().toISOString(), by, type, body } as OrderEvent;
}

/** The last entry that is known to be there, so that a server with another past says so. */
const lastOf = (
  stored: readonly { readonly seq: number; readonly event: OrderEvent }[],
  after: number,
): { readonly last?: string } => {
  const found = stored.find(({ seq }) => seq === after);
  return found ? { last: found.event.id } : {};
};

export function useRecorder(orderId: string): Recorder {
  const dispatch = useAppDispatch();
  const store = useAppStore();
  return useCallback(
    (type, body) => {
      const event = makeEvent(store.getState().settings.by, type, body);
      dispatch(eventRecorded({ orderId, event }));
      return event.id;
    },
    [dispatch, orderId, store],
  );
}

export interface OrderView {
  readonly order?: OpenOrder;
  readonly loading: boolean;
  /** Why it cannot be shown, in words. */
  readonly failure?: string;
  readonly retry: () => void;
}

/** Thirty orders of one machine hold it once. */
export const sharing = (document: OrderDocument): OrderDocument => ({
  ...document,
  machine: keptMachine(document.machine),
});

/** One order, kept in step with the server, readable without it. */
export function useOrder(id: string): OrderView {
  const dispatch = useAppDispatch();
  const store = useAppStore();
  const selector = useMemo(() => orderSelector(id), [id]);
  const order = useAppSelector(selector);
  const { data, error, isLoading, refetch } = useOrderQuery(id, { refetchOnMountOrArgChange: true });

  useEffect(() => {
    if (!data) return;
    const known = store.getState().orders.byId[id]?.stored ?? [];
    const there = new Map(data.events.map(({ seq, event }) => [seq, event.id]));
    // Another entry at the same place: the server has another past. One that only lacks entries is found by the next question.
    const other = known.some(({ seq, event }) => (there.get(seq) ?? event.id) !== event.id);
    dispatch(other ? orderReconciled(sharing(data)) : orderOpened(sharing(data)));
  }, [data, dispatch, id, store]);

  useEffect(() => {
    let stopped = false;
    const ask = async (): Promise<void> => {
      const entry = store.getState().orders.byId[id];
      if (stopped || !entry || globalThis.document?.hidden) return;
      const after = knownUpTo(entry.stored);
      const answer = await dispatch(
        api.endpoints.eventsAfter.initiate(
          { id, after, ...lastOf(entry.stored, after) },
          { forceRefetch: true, subscribe: false },
        ),
      );
      if (stopped) return;
      if (answer.error && 'status' in answer.error && answer.error.status === 412) {
        const whole = await dispatch(api.endpoints.order.initiate(id, { forceRefetch: true, subscribe: false }));
        if (whole.data && !stopped) dispatch(orderReconciled(whole.data));
        return;
      }
      if (answer.data) {
        dispatch(connection(true));
        dispatch(eventsArrived({ orderId: id, events: answer.data }));
      } else if (answer.error && 'status' in answer.error && typeof answer.error.status !== 'number')
        dispatch(connection(false));
    };
    const timer = setInterval(() => void ask(), POLL_MS);
    return () => {
      stopped = true;
      clearInterval(timer);
    };
  }, [dispatch, id, store]);

  const missing = error && 'status' in error && error.status === 404;
  const failure =
    !order && error
      ? missing
        ? 'There is no such work order.'
        : 'The server does not answer. Is it running?'
      : undefined;
  return { ...(order ? { order } : {}), loading: isLoading && !order, ...(failure ? { failure } : {}), retry: refetch };
}
