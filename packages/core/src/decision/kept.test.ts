import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { benchAt } from '../order/bench';
import { planFor } from '../plan/plan';
import { event, finding, START, stateOf, takenIn, whelk } from '../testing/machines';
import { assess } from '../explain/assess';
import { workOut } from './working';

/** A swap that cured leaves the good part in the machine. Common practice, no source. */
const cured = (more: readonly ReturnType<typeof event>[] = []) =>
  stateOf(whelk, [
    takenIn(whelk, { symptoms: ['thin'] }),
    finding('free-air@nozzle', 'thin'),
    finding('swap-nozzle@nozzle', 'cured'),
    ...more,
  ]);
const remediesAt = (state: ReturnType<typeof cured>, station: string): readonly string[] =>
  workOut(whelk, catalogue, state).model.groups.flatMap((group) =>
    group.station.id === station ? [group.remedy.id] : [],
  );
const vain = (station: string, mode: string, remedy: string) => [
  event('cause-chosen', { station, mode, advised: true }),
  event('rung-tried', { stepId: `rung:${remedy}`, remedy, outcome: 'cleared' }),
  event('not-cured', {}),
];

test('it stays in: nothing is done in the machine to a nozzle that lies on the bench', () => {
  const state = cured();
  expect(remediesAt(state, 'nozzle')).toEqual(['keep-nozzle']);
  expect(remediesAt(stateOf(whelk, [takenIn(whelk)]), 'nozzle')).not.toContain('keep-nozzle');
  const { advice } = assess(whelk, catalogue, state, { temperatureC: 200, power: 'on', off: new Set() });
  expect(advice).toMatchObject({ kind: 'repair', station: 'nozzle', remedy: 'keep-nozzle' });
});

test('its plan takes nothing off and puts nothing in', () => {
  const state = cured([event('cause-chosen', { station: 'nozzle', mode: 'tip-particles', advised: true })]);
  const plan = planFor(whelk, catalogue, state, benchAt(whelk, state, Date.parse(START)));
  // Nobody is asked to look at a part before it is fitted that is in already.
  expect(plan.steps[0]).toMatchObject({ replaces: 'nozzle', fitted: true });
  expect(plan.steps.map(({ id }) => id)).toEqual(['rung:nozzle:tip-particles:keep-nozzle', 'keep:nozzle']);
});

test('refuted by a proof, or not cured by the swap, the nozzle has its ladder again', () => {
  const refuted = remediesAt(cured(vain('nozzle', 'tip-particles', 'keep-nozzle')), 'nozzle');
  expect(refuted).not.toContain('keep-nozzle');
  expect(refuted.length).toBeGreaterThan(0);
  // A repair in vain elsewhere says nothing of it.
  expect(remediesAt(cured(vain('spool', 'spool-drags', 'free-spool')), 'nozzle')).toEqual(['keep-nozzle']);
  const same = stateOf(whelk, [takenIn(whelk), finding('swap-nozzle@nozzle', 'same')]);
  expect(remediesAt(same, 'nozzle')).not.toContain('keep-nozzle');
});
