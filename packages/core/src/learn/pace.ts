import type { Catalogue } from '../catalogue/types';
import { decide } from '../decision/decide';
import type { Pace } from '../decision/pace';
import { workOut } from '../decision/working';
import type { OrderState } from '../order/state';
import type { Machine } from '../path/machine';

/** Minutes of one closed order against what was expected of it. */
export const paceOf = (expected: number, taken: number): Pace => {
  const log = Math.log(taken / expected);
  return { orders: 1, expected, taken, logs: log, squares: log * log };
};

/** Minutes to a proved repair that were expected when nothing had been looked at: what the screen said then. */
export function expectedAtTakeIn(machine: Machine, catalogue: Catalogue, state: OrderState): number {
  const { model, evidence, suspicion } = workOut(machine, catalogue, { ...state, findings: [], failures: [] });
  const bench = { temperatureC: machine.heat.ambientC, power: 'off' as const, off: new Set<string>() };
  const { repairMinutes, checks } = decide(model, suspicion, bench, evidence, new Set(), new Set(), { depth: 2 });
  return Math.min(repairMinutes, checks[0]?.expectedMinutes ?? Infinity);
}
