import type { Bench } from '../bench/price';
import type { Machine } from '../path/machine';
import { temperatureAt, type OrderState } from './state';

/** The bench of an order at a moment, with the temperature expected then. */
export const benchAt = (machine: Machine, state: OrderState, nowMs: number): Bench => ({
  temperatureC: temperatureAt(machine, state.heat, nowMs),
  power: state.power,
  off: new Set(state.off),
  targetC: state.heat.targetC,
  coldSure: state.heat.coldSure ?? true,
});
