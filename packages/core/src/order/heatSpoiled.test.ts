import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { assess } from '../explain/assess';
import { laneRuns, routeOf } from '../path/route';
import { heldBecause, mayOverride, planFor } from '../plan/plan';
import { dunlin, event, finding, stateOf, takenIn } from '../testing/machines';
import { benchAt } from './bench';
import type { OrderEvent } from './events';

// Common practice, no source: with heater or thermistor at fault nothing is heated before it is mended; the strand is cut.

const LANE = laneRuns(dunlin)[0]?.id ?? '';
const block = routeOf(dunlin, LANE).stops.find(({ station }) => station.kind === 'heat-block')?.station.id ?? '';
const WATCH = `watch-temp@${block}`;
const told = takenIn(dunlin, { material: 'PLA', lane: LANE, symptoms: ['heat-error', 'thin'] });
const cause = (mode: string): OrderEvent => event('cause-chosen', { station: block, mode, advised: true });
const tried = (mode: string, remedy: string, outcome: 'cleared' | 'no-change', minute: number): OrderEvent =>
  event('rung-tried', { stepId: `rung:${block}:${mode}:${remedy}`, remedy, station: block, mode, outcome }, minute);
const spoiled = (...events: OrderEvent[]): boolean => stateOf(dunlin, [told, ...events]).heatSpoiled;
const plan = (...events: OrderEvent[]) => {
  const state = stateOf(dunlin, [told, ...events]);
  const bench = benchAt(dunlin, state, state.lastMs);
  const { steps, done } = planFor(dunlin, catalogue, state, bench);
  return { bench, steps: steps.slice(done) };
};

describe('heater or thermistor at fault', () => {
  test.each(['heater-fault', 'thermistor-fault', 'reads-false', 'heat-runs-on'])(
    '%s: nothing is heated before it is mended, and the strand is cut',
    (mode) => {
      const { steps } = plan(event('bench-changed', { strand: { [LANE]: 'in' } }), cause(mode));
      const mend = steps.findIndex(({ kind }) => kind === 'rung');
      expect(mend).toBeGreaterThan(0);
      expect(
        steps.filter((step, i) => i < mend && (step.need.heat === 'hot' || (step.sets?.targetC ?? 0) > 0)),
      ).toEqual([]);
      expect(steps.slice(0, mend).map(({ id }) => id)).not.toContainEqual(expect.stringMatching(/^unload:\d/));
    },
  );

  test('of a sound heater the strand comes out at heat', () => {
    const { steps } = plan(event('bench-changed', { strand: { [LANE]: 'in' } }), cause('joint-leak'));
    expect(steps.some(({ sets }) => (sets?.targetC ?? 0) > 0)).toBe(true);
  });

  test('what is heating is told to stop first', () => {
    const hot = event('bench-changed', { power: 'on', targetC: 208, readingC: 208 });
    expect(plan(hot, cause('thermistor-fault')).steps[0]?.sets?.targetC).toBe(0);
    expect(plan(hot, cause('nozzle-worn')).steps[0]?.sets?.targetC).not.toBe(0);
  });

  test('a step at heat is held until the repair is done', () => {
    const job = routeOf(dunlin, LANE).stops.find(({ station }) => station.kind === 'job')?.station.id ?? '';
    const other = event('cause-added', { station: job, mode: 'bed-close' });
    const { steps, bench } = plan(cause('heater-fault'), other);
    const heats = steps.find(({ sets }) => (sets?.targetC ?? 0) > 0);
    const mends = steps.findIndex(({ kind, mode }) => kind === 'rung' && mode === 'heater-fault');
    if (!heats || mends < 0) throw new Error('test data');
    expect(steps.indexOf(heats)).toBeGreaterThan(mends);
    expect(heldBecause(heats, bench, dunlin)).toMatch(/the heating is at fault/);
    expect(heldBecause(heats, { ...bench, heatSpoiled: false }, dunlin) ?? '').not.toMatch(/at fault/);
    // Nor under one's own name: a wrong entry is taken back, or the temperature watched again.
    expect([mayOverride(heats, bench, dunlin), mayOverride(heats, { ...bench, heatSpoiled: false }, dunlin)]).toEqual([
      false,
      true,
    ]);
  });

  test('it is over once a repair cleared it, and not when it brought nothing', () => {
    expect(spoiled(cause('heater-fault'))).toBe(true);
    expect(spoiled(cause('heater-fault'), tried('heater-fault', 'seat-heater', 'no-change', 1))).toBe(true);
    expect(spoiled(cause('heater-fault'), tried('heater-fault', 'seat-heater', 'cleared', 1))).toBe(false);
    expect(spoiled(cause('block-bare'))).toBe(false);
  });
});

describe('what a look at the temperature says', () => {
  const said = (result: string, minute = 0): OrderEvent => ({ ...finding(WATCH, result), ...at(minute) });
  const at = (minute: number) => ({ at: event('note-added', { text: 'x' }, minute).at });

  test('an error counts until it is steady again, or until what may be behind it was mended', () => {
    expect(spoiled(said('error'))).toBe(true);
    expect(spoiled(said('slow'))).toBe(false);
    expect(spoiled(said('error'), said('steady', 1))).toBe(false);
    const bare = [cause('block-bare'), tried('block-bare', 'fit-insulation', 'cleared', 2)];
    expect(spoiled(said('error', 1), ...bare)).toBe(false);
    // What came before the error did not mend it, nor does what has nothing to do with heat.
    expect(spoiled(...bare, said('error', 3))).toBe(true);
    expect(spoiled(said('error', 1), cause('joint-leak'), tried('joint-leak', 'tighten-hot', 'cleared', 2))).toBe(true);
  });

  test('a lead that is hurt counts until it is looked at again or mended; another check does not take it back', () => {
    const leads = (result: string, minute = 0): OrderEvent => ({
      ...finding(`look-leads@${block}`, result),
      ...at(minute),
    });
    expect(spoiled(leads('heater'))).toBe(true);
    expect(spoiled(leads('sound'))).toBe(false);
    expect(spoiled(leads('heater'), said('steady', 1))).toBe(true);
    expect(spoiled(said('error'), leads('sound', 1))).toBe(true);
    expect(spoiled(leads('heater'), leads('sound', 1))).toBe(false);
    const mended = [cause('heater-fault'), tried('heater-fault', 'seat-heater', 'cleared', 2)];
    expect(spoiled(leads('heater', 1), ...mended)).toBe(false);
    // Both were hurt, and one was mended.
    const both = event('finding-recorded', { key: `look-leads@${block}`, result: 'heater', also: ['thermistor'] }, 1);
    expect(spoiled(both, ...mended)).toBe(true);
  });

  test('no check at heat is offered then, but those that look at the heating', () => {
    const offered = (...events: OrderEvent[]) => {
      const state = stateOf(dunlin, [told, ...events]);
      return assess(dunlin, catalogue, state, benchAt(dunlin, state, state.lastMs), {
        depth: 1,
        quick: true,
      }).checks.flatMap(({ heat, key }) => (heat === 'hot' ? [key.split('@')[0]] : []));
    };
    const other = (key?: string): boolean => key !== 'watch-temp';
    expect(offered().some(other)).toBe(true);
    expect(offered(said('error')).filter(other)).toEqual([]);
  });

  test('at a heater that nothing stops the plug is pulled, however hot it is', () => {
    const hot = event('bench-changed', { power: 'on', targetC: 208, readingC: 214 });
    const state = stateOf(dunlin, [told, hot, said('over')]);
    expect([state.power, state.heat.targetC, state.heat.coldSure]).toEqual(['off', 0, false]);
    expect(benchAt(dunlin, state, state.lastMs)).toMatchObject({ power: 'off', heatSpoiled: true });
    expect(stateOf(dunlin, [told, hot, said('error')]).power).toBe('on');
    // Chosen without that look: the plan does not wait for it to cool below anything with the power on.
    expect(plan(hot, cause('heat-runs-on')).bench.power).toBe('off');
    expect(plan(hot, cause('heat-runs-on')).steps.map(({ id }) => id)).not.toContain('off');
  });
});
