import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { workOut } from '../decision/working';
import { QUICK } from '../inference/hypotheses';
import type { OrderEvent } from '../order/events';
import { machineOfFamily } from '../path/families';
import { event, stateOf } from './machines';

/** For tests only: what is believed of an order on a machine of a family. */

export const takenIn = (machineId: string, body: object): OrderEvent =>
  event('taken-in', { number: 'a', machineId, symptoms: [], before: [], ...body } as never);
export const seen = (key: string, result: string, more: object = {}): OrderEvent =>
  event('finding-recorded', { key, result, ...more } as never);
export const repaired = (station: string, mode: string, remedy: string): readonly OrderEvent[] => [
  event('cause-chosen', { station, mode, advised: true }),
  event('rung-tried', { stepId: `rung:${remedy}`, remedy, outcome: 'cleared' }),
  event('not-cured', {}),
];

/** By the search of an answer at once: what is told here must hold at any breadth, and that one is many times as fast. */
export function believed(family: string, events: (id: string) => readonly OrderEvent[]) {
  const machine = machineOfFamily(family, family, family);
  const state = stateOf(machine, events(machine.id));
  const { model, suspicion } = workOut(machine, catalogue, state, QUICK);
  const share = (id: string): number => {
    const c = model.causes.findIndex((cause) => cause.id === id);
    if (c < 0) throw new Error(`no cause ${id}`);
    return suspicion.share[c] ?? 0;
  };
  const set = (...ids: readonly string[]): number =>
    suspicion.sets.reduce(
      (sum, { causes }, h) =>
        causes.length === ids.length && causes.every((c) => ids.includes(model.causes[c]?.id ?? ''))
          ? sum + (suspicion.p[h] ?? 0)
          : sum,
      0,
    );
  return { machine, state, causes: model.causes, share, set, elsewhere: suspicion.share.at(-1) ?? 0 };
}
export const cold = (machine: { readonly heat: { readonly ambientC: number } }) => ({
  temperatureC: machine.heat.ambientC,
  power: 'off' as const,
  off: new Set<string>(),
});
