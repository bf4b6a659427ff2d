import { caseText } from '../testing/audit';
import { plantsHeat } from '../testing/plantsHeat';
import { plantsOpen } from '../testing/plantsOpen';
import type { Plant } from '../testing/plantTools';
import { playPlan, type Accident, type AccidentId } from './index';

/** The referee is shown to work by planting every accident in sound plans: each is caught under its own name. */
describe('every accident is caught when it is planted', () => {
  const all: readonly Plant[] = [...plantsOpen(), ...plantsHeat()];
  test('each id in at least three sound plans', () => {
    const ids: readonly AccidentId[] = [
      'heat-unplugged',
      'power-loose',
      'heat-wet',
      'heat-unknown',
      'push-unsupported',
      'push-closed',
      'over-limit',
      'hot-hand',
      'off-hot',
      'open-held',
      'tube-full',
      'wrong-size',
      'nozzle-cold',
      'unmarked-hazard',
      'proof-open',
      'cured-unproved',
      'words-against-state',
    ];
    for (const id of ids) {
      const plans = new Set(all.filter(([own]) => own === id).map(([, , plan]) => caseText(plan.of)));
      expect([id, plans.size >= 3]).toEqual([id, true]);
    }
  });

  test.each(all.map((row, i) => [row[0], row[1], row[2].of.machine.id, i] as const))(
    '%s: %s (%s, %i)',
    (id, _what, _machine, i) => {
      const [, , plan, plant] = all[i] as Plant;
      const found: Accident | undefined = playPlan(plan.of.machine, plan.of.lane, plan.scene, plant(plan));
      expect(found?.id).toBe(id);
    },
  );
});
