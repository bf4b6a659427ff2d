import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { routeOf } from '../path/route';
import { dunlin, event, finding, stateOf, takenIn, whelk } from '../testing/machines';
import { assess } from './assess';
import { causesOf } from './causes';
import type { Case, Finding } from './context';
import { checksFor } from './places';
import { whatRemains } from './remains';
import { suspect } from './suspicion';
import { allWays, mass, observed, resultShares } from './ways';
import { lookOf } from './looks';

const route = routeOf(whelk);
const kase = (rest: Partial<Case> = {}): Case => ({ machine: whelk, catalogue, symptoms: [], before: [], ...rest });
const places = new Map(checksFor(catalogue, whelk, route).map((place) => [place.key, place]));
const believed = (list: readonly Finding[]) => suspect(kase(), route, places, list);
const pairShare = (list: readonly Finding[], a: string, b: string): number => {
  const { causes, pairs, p } = believed(list);
  const k = pairs.findIndex(({ first, second }) => {
    const ids = [causes[first]?.id, causes[second]?.id];
    return ids.includes(a) && ids.includes(b);
  });
  return k < 0 ? 0 : (p[causes.length + k] ?? 0);
};

describe('two causes at once', () => {
  const worn: Finding = { id: '1', key: 'look-nozzle@nozzle', result: 'lop-sided' };
  const fan: Finding = { id: '2', key: 'feel-fan@sink', result: 'dead' };
  // One odd reading is sooner a false alarm than a second fault; two that agree are not.
  const hot: Finding = { id: '3', key: 'sink-temp@sink', result: 'hot' };

  test('findings that no single cause explains bring up the pair that does', () => {
    const both = pairShare([worn, fan, hot], 'nozzle/nozzle-worn', 'sink/fan-wrong');
    expect(both).toBeGreaterThan(0.05);
    expect(both).toBeGreaterThan(3 * pairShare([worn, fan], 'nozzle/nozzle-worn', 'sink/fan-wrong'));
    expect(both).toBeGreaterThan(10 * pairShare([worn], 'nozzle/nozzle-worn', 'sink/fan-wrong'));
  });

  test('a pair that is often found together is likelier than chance makes it', () => {
    const together = pairShare([], 'extruder/gears-worn', 'extruder/arm-cracked');
    const without = {
      ...catalogue,
      modes: catalogue.modes.map(({ together: _gone, ...mode }) => mode),
    };
    const { causes, pairs, p } = suspect({ ...kase(), catalogue: without }, route, places, []);
    const k = pairs.findIndex(({ first, second }) =>
      ['extruder/gears-worn', 'extruder/arm-cracked'].every((id) =>
        [causes[first]?.id, causes[second]?.id].includes(id),
      ),
    );
    expect(k).toBeGreaterThanOrEqual(0);
    expect(together).toBeGreaterThan(4 * (p[causes.length + k] ?? 0));
  });

  test('a cause is suspected by itself and in its pairs', () => {
    const { share, p, causes, pairs } = believed([worn, fan, hot]);
    const i = causes.findIndex((cause) => cause.id === 'nozzle/nozzle-worn');
    const inPairs = pairs.reduce(
      (sum, pair, k) => sum + (pair.first === i || pair.second === i ? (p[causes.length + k] ?? 0) : 0),
      0,
    );
    expect(share[i]).toBeCloseTo((p[i] ?? 0) + inPairs, 12);
  });

  test('the screen is told, in words', () => {
    const state = stateOf(whelk, [
      takenIn(whelk),
      finding('look-nozzle@nozzle', 'lop-sided'),
      finding('feel-fan@sink', 'dead'),
      finding('sink-temp@sink', 'hot'),
    ]);
    const { pairs } = assess(whelk, catalogue, state, { temperatureC: 21, power: 'off', off: new Set() });
    expect(pairs[0]?.text).toMatch(/Nozzle: .*; and|and Nozzle:/);
  });
});

describe('after a cure, the rest of the evidence', () => {
  const order = (...more: Parameters<typeof finding>[]) =>
    stateOf(whelk, [
      takenIn(whelk, { symptoms: ['thin'] }),
      finding('look-gears@extruder', 'worn'),
      ...more.map((args) => finding(...args)),
      event('cause-chosen', { station: 'extruder', mode: 'gears-worn', advised: true }),
      event('rung-tried', { stepId: 'rung:renew-gears', remedy: 'renew-gears', outcome: 'cleared' }),
    ]);
  const left = (state: ReturnType<typeof order>, id: string): number =>
    whatRemains(whelk, catalogue, state).find((item) => `${item.station}/${item.mode}` === id)?.share ?? 0;

  test('worn gear cured, dead fan unexplained: the fan remains suspected', () => {
    const odd = order(['feel-fan@sink', 'dead'], ['sink-temp@sink', 'hot']);
    expect(left(odd, 'sink/fan-wrong')).toBeGreaterThan(0.3);
    expect(left(order(), 'sink/fan-wrong')).toBeLessThan(0.05);
  });

  test('a proof that the second fault would have failed speaks against it', () => {
    const before = order(['look-nozzle@nozzle', 'lop-sided']);
    const proved = { ...before, proofs: { straight: { proof: 'straight', passed: true, at: '' } } };
    expect(left(proved, 'nozzle/nozzle-worn')).toBeLessThan(left(before, 'nozzle/nozzle-worn') / 2);
  });

  test('nothing is said while no cause is chosen', () => {
    expect(whatRemains(whelk, catalogue, stateOf(whelk, [takenIn(whelk)]))).toEqual([]);
  });
});

describe('the ways in which a cause shows', () => {
  const dunlinRoute = routeOf(dunlin);
  const stub = causesOf({ ...kase(), machine: dunlin }, dunlinRoute).find((cause) => cause.id === 'hub/stub');
  const push = checksFor(catalogue, dunlin, dunlinRoute).find((place) => place.key === 'push-strand@gate-a>end');
  const look = push && lookOf(push.check);
  if (!stub || !look) throw new Error('test data');

  test('an observation weighs them as Bayes does, enumerated by hand', () => {
    // Blocked 0.85, drags 0.1, free 0.05; an answer four times as likely when blocked as otherwise.
    const seen = observed(allWays(stub.mode), look, [0.8, 0.2, 0.2]);
    expect(mass(seen)).toBeCloseTo(0.85 * 0.8 + 0.15 * 0.2, 12);
    const [blocked = 0] = resultShares(seen, look);
    expect(blocked).toBeCloseTo((0.85 * 0.8) / (0.85 * 0.8 + 0.15 * 0.2), 12);
  });

  test('what was not looked at stays as the mode has it', () => {
    const seen = observed(allWays(stub.mode), look, [1, 0.01, 0.01]);
    const knocks = { results: [{ when: { grip: ['knocks'] } }, {}] };
    expect(resultShares(seen, knocks)[0]).toBeCloseTo(0.35, 12);
  });
});
