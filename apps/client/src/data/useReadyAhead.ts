import type { OrderSummary } from '@zealous/contracts/messages';
import { useEffect, useRef } from 'react';
import { api } from './api';
import { useAppDispatch } from './store';
import { tracer } from '../workers/trace';

/** So many machines that are being traced, the longest waiting first, are made ready for: one at a time. */
const MOST = 3;
/** The list is drawn and can be used before anything is fetched for later. */
const AFTER_MS = 1000;

/** Of the orders that are being traced one for each machine, in their order. */
export function nextToTrace(orders: readonly Pick<OrderSummary, 'id' | 'machineId' | 'phase'>[]): readonly string[] {
  const machines = new Set<string>();
  return orders
    .filter(({ machineId, phase }) => phase === 'trace' && !machines.has(machineId) && machines.add(machineId))
    .slice(0, MOST)
    .map(({ id }) => id);
}

/**
 * Lets the tracer work out ahead, while a list stands, what does not change while a machine is traced: the first answer of an order
 * that is opened then comes in a fraction of the time. Nothing is said when the server does not answer.
 */
export function useReadyAhead(orders: readonly OrderSummary[]): void {
  const dispatch = useAppDispatch();
  const done = useRef(new Set<string>());
  const wanted = nextToTrace(orders).join();
  useEffect(() => {
    let stopped = false;
    const go = async (): Promise<void> => {
      for (const id of wanted ? wanted.split(',') : []) {
        if (stopped || done.current.has(id) || globalThis.document?.hidden) continue;
        done.current.add(id);
        const { data } = await dispatch(api.endpoints.order.initiate(id, { subscribe: false }));
        if (data) await tracer().makeReady({ machine: data.machine, events: data.events.map(({ event }) => event) });
      }
    };
    const timer = setTimeout(() => void go(), AFTER_MS);
    return () => {
      stopped = true;
      clearTimeout(timer);
    };
  }, [dispatch, wanted]);
}
