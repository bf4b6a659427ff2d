import { fastenerMap, onTheMat } from '../bench/fastenerMap';
import { removalOf, type Bench } from '../bench/state';
import type { Machine } from '../path/machine';
import { temperatureAt, type OrderState } from './state';

/** Parts that are on while fasteners that came out with them are still on the mat. */
export function loosenedParts(machine: Machine, { fasteners, off, absent }: OrderState): readonly string[] {
  const away = new Set([...off, ...absent]);
  return [
    ...new Set(
      Object.entries(fasteners).flatMap(([key, record]) => {
        const [part = '', way] = key.split('/');
        if (away.has(part)) return [];
        return onTheMat(fastenerMap(removalOf(machine, part, way)?.fasteners ?? []), record).length ? [part] : [];
      }),
    ),
  ];
}

/** It cools all the time; what to do next is decided anew only as it has cooled by this much, °C (chosen). */
const COARSE_C = 10;

/** The bench of an order as what to do next is decided on it: everything that is recorded, the temperature in coarse steps. */
export function benchToDecide(machine: Machine, state: OrderState, nowMs: number): Bench {
  const bench = benchAt(machine, state, nowMs);
  return { ...bench, temperatureC: Math.round(bench.temperatureC / COARSE_C) * COARSE_C };
}

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
  // On its mount it is in no service position, whatever was said of it.
  service: new Set(state.service.filter((id) => state.off.includes(id))),
  pulled: new Set(state.pulled),
  loosened: new Set(loosenedParts(machine, state)),
  targetC: state.heat.targetC,
  coldSure: state.heat.coldSure ?? true,
  heatSpoiled: state.heatSpoiled,
});
