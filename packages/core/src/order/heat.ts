import type { Machine } from '../path/machine';
import { fitCooling, type TimedReading } from '../physics/cooling';
import { SAFE_TO_TOUCH_C } from '../physics/heat';
import type { EventBodies } from './events';
import { temperatureAt, type HeatRecord, type OrderState } from './state';

const MOST_READINGS = 60;
const HEATED_C = 5;

/**
 * Heat and power after a change: a reading is believed before the clock; readings taken while it cools with no target
 * refit the time constant, which stays when it is heated again.
 */
export function benchChanged(
  { heat, power: before }: Pick<OrderState, 'heat' | 'power'>,
  { targetC, readingC, atMost, power }: EventBodies['bench-changed'],
  atMs: number,
  machine: Machine,
): Pick<OrderState, 'heat' | 'power'> {
  const byClock = temperatureAt(machine, heat, atMs);
  const temperatureC = readingC === undefined ? byClock : atMost ? Math.min(readingC, byClock) : readingC;
  const target = power === 'off' ? 0 : (targetC ?? heat.targetC);
  const cold = readingC === undefined ? (heat.coldSure ?? true) : readingC <= SAFE_TO_TOUCH_C;
  // Above the last record it was heated meanwhile: earlier readings say nothing of this cooling.
  const heated = readingC !== undefined && !atMost && readingC > heat.temperatureC + HEATED_C;
  const was = heat.targetC > 0 || heated ? [] : (heat.readings ?? []);
  const reading: readonly TimedReading[] =
    target > 0 || atMost || (readingC === undefined && heat.targetC === 0) ? [] : [{ temperatureC, atS: atMs / 1000 }];
  const readings = target > 0 ? [] : [...was, ...reading].slice(-MOST_READINGS);
  const fitted = readings.length >= 2 ? fitCooling(machine.heat, readings) : undefined;
  const cooling = fitted && fitted.readings > 0 ? fitted : heat.cooling;
  const next: HeatRecord = {
    temperatureC,
    atMs,
    targetC: target,
    coldSure: cold && target === 0,
    readings,
    ...(cooling ? { cooling } : {}),
  };
  return { heat: next, power: power ?? ((targetC ?? 0) > 0 ? 'on' : before) };
}
