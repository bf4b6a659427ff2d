import type { Bench } from '../bench/state';
import type { Machine } from '../path/machine';
import { temperatureAt, type OrderState } from './state';

/** The bench of an order at a moment, with the temperature expected then. */
export const benchAt = (machine: Machine, state: OrderState, nowMs: number): Bench => ({
  temperatureC: temperatureAt(machine, state.heat, nowMs),
  power: state.power,
  off: new Set([...state.off, ...state.absent]),
  absent: new Set(state.absent),
  ways: state.ways,
  strand: state.strand,
  supported: state.supported,
  wet: new Set(state.wet),
  service: new Set(state.service),
  pulled: new Set(state.pulled),
  targetC: state.heat.targetC,
  coldSure: state.heat.coldSure ?? true,
});
