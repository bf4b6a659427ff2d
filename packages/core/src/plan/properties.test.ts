import fc from 'fast-check';
import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { benchAt } from '../order/bench';
import { closingFaults } from '../order/closing';
import type { OrderEvent } from '../order/events';
import { judge } from '../order/reduce';
import { FAMILIES, machineOfFamily } from '../path/families';
import { removalOf } from '../bench/state';
import type { Machine } from '../path/machine';
import { routeOf } from '../path/route';
import { causesOf } from '../observation/causes';
import { dunlin, event, stateOf, takenIn, whelk } from '../testing/machines';
import { heldBecause, planFor } from './plan';
import { proofsFor } from '../order/proofs';
import { allFasteners, stepEntries } from './record';
import type { PlanStep } from './steps';

const machines: readonly Machine[] = [whelk, dunlin, ...FAMILIES.map(({ id }) => machineOfFamily(id, id, id))];

const planNow = (machine: Machine, events: readonly OrderEvent[]) => {
  const state = stateOf(machine, events);
  const bench = benchAt(machine, state, state.lastMs);
  const plan = planFor(machine, catalogue, state, bench);
  return { state, bench, plan, left: plan.steps.slice(plan.done) };
};

/** What one tap records: the choice by number, every screw counted, a reading where one is asked for. */
function tap(machine: Machine, step: PlanStep, choice: number, cleared: boolean): OrderEvent[] {
  const chosen = step.choices?.[choice % step.choices.length];
  const [solvent] = step.solvents ?? [];
  return [
    ...(solvent ? [event('solvent-tried', { solvent: solvent.id, softened: true })] : []),
    ...stepEntries(step, chosen).map(({ type, body }) => event(type, body)),
    ...(step.closes
      ? allFasteners(machine, step.closes, step.way, 'in').map(({ type, body }) => event(type, body))
      : []),
    step.kind === 'rung'
      ? event('rung-tried', {
          stepId: step.id,
          remedy: step.remedy ?? '',
          station: step.station ?? '',
          mode: step.mode ?? '',
          outcome: cleared ? 'cleared' : 'no-change',
        })
      : event('step-done', { stepId: step.id }),
  ];
}

const aCase = fc
  .record({
    machine: fc.constantFrom(...machines),
    n: fc.nat(200),
    luck: fc.array(fc.nat(99), { minLength: 40, maxLength: 40 }),
  })
  .map(({ machine, n, luck }) => {
    const causes = causesOf({ machine, catalogue, symptoms: [], before: [], material: 'PLA' }, routeOf(machine));
    const cause = causes[n % causes.length];
    if (!cause) throw new Error('test data');
    return { machine, luck, station: cause.stop.station.id, mode: cause.mode.id };
  });

test('opening and closing are each other’s reverse, and nothing is closed over a part that is missing', () => {
  fc.assert(
    fc.property(aCase, ({ machine, station, mode }) => {
      const { left } = planNow(machine, [
        takenIn(machine, { material: 'PLA' }),
        event('cause-chosen', { station, mode, advised: true }),
      ]);
      const off = new Map<string, string | undefined>();
      for (const step of left) {
        if (step.opens !== undefined) {
          expect(off.has(step.opens)).toBe(false);
          for (const id of removalOf(machine, step.opens, step.way)?.after ?? []) expect(off.has(id)).toBe(true);
          off.set(step.opens, step.way);
        }
        if (step.closes !== undefined) {
          expect(off.has(step.closes)).toBe(true);
          off.delete(step.closes);
          for (const [id, way] of off) expect(removalOf(machine, id, way)?.after ?? []).not.toContain(step.closes);
        }
      }
      expect([...off.keys()]).toEqual([]);
    }),
    { numRuns: 120, seed: 20261126 },
  );
});

test('after skipping, failing and doing out of turn the plan still comes to an end that can be proved and closed', () => {
  fc.assert(
    fc.property(aCase, ({ machine, station, mode, luck }) => {
      const events: OrderEvent[] = [
        takenIn(machine, { material: 'PLA' }),
        event('cause-chosen', { station, mode, advised: true }),
      ];
      let failed = 0;
      for (let i = 0; i < 260; i++) {
        const { left, bench, plan } = planNow(machine, events);
        const [first] = left;
        if (!first) break;
        const dice = luck[i % luck.length] ?? 0;
        const free = left.filter((step) => heldBecause(step, bench, machine) === undefined);
        const step = i < 30 && dice > 85 ? (free[dice % free.length] ?? first) : first;
        if (i < 30 && dice < 8 && (step.kind === 'spares' || step.kind === 'keep' || step.kind === 'act')) {
          events.push(event('step-skipped', { stepId: step.id, why: 'not needed' }));
          // What is skipped with a reason does not come back.
          const again = planNow(machine, events).left.map(({ id }) => id.replace(/#\d+$/, ''));
          if (step.kind !== 'act' || !step.solvents) expect(again).not.toContain(step.id.replace(/#\d+$/, ''));
          continue;
        }
        // The step that comes next in its turn is never held by the machine as it stands, but for what a reading ends.
        const spent = plan.ladders.every(({ rungs }) => rungs.filter((rung) => rung.spent === undefined).length <= 1);
        const cleared = failed >= 2 || spent;
        if (step.kind === 'rung' && !cleared) failed++;
        events.push(...tap(machine, step, dice, cleared));
      }
      const { state, plan } = planNow(machine, events);
      expect(plan.done).toBe(plan.steps.length);
      for (const proof of proofsFor(machine, catalogue, state))
        events.push(event('proof-recorded', { proof: proof.id, passed: true, ranMinutes: 900, reachedMm: 900 }));
      expect(closingFaults(machine, catalogue, stateOf(machine, events))).toEqual([]);
      const closed = event('closed', { outcome: 'cured' });
      expect(judge(machine, catalogue, events, closed).closed?.outcome).toBe('cured');
    }),
    { numRuns: 80, seed: 20261126 },
  );
});
