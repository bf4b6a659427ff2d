import { FIRST_ORDERS } from '@zealous/contracts/cards';
import type { OrderSummary, Paged } from '@zealous/contracts/messages';
import { api } from './api';
import type { AppStore } from './store';

/** The open orders that the server drew into the page: the bench goes on from them, and asks again in its own time. */
export function takeFirstOrders(store: AppStore): void {
  const text = globalThis.document?.getElementById(FIRST_ORDERS)?.textContent;
  if (!text) return;
  try {
    const value = JSON.parse(text) as Paged<OrderSummary>;
    store.dispatch(api.util.upsertQueryEntries([{ endpointName: 'orders', arg: { status: 'open' }, value }]));
  } catch {
    // What cannot be read is asked for.
  }
}

/** Where a tap led while the application was on its way, for one that had read the address before; told once. */
export function tappedBefore(): string | undefined {
  const page = globalThis as { firstTap?: string | undefined };
  const { firstTap } = page;
  page.firstTap = undefined;
  return firstTap;
}
