import fc from 'fast-check';
import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { plainEvidence } from '../testing/evidence';
import { dunlin, whelk } from '../testing/machines';
import { routeOf } from '../path/route';
import { causesOf } from '../observation/causes';
import type { Case, Finding } from '../observation/context';
import { answerLikelihood, outcomesOf } from '../observation/likelihood';
import { checksFor, type CheckAtPlace } from '../bench/places';
import { QUICK } from './hypotheses';
import type { Evidence } from './evidence';
import { evidenceOf } from './evidenceOf';
import { Joint } from './joint';
import { FURTHER_SHARE } from './prior';
import { suspect, weigh } from './suspicion';

const kase = (machine = dunlin, rest: Partial<Case> = {}): Case => ({
  machine,
  catalogue,
  symptoms: [],
  before: [],
  ...rest,
});
const placesOf = (machine = dunlin): ReadonlyMap<string, CheckAtPlace> =>
  new Map(checksFor(catalogue, machine, routeOf(machine)).map((place) => [place.key, place]));

/** An answer by itself, of one cause. Flattened by a fifth it comes to what is wanted of something on no list. */
const plain = (id: string, likelihood: number, sound: number, elsewhere = sound, aside = sound): Evidence =>
  plainEvidence(id, [likelihood], { sound, flat: (elsewhere - 0.8 * likelihood) / 0.2, elsewhere, aside });

describe('Bayes', () => {
  // Eddy 1982, Probabilistic reasoning in clinical medicine: prior 1 %, hit 80 %, false 9.6 %.
  test('a check value everybody knows: 7.76 %', () => {
    const cause = causesOf(kase(), routeOf(dunlin))[0];
    if (!cause) throw new Error('test data');
    const told = plain('mammogram', 0.8, 0.096);
    // One cause only: what is set apart for more faults at once falls to nobody.
    const { p } = weigh([cause], [0.01 / (1 - FURTHER_SHARE), 0.99], [told]);
    expect(p[0]).toBeCloseTo(0.0776, 4);
  });

  test('something on no list either shows on the path or lies aside of it: half and half, worked by hand', () => {
    const cause = causesOf(kase(), routeOf(dunlin))[0];
    if (!cause) throw new Error('test data');
    // Ten checks that find all sound; four in five such answers if it shows, 19 in 20 if it lies aside.
    const told = Array.from({ length: 10 }, (_, i) => plain(`check ${i}`, 0.9, 0.9, 0.8, 0.95));
    const { share, aside } = weigh([cause], [0.9 / (1 - FURTHER_SHARE), 0.1], told);
    const [shows, lies] = [0.5 * 0.8 ** 10, 0.5 * 0.95 ** 10];
    expect(aside).toBeCloseTo(lies / (shows + lies), 9);
    expect(share.at(-1)).toBeCloseTo((0.1 * (shows + lies)) / (0.1 * (shows + lies) + 0.9 * 0.9 ** 10), 4);
  });

  test('what is kept of a component of observations does not mix up sets or weights', () => {
    const route = routeOf(dunlin);
    const places = placesOf();
    // Witnesses that share errors, so that weights differ from set to set.
    const list: Finding[] = [
      { id: '1', key: 'tug@coupler-a', result: 'moves' },
      { id: '2', key: 'tug@port-a', result: 'holds' },
      { id: '3', key: 'push-strand@gate-a>end', result: 'drags' },
      { id: '4', key: 'pull-strand@extruder', result: 'drags' },
      { id: '5', key: 'free-air@nozzle', result: 'thin' },
    ];
    const causes = causesOf(kase(), route);
    const evidence = evidenceOf(kase(dunlin, { symptoms: ['thin'] }), causes, places, list);
    const shared = new Joint(causes, evidence);
    const set = fc.uniqueArray(fc.nat(causes.length - 1), { minLength: 1, maxLength: 3 });
    fc.assert(
      fc.property(set, (members) => {
        const inOrder = [...members].sort((a, b) => a - b);
        expect(shared.logLikelihood(inOrder)).toBeCloseTo(new Joint(causes, evidence).logLikelihood(inOrder), 12);
      }),
      { numRuns: 400 },
    );
  });
});

/** Any sequence of answers that the checks of a machine can give. */
function findings(machine = dunlin): fc.Arbitrary<readonly Finding[]> {
  const places = [...placesOf(machine).values()].filter((place) => !place.check.asks);
  const one = fc
    .record({
      place: fc.constantFrom(...places),
      pick: fc.nat(1000),
      share: fc.double({ min: 0, max: 1, noNaN: true }),
    })
    .map(({ place, pick, share }): Omit<Finding, 'id'> => {
      const { quantity, results } = place.check;
      const result = results[pick % results.length] as (typeof results)[number];
      const [from, to] = place.reachMm ?? [0, 0];
      if (quantity)
        return { key: place.key, result: result.id, value: quantity.min + share * (quantity.max - quantity.min) };
      if (result.depth) return { key: place.key, result: result.id, value: share * (to - from) };
      return { key: place.key, result: result.id };
    });
  return fc.array(one, { maxLength: 7 }).map((list) => list.map((item, i) => ({ id: `f${i}`, ...item })));
}

describe.each([
  ['Dunlin', dunlin],
  ['Whelk', whelk],
])('properties on %s', (_name, machine) => {
  const route = routeOf(machine);
  const places = placesOf(machine);
  // What holds must hold at any breadth of the search; the quick one is many times as fast.
  const run = (list: readonly Finding[]) => suspect(kase(machine), route, places, list, QUICK).p;

  test('suspicions sum to one and "something else" never reaches zero', () => {
    fc.assert(
      fc.property(findings(machine), (list) => {
        const p = run(list);
        expect(p.reduce((sum, x) => sum + x, 0)).toBeCloseTo(1, 9);
        expect(p.at(-1)).toBeGreaterThan(0);
      }),
      { numRuns: 40 },
    );
  });

  test('the order of findings does not matter, to the last bit', () => {
    fc.assert(
      fc.property(findings(machine), (list) => {
        expect(run([...list].reverse())).toEqual(run(list));
      }),
      { numRuns: 40 },
    );
  });

  test('not sure changes nothing, to the last bit', () => {
    fc.assert(
      fc.property(findings(machine), fc.constantFrom(...places.keys()), (list, key) => {
        const before = run(list);
        expect(run([...list, { id: 'x', key, result: 'not-sure' }])).toEqual(before);
      }),
      { numRuns: 40 },
    );
  });

  test('for every cause the answers of every check sum to one', () => {
    const causes = causesOf(kase(machine), route);
    for (const place of places.values()) {
      const outcomes = outcomesOf(place, route, catalogue);
      for (const cause of causes) {
        const sum = outcomes.reduce((total, outcome) => total + answerLikelihood(catalogue, place, outcome, cause), 0);
        expect(sum).toBeCloseTo(1, 4);
      }
    }
  });
});

describe('what a finding means', () => {
  const route = routeOf(dunlin);
  const places = placesOf();
  const sums = ({ causes, share }: ReturnType<typeof suspect>): ReadonlyMap<string, number> => {
    const of = new Map<string, number>();
    causes.forEach(({ stop: { station } }, i) => of.set(station.id, (of.get(station.id) ?? 0) + (share[i] ?? 0)));
    return of;
  };
  // Directions and factors hold at any breadth of the search, and the quick one is many times as fast.
  const byStation = (list: readonly Finding[], rest: Partial<Case> = {}): ReadonlyMap<string, number> =>
    sums(suspect(kase(dunlin, rest), route, places, list, QUICK));
  const at = (station: string, list: readonly Finding[], rest: Partial<Case> = {}): number =>
    byStation(list, rest).get(station) ?? 0;
  const push = 'push-strand@gate-a>end';

  test('a depth moves suspicion to the stations near that depth, from the machine’s own geometry', () => {
    const entry = places.get(push)?.entryMm ?? 0;
    const before = byStation([]);
    for (const id of ['buffer-a', 'tube-a', 'hub', 'extruder']) {
      const stop = route.stops.find((item) => item.station.id === id);
      const depth = ((stop?.fromMm ?? 0) + (stop?.toMm ?? 0)) / 2 - entry;
      const found = byStation([{ id: 'd', key: push, result: 'stops', value: depth }]);
      expect(found.get(id)).toBeGreaterThan(3 * (before.get(id) ?? 1));
      expect(Math.max(...found.values())).toBe(found.get(id));
    }
    // The same depth on a path that is 100 mm longer ahead of the hub lies in the tube.
    const hub = route.stops.find((item) => item.station.id === 'hub');
    expect(at('hub', [{ id: 'd', key: push, result: 'stops', value: (hub?.fromMm ?? 0) - entry - 100 }])).toBeLessThan(
      0.05,
    );
  });

  test('a span that passes loses suspicion, what lies beyond gains', () => {
    const passed = [{ id: 'p', key: 'push-strand@gate-a>port-a', result: 'passes' }];
    expect(at('tube-a', passed, { symptoms: ['not-reach'] })).toBeLessThan(
      at('tube-a', [], { symptoms: ['not-reach'] }) / 3,
    );
    expect(at('hub', passed, { symptoms: ['not-reach'] })).toBeGreaterThan(at('hub', [], { symptoms: ['not-reach'] }));
  });

  test('left blocked, right fine clears what they share', () => {
    const works = [{ id: 'l', key: 'other-lane@spool-a', result: 'works' }];
    expect(at('nozzle', works)).toBeLessThan(at('nozzle', []) / 5);
  });

  test('onset and history raise: a hot switch-off points to the liner, a hotter plastic before to the nozzle', () => {
    const [hotOff, untold, cooler] = [{ onset: 'hot-off' }, {}, { hotterBefore: true, onset: 'hotter-to-cooler' }].map(
      (rest) => sums(suspect(kase(whelk, rest), routeOf(whelk), placesOf(whelk), [], QUICK)),
    );
    expect(hotOff?.get('liner')).toBe(Math.max(...(hotOff?.values() ?? [])));
    expect(hotOff?.get('liner')).toBeGreaterThan(2 * (untold?.get('liner') ?? 1));
    expect(cooler?.get('nozzle')).toBeGreaterThan(0.6);
  });

  test('the same check again is worth less than a second witness', () => {
    const one = at('nozzle', [{ id: 'a', key: 'free-air@nozzle', result: 'leans' }]);
    const two = at('nozzle', [
      { id: 'a', key: 'free-air@nozzle', result: 'leans' },
      { id: 'b', key: 'free-air@nozzle', result: 'leans' },
    ]);
    const odds = (share: number): number => share / (1 - share);
    const factor = odds(one) / odds(at('nozzle', []));
    expect(odds(two) / odds(one)).toBeLessThan(factor);
    expect(two).toBeGreaterThan(one);
  });

  test('"something else" gains where a fault shows and none of what would show it so is seen; and not where it is seen', () => {
    const heard: Finding[] = [
      { id: '1', key: 'listen@extruder', result: 'slips' },
      { id: '2', key: 'feed-100@extruder', result: 'mm', value: 78 },
    ];
    const looked = (result: string): Finding[] => [
      ...heard,
      { id: '3', key: 'look-gears@extruder', result, finished: true },
    ];
    const of = (findings: readonly Finding[]): number => suspect(kase(), route, places, findings, QUICK).p.at(-1) ?? 0;
    expect(of(looked('clean'))).toBeGreaterThan(1.5 * of(heard));
    expect(of(looked('worn'))).toBeLessThan(0.5 * of(heard));
  });

  test('what was seen in five places is not laid to something else', () => {
    const strange: Finding[] = [
      { id: '1', key: 'ohms@block', result: 'kohm', value: 900 },
      { id: '2', key: 'look-cutter@cutter', result: 'blunt' },
      { id: '3', key: 'feel-fan@sink', result: 'dead' },
      { id: '4', key: 'look-gears@extruder', result: 'loose' },
      { id: '5', key: 'turn-spool@spool-a', result: 'tangled' },
    ];
    const { share } = suspect(kase(), route, places, strange);
    expect(share.at(-1)).toBeLessThan(0.05);
    expect(share.slice(0, -1).reduce((sum, x) => sum + x, 0)).toBeGreaterThan(1);
  });

  test('an answer that the check does not give is refused', () => {
    const cause = causesOf(kase(), route)[0];
    const place = places.get('glide@hub');
    if (!cause || !place) throw new Error('test data');
    expect(() => answerLikelihood(catalogue, place, { result: 'nonsense' }, cause)).toThrow(/no result/);
  });
});
