import type { ShopHistory } from '@zealous/contracts/messages';
import {
  deliveredCatalogue,
  phaseOf,
  reduceOrder,
  type EventBodies,
  type EventType,
  type Machine,
  type OrderEvent,
} from '@zealous/core';
import { act, render } from './render';
import { useState, type ReactNode } from 'react';
import { Provider } from 'react-redux';
import { api } from '../data/api';
import { makeStore } from '../data/store';
import type { OpenOrder, Recorder } from '../data/useOrder';

/** For tests only: an order that lives in memory, and the screen of it under test, drawn anew at every entry. */
export interface Desk {
  readonly events: () => readonly OrderEvent[];
  readonly order: () => OpenOrder;
  readonly record: Recorder;
  /** The server's copies of the entries take their place: the same, with their fields in another order. */
  readonly served: () => void;
}

export const noHistory: ShopHistory = { tried: [], solvents: [], lives: [], parts: [] };

/** Draws something that asks for the store and the shop's history. */
export async function renderInShop(element: ReactNode, history: ShopHistory = noHistory): Promise<void> {
  const store = makeStore();
  await store.dispatch(api.util.upsertQueryData('shopHistory', undefined, history) as never);
  render(<Provider store={store}>{element}</Provider>);
}

/** Every test of the file begins at ten o'clock, with a server that does not answer. */
export function atTen(): void {
  beforeEach(() => {
    jest.useFakeTimers({ now: new Date('2026-11-25T10:00:00') });
    global.fetch = jest.fn(() => new Promise(() => undefined)) as unknown as typeof fetch;
  });
  afterEach(() => {
    jest.runOnlyPendingTimers();
    jest.useRealTimers();
  });
}

let made = 0;

export async function deskOf(
  machine: Machine,
  start: readonly (readonly [EventType, object])[],
  screen: (props: { readonly order: OpenOrder; readonly record: Recorder }) => ReactNode,
  history: ShopHistory = noHistory,
): Promise<Desk> {
  const at = (): string => new Date(Date.now()).toISOString();
  const eventOf = (type: EventType, body: object): OrderEvent =>
    ({
      id: `00000000-0000-4000-8000-${String(++made).padStart(12, '0')}`,
      at: at(),
      by: 'bench 1',
      type,
      body,
    }) as unknown as OrderEvent;
  let events: readonly OrderEvent[] = start.map(([type, body]) => eventOf(type, body));
  const order = (): OpenOrder => {
    const state = reduceOrder(machine, deliveredCatalogue, events);
    return {
      id: 'order',
      machine,
      events,
      state,
      phase: phaseOf(machine, deliveredCatalogue, state),
      unsent: [],
      catalogue: deliveredCatalogue,
    };
  };
  let redraw: () => void = () => undefined;
  const record = <T extends EventType>(type: T, body: EventBodies[T]): string => {
    const event = eventOf(type, body);
    events = [...events, event];
    act(() => redraw());
    return event.id;
  };
  function Shown() {
    const [, setN] = useState(0);
    redraw = () => setN((n) => n + 1);
    return screen({ order: order(), record });
  }
  await renderInShop(<Shown />, history);
  const served = (): void => {
    const turned = (body: object): object => Object.fromEntries(Object.entries(body).reverse());
    events = events.map((event) => ({ ...event, body: turned(event.body) }) as OrderEvent);
    act(() => redraw());
  };
  return { events: () => events, order, record, served };
}
