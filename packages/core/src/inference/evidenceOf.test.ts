import { checksFor } from '../bench/places';
import { deliveredCatalogue as catalogue, remedyById } from '../catalogue/index';
import type { Proof } from '../catalogue/types';
import type { Case, FailedRepair, Finding } from '../observation/context';
import { causesOf, type Cause } from '../observation/causes';
import { itemLook, proofReaches } from '../observation/looks';
import { allWays, resultShares } from '../observation/ways';
import { routeOf } from '../path/route';
import { dunlin } from '../testing/machines';
import type { Evidence } from './evidence';
import { evidenceOf } from './evidenceOf';
import { priorOf } from './prior';
import { chanceRemoved } from './removal';

const route = routeOf(dunlin);
const places = new Map(checksFor(catalogue, dunlin, route).map((place) => [place.key, place]));
const kase = (rest: Partial<Case> = {}): Case => ({ machine: dunlin, catalogue, symptoms: [], before: [], ...rest });
const causes = causesOf(kase(), route);
const of = (rest: Partial<Case>, findings: readonly Finding[] = []): readonly Evidence[] =>
  evidenceOf(kase(rest), causes, places, findings);
const only = (list: readonly Evidence[]): Evidence => {
  if (list.length !== 1 || !list[0]) throw new Error(`${list.length} pieces of evidence`);
  return list[0];
};
/** What it says of the first cause that fits. */
const says = (item: Evidence, fits: (cause: Cause) => boolean): unknown => item.given[causes.findIndex(fits)];
const at = (station: string, mode?: string) => (cause: Cause) =>
  cause.stop.station.id === station && (mode === undefined || cause.mode.id === mode);

describe('what was done before it came in', () => {
  // The remedy's own chance of a cure, t: the weights are chosen; each formula by hand.
  const brush = remedyById(catalogue, 'brush-gears')?.cures ?? 0;
  test.each([
    ['same', 1, 1 - 0.8 * brush],
    ['worse', 0.1, 0.1 + 0.1 * brush],
    ['better', 0.1, 0.1 + 0.5 * brush],
    ['cured', 0.05, 0.05 + 0.6 * brush],
  ] as const)('a remedy that was tried, and came out as %s, speaks of what it is for', (result, others, treated) => {
    expect(brush).toBeGreaterThan(0);
    const item = only(of({ before: ['gears-cleaned'], tried: [{ id: 'gears-cleaned', result }] }));
    expect(item).toMatchObject({ trust: 0.6, combine: 'any', tried: { id: 'gears-cleaned', result } });
    expect(says(item, at('extruder', 'gears-fouled'))).toBeCloseTo(treated, 12);
    expect(says(item, at('hub', 'stub'))).toBeCloseTo(others, 12);
  });

  test('without what came of it, it speaks of nothing, unless it is a check too', () => {
    expect(of({ before: ['gears-cleaned'] })).toEqual([]);
    const swap = only(of({ before: ['spool-swapped'] }));
    expect(swap).toMatchObject({ trust: 0.6, finding: { result: 'same' }, epoch: 0, combine: 'any' });
  });

  test('a swap that cured before is heard as one that cured; one after which it was worse is not heard as a check', () => {
    const told = (result: 'cured' | 'worse' | 'better') =>
      of({ before: ['spool-swapped'], tried: [{ id: 'spool-swapped', result }] });
    expect(only(told('cured'))).toMatchObject({ finding: { result: 'cured' }, combine: 'all', trust: 0.6 });
    expect(told('worse')).toEqual([]);
    expect(told('better')).toEqual([]);
  });

  test('a cold pull before: clean if nothing changed, a remedy if something did', () => {
    const told = (result: 'same' | 'cured') =>
      only(of({ before: ['cold-pulled'], tried: [{ id: 'cold-pulled', result }] }));
    expect(told('same').finding?.result).toBe('clean');
    expect(told('cured').finding).toBeUndefined();
    expect(told('cured').tried).toEqual({ id: 'cold-pulled', result: 'cured' });
  });
});

test('a number told at take-in is heard as that check’s answer, within what it can be', () => {
  const ask = [...places.values()].find(({ check }) => check.intake === 'failedAfterMinutes');
  const most = ask?.check.quantity?.max ?? 0;
  expect(only(of({ failedAfterMinutes: 40 }))).toMatchObject({ trust: 0.6, finding: { key: ask?.key, value: 40 } });
  expect(only(of({ failedAfterMinutes: most + 1000 })).finding?.value).toBe(most);
});

test('a message speaks for where it names and what lies ahead of it, and half against what lies behind', () => {
  const item = only(of({ noticedAt: 'sensor' }));
  expect(item).toMatchObject({ trust: 0.6, combine: 'any', noticed: 'sensor' });
  expect([at('hub'), at('sensor'), at('extruder')].map((where) => says(item, where))).toEqual([1, 1, 0.45]);
  expect(of({ noticedAt: 'nowhere' })).toEqual([]);
});

describe('a look at several things', () => {
  const gears = (rest: Partial<Finding>): Finding => ({ id: 'f', key: 'look-gears@extruder', result: 'worn', ...rest });
  const told = (finding: Finding) => of({}, [finding]).map(({ item }) => [item?.result, item?.there]);
  const names = (places.get('look-gears@extruder')?.check.results ?? []).map(({ id }) => id);

  test('not finished, only what is ticked speaks; finished, what is not ticked is not there', () => {
    expect(told(gears({ also: ['cracked'] }))).toEqual([
      ['cracked', true],
      ['worn', true],
    ]);
    const all = told(gears({ finished: true }));
    expect(all.map(([name]) => name)).toEqual(names.slice(0, -1));
    expect(all.filter(([, there]) => there)).toEqual([['worn', true]]);
  });

  test('that all is well says of each thing that it is not there', () => {
    const all = told(gears({ result: names.at(-1) ?? '' }));
    expect(all).toHaveLength(names.length - 1);
    expect(all.some(([, there]) => there)).toBe(false);
  });

  test('what is not there is told by as much as the check misses, where it reaches; elsewhere it is as good as sure', () => {
    const item = of({}, [gears({})])[0] as Evidence;
    const { check } = places.get('look-gears@extruder') as NonNullable<ReturnType<typeof places.get>>;
    const absent = says(item, at('hub'));
    expect(typeof absent).toBe('number');
    expect(item.sound).toBe(absent);
    const here = says(item, at('extruder', 'gears-worn'));
    expect(here).toEqual([expect.any(Number), absent]);
    expect((here as readonly number[])[0]).toBeGreaterThan(1 - 2 * check.miss);
    expect(item.flat).toBeCloseTo(1 / names.length, 12);
    const other = of({}, [gears({ finished: true })]).find((one) => one.item?.result === 'cracked');
    expect(other?.flat).toBeCloseTo(1 - 1 / names.length, 12);
  });

  test('a word that the check does not have is refused; "not sure" says nothing', () => {
    expect(() => of({}, [gears({ result: 'purple' })])).toThrow(/has no result "purple"/);
    expect(() => of({}, [gears({ key: 'look-gears@moon' })])).toThrow(/no check "look-gears@moon"/);
    expect(of({}, [gears({ result: 'not-sure' })])).toEqual([]);
  });

  test('real, but not the cause: against what would look so at that place, and against nothing else', () => {
    const item = only(of({}, [gears({ innocent: true })]));
    expect(item).toMatchObject({ combine: 'all', aside: 1, sound: 1, flat: 1 });
    const worn = places.get('look-gears@extruder')?.check.results.find(({ id }) => id === 'worn');
    causes.forEach((cause, c) => {
      const shows = worn && (resultShares(allWays(cause.mode), itemLook(worn))[0] ?? 0) > 0.05;
      expect([cause.id, item.given[c]]).toEqual([cause.id, shows && cause.stop.station.id === 'extruder' ? 0.12 : 1]);
    });
    expect(says(item, at('extruder', 'gears-worn'))).toBe(0.12);
  });
});

describe('after a repair in vain', () => {
  const repair: FailedRepair = { id: 'r', station: 'hub', mode: 'stub', remedies: ['push-through'], after: 1 };
  const findings: readonly Finding[] = [
    { id: 'a', key: 'tug@coupler-a', result: 'holds' },
    { id: 'b', key: 'tug@port-a', result: 'holds' },
  ];

  test('what was found before it speaks of what it met, what was found since of what it left', () => {
    const list = of({ failed: [repair] }, findings);
    const epochs = Object.fromEntries(list.map(({ id, epoch }) => [id.split('#')[0], epoch]));
    expect(epochs).toEqual({ a: 0, b: 1, 'repair:r': 1 });
    // Without a word of when it was done, all findings came before it.
    const { after: _, ...whenever } = repair;
    expect(
      new Set(
        of({ failed: [whenever] }, findings)
          .slice(0, -1)
          .map(({ epoch }) => epoch),
      ),
    ).toEqual(new Set([0]));
  });

  test('the machine is still ill: 97 in 100 while the fault is left, 3 if it was taken away', () => {
    const item = of({ failed: [repair] }).find(({ id }) => id === 'repair:r') as Evidence;
    causes.forEach((cause, c) => {
      const gone = chanceRemoved(kase({ failed: [repair] }), repair, cause, causes);
      expect(item.given[c]).toBeCloseTo(0.97 * (1 - gone) + 0.03 * gone, 12);
    });
    expect([item.flat, item.sound]).toEqual([0.97, 0.03]);
  });

  test('a proof that passed sees nothing but what it misses; one that failed is mistaken three times in a hundred', () => {
    const proof = catalogue.proofs.find(({ id }) => id === 'cold-pass');
    const proved = (passed: boolean) =>
      of({ failed: [{ ...repair, proved: [{ proof: 'cold-pass', passed }] }] }).find(({ id }) =>
        id.startsWith('proof:'),
      ) as Evidence;
    const miss = proof?.miss ?? 0;
    const hub = causes.find(at('hub'))?.stop.index ?? NaN;
    expect(says(proved(true), at('hub', 'stub'))).toEqual([miss, 0.97]);
    expect(says(proved(false), at('hub', 'stub'))).toEqual([1 - miss, 0.03]);
    expect(proved(false)).toMatchObject({ epoch: 1, method: proof?.like, flat: 0.5 });
    // Which faults a test at the repaired place would fail on goes by where the repair was.
    const reachedBy = (of: Proof): readonly boolean[] => causes.map(({ stop }) => proofReaches(of, hub, stop));
    const near = catalogue.proofs.find((one) => one.fails && new Set(reachedBy(one)).size === 2);
    if (!near) throw new Error('test data');
    const here = of({ failed: [{ ...repair, proved: [{ proof: near.id, passed: true }] }] }).at(-1);
    expect(here?.given.map((g) => typeof g !== 'number')).toEqual(reachedBy(near));
    const without = catalogue.proofs.find(({ fails }) => !fails);
    if (without) expect(of({ failed: [{ ...repair, proved: [{ proof: without.id, passed: true }] }] })).toHaveLength(1);
  });
});

describe('what something on no list would show', () => {
  const prior = priorOf(causes).slice(0, -1);
  const whole = prior.reduce((sum, p) => sum + p, 0);
  const average = ({ likelihood }: Evidence): number =>
    likelihood.reduce((sum, l, c) => sum + (l * (prior[c] ?? 0)) / whole, 0);

  test('to an eye mostly nothing; to a hand or a meter what the listed faults show, flattened', () => {
    // A sight at an opened place, and a pull that nothing has to be opened for.
    const seen = of({}, [{ id: 'f', key: 'lift-hub@hub', result: 'stub' }]);
    const felt = of({}, [{ id: 'f', key: 'pull-strand@gate-a', result: 'drags' }]);
    expect([...seen, ...felt].map(({ eye }) => eye)).toEqual([...seen.map(() => true), ...felt.map(() => false)]);
    for (const item of seen) expect(item.elsewhere).toBeCloseTo(0.4 * average(item) + 0.6 * item.sound, 12);
    for (const item of felt) expect(item.elsewhere).toBeCloseTo(0.8 * average(item) + 0.2 * item.flat, 12);
    // A complaint is no look at an opened place, whatever it is about.
    expect(of({ symptoms: catalogue.symptoms.map(({ id }) => id) }).some(({ eye }) => eye)).toBe(false);
  });

  test('any complaint in three of ten, any beginning alike', () => {
    expect(only(of({ symptoms: ['thin'] })).flat).toBeCloseTo(0.3, 12);
    expect(only(of({ unseen: ['thin'] })).flat).toBeCloseTo(0.7, 12);
    expect(only(of({ onset: 'loading' })).flat).toBeCloseTo(1 / catalogue.onsets.length, 12);
  });
});

test('a push tells of the first fault that it meets, a pull by hand of any', () => {
  const met = (key: string, result: string) => of({}, [{ id: 'f', key, result, value: 100 }])[0]?.metFirst;
  const first = met('push-strand@gate-a>end', 'stops') ?? [];
  const rank = (station: string): number => first[causes.findIndex(at(station))] ?? NaN;
  expect(rank('hub')).toBeLessThan(rank('break'));
  expect(met('pull-strand@gate-a', 'drags')).toBeUndefined();
});

test('an answer that is given no more says what it said, and ticks nothing of today’s list', () => {
  const place = [...places.values()].find(({ check }) => check.items && check.earlier?.length);
  const word = place?.check.earlier?.[0];
  if (!place || !word) throw new Error('test data');
  const item = only(of({}, [{ id: 'f', key: place.key, result: word.id }]));
  expect(item.item).toBeUndefined();
  expect(item.flat).toBeCloseTo(word.stands.length / place.check.results.length, 12);
});

test('several beginnings speak each for itself, the same one once', () => {
  expect(of({ onset: 'loading', onsets: ['cold-room', 'loading'] }).map(({ onset }) => onset)).toEqual([
    'loading',
    'cold-room',
  ]);
});
