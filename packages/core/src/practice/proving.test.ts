import { deliveredCatalogue as catalogue, remedyById } from '../catalogue/index';
import { causesOf } from '../observation/causes';
import { allWays, resultShares } from '../observation/ways';
import { proofsFor } from '../order/proofs';
import { FAMILIES, machineOfFamily } from '../path/families';
import { laneRuns, routeOf } from '../path/route';
import { event, stateOf } from '../testing/machines';
import { provedAfter, testsAfter, type ToMeet } from './proving';

const machine = machineOfFamily('enclosed-rear', 'm', 'm');
const route = routeOf(machine);
const causes = causesOf({ machine, catalogue, symptoms: [], before: [] }, route);
const met = (id: string): ToMeet => {
  const cause = causes.find((item) => item.id === id);
  if (!cause) throw new Error(`no cause ${id}`);
  return { stop: cause.stop, shown: (look) => ((resultShares(allWays(cause.mode), look)[0] ?? 0) > 0.4 ? 1 : 0) };
};
const repaired = { station: 'sink', mode: 'fan-wrong', remedy: { id: 'refit-fan' } };
const ids = (list: readonly { readonly proof: string; readonly passed: boolean }[]) =>
  list.map(({ proof, passed }) => `${proof} ${passed ? 'passed' : 'failed'}`);
/** No test errs. */
const even = () => 0.5;

test.each(FAMILIES.map(({ id }) => id))(
  '%s: a simulated repair is put through the tests that an order asks for',
  (id) => {
    const of = machineOfFamily(id, id, id);
    const lane = laneRuns(of)[0]?.id;
    const way = routeOf(of, lane);
    const all = causesOf({ machine: of, catalogue, symptoms: [], before: [], ...(lane ? { lane } : {}) }, way);
    for (const { stop, mode } of all) {
      const remedy = remedyById(catalogue, mode.remedies[0] ?? '');
      if (!remedy) throw new Error(`${mode.id} has no remedy`);
      const station = stop.station.id;
      const state = stateOf(of, [
        event('taken-in', { number: 'a', machineId: of.id, symptoms: [], before: [], ...(lane ? { lane } : {}) }),
        event('cause-chosen', { station, mode: mode.id, advised: true }),
        event('rung-tried', { stepId: `rung:${remedy.id}`, remedy: remedy.id, outcome: 'cleared' }),
      ]);
      const asked = proofsFor(of, catalogue, state).filter(({ fails, onsets, form }) => fails && !onsets && !form);
      const tested = testsAfter(catalogue, way, { station, mode: mode.id, remedy });
      expect([station, mode.id, tested.map((proof) => proof.id)]).toEqual([
        station,
        mode.id,
        asked.map((proof) => proof.id),
      ]);
    }
  },
);

test('they go on to the first that meets something, and stop there', () => {
  const sound = provedAfter(catalogue, route, repaired, [], even);
  expect(sound.every(({ passed }) => passed)).toBe(true);
  expect(sound.map(({ proof }) => proof)).toEqual(
    expect.arrayContaining(['fan-blows', 'cold-pass', 'straight', 'feed']),
  );
  const plug = ids(provedAfter(catalogue, route, repaired, [met('nozzle/carbon-plug')], even));
  expect(plug).toContain('fan-blows passed');
  expect(plug.at(-1)).toMatch(/failed$/);
  expect(plug.filter((item) => item.endsWith('failed'))).toHaveLength(1);
});

test('a test of the repaired place meets nothing that lies far from it', () => {
  const still = ids(provedAfter(catalogue, route, repaired, [met('sink/fan-wrong')], even));
  expect(still.at(-1)).toBe('fan-blows failed');
  // A loose tube fails where a tube was worked on, not where a fan was.
  const loose = met('coupler/tube-out');
  const tube = { station: 'coupler', mode: 'tube-out', remedy: { id: 'push-home' } };
  expect(ids(provedAfter(catalogue, route, tube, [loose], even))).toContain('tube-snug failed');
  expect(ids(provedAfter(catalogue, route, repaired, [loose], even)).join()).not.toContain('tube-snug');
});

test('they err: one in ten passes what is there, three in a hundred fail what is not', () => {
  const fan = [met('sink/fan-wrong')];
  // The fan's proof passes one fault in twenty.
  expect(ids(provedAfter(catalogue, route, repaired, fan, () => 0.049))).toContain('fan-blows passed');
  expect(ids(provedAfter(catalogue, route, repaired, fan, () => 0.051))).toContain('fan-blows failed');
  expect(provedAfter(catalogue, route, repaired, [], () => 0.98)[0]?.passed).toBe(false);
  expect(provedAfter(catalogue, route, repaired, [], () => 0.96).every(({ passed }) => passed)).toBe(true);
});
