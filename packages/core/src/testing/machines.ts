import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { deliveredCatalogue } from '../catalogue/index';
import { parseMachine } from '../formats/index';
import type { EventBodies, EventType, OrderEvent } from '../order/events';
import { reduceOrder } from '../order/reduce';
import type { OrderState } from '../order/state';
import type { Machine } from '../path/machine';

/** For tests only: the demo's machines, read from their open files. */
const demoMachine = (name: string): Machine =>
  parseMachine(JSON.parse(readFileSync(join(__dirname, '../../../../demo/machines', `${name}.json`), 'utf8')));

export const whelk = demoMachine('whelk');
export const dunlin = demoMachine('dunlin');
export const START = '2026-12-01T09:00:00.000Z';

let made = 0;
export function event<T extends EventType>(type: T, body: EventBodies[T], minute = 0): OrderEvent {
  const id = `00000000-0000-4000-8000-${String(++made).padStart(12, '0')}`;
  const at = new Date(Date.parse(START) + minute * 60_000).toISOString();
  return { id, at, by: 'bench 1', type, body } as OrderEvent;
}

export const takenIn = (machine: Machine, body: Partial<EventBodies['taken-in']> = {}): OrderEvent =>
  event('taken-in', { number: 'test-1', machineId: machine.id, symptoms: [], before: [], ...body });

export const finding = (key: string, result: string, value?: number): OrderEvent =>
  event('finding-recorded', { key, result, ...(value === undefined ? {} : { value }) });

export const stateOf = (machine: Machine, events: readonly OrderEvent[]): OrderState =>
  reduceOrder(machine, deliveredCatalogue, events);
