import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { dunlin, event, finding, stateOf, takenIn } from '../testing/machines';
import {
  learn,
  learnedCatalogue,
  lessonOfOrder,
  noCounts,
  nothingLearned,
  together,
  weightFactor,
  whatMoved,
  type Counts,
  type Learned,
  type Lesson,
} from './index';

const modes = (found: number, expected: number): Counts => ({
  ...noCounts,
  orders: 9,
  modes: { stub: { found, expected } },
});
const lesson = (family: string, machine: string, counts: Counts): Lesson => ({ family, machine, counts });

describe('levels, each by hand', () => {
  // Shape of the family's own factor: 1 / (1/3 + 1/12) = 12/5; of the machine's: 1 / (1 / (12/5 + 6) + 1/20), its mean that of the family.
  test('a sister’s orders move the family, and the machine follows with less certainty', () => {
    const family = modes(6, 2);
    const factor = weightFactor('stub', { shop: family, family, machine: noCounts });
    expect(factor).toBeCloseTo((12 / 5 + 6) / (12 / 5 + 2), 12);
    const machine = modes(5, 1);
    const both = modes(11, 3);
    const shape = 1 / (1 / (12 / 5 + 6) + 1 / 20);
    expect(weightFactor('stub', { shop: both, family: both, machine })).toBeCloseTo(
      (shape + 5) / (shape / factor + 1),
      12,
    );
  });

  test('a shop that counts less than its own machine, by an import that was cut, never counts below nothing', () => {
    const machine = modes(2, 1);
    const [shape] = [1 / (1 / 3 + 1 / 12 + 1 / 20)];
    expect(weightFactor('stub', { shop: noCounts, family: noCounts, machine })).toBeCloseTo(
      (shape + 2) / (shape + 1),
      12,
    );
  });

  // Dirichlet: the catalogue's word counts as seven.
  test('how a fault shows: the shares as seven orders, the counted ones added', () => {
    const mode = catalogue.modes.find(({ shows }) =>
      Object.values(shows).some((values) => Object.keys(values).length > 1),
    );
    const [dimension, values] = Object.entries(mode?.shows ?? {}).find(([, v]) => Object.keys(v).length > 1) ?? [];
    if (!mode || dimension === undefined || !values) throw new Error('test data');
    const [first = '', second = ''] = Object.keys(values);
    const shop: Counts = { ...noCounts, orders: 13, shows: { [mode.id]: { [dimension]: { [first]: 9, '': 4 } } } };
    const moved = learnedCatalogue(catalogue, { ...nothingLearned, shop }, dunlin).modes.find(
      ({ id }) => id === mode.id,
    );
    const now = (moved?.shows as Readonly<Record<string, Readonly<Record<string, number>>>>)[dimension] ?? {};
    expect(now[first]).toBeCloseTo((7 * (values as Record<string, number>)[first]! + 9) / 20, 12);
    expect(now[second]).toBeCloseTo((7 * (values as Record<string, number>)[second]!) / 20, 12);
  });
});

describe('what an order teaches of its checks', () => {
  const taughtBy = (...found: ReturnType<typeof finding>[]) =>
    lessonOfOrder(
      dunlin,
      catalogue,
      stateOf(dunlin, [
        takenIn(dunlin, { lane: 'lane-a', material: 'PLA', symptoms: ['not-reach'] }),
        ...found,
        event('cause-chosen', { station: 'hub', mode: 'stub', advised: true }),
        event('closed', { outcome: 'cured' }),
      ]),
    )?.counts.checks;

  test('a look at the fault that saw nothing missed it; one that saw it missed nothing', () => {
    const saw = taughtBy(finding('lift-hub@hub', 'stub'))?.['lift-hub'];
    expect(saw?.missed).toBe(0);
    expect(saw?.false).toBeLessThan(0.01);
    const silent = taughtBy(finding('lift-hub@hub', 'clear'))?.['lift-hub'];
    expect(silent?.present).toBeGreaterThan(0.5);
    expect(silent?.missed).toBe(silent?.present);
    expect(silent?.false).toBe(0);
  });

  test('two findings of one check add up', () => {
    const twice = taughtBy(finding('tug@coupler-a', 'moves'), finding('tug@port-a', 'holds'))?.['tug'];
    expect((twice?.present ?? 0) + (twice?.absent ?? 0)).toBeCloseTo(2, 9);
    expect(twice?.false).toBe(1);
  });

  test('a number, a question to the owner and a swap say nothing of how often somebody overlooks a sign', () => {
    const checks = taughtBy(
      finding('feed-100@extruder', 'mm', 60),
      finding('ask-onset@spool-a', 'loading'),
      finding('swap-spool@spool-a', 'same'),
    );
    expect(checks).toEqual({});
  });
});

describe('two shops', () => {
  test('families and machines of both are there, those of both added', () => {
    const a = [lesson('hub-head', 'dunlin', modes(1, 0.5)), lesson('hub-head', 'wader', modes(2, 1))].reduce(
      learn,
      nothingLearned,
    );
    const b = [lesson('hub-head', 'dunlin', modes(4, 2)), lesson('bowden-open', 'whelk', modes(1, 1))].reduce(
      learn,
      nothingLearned,
    );
    const both = together(a, b);
    expect(both.machines['dunlin']?.modes['stub']).toEqual({ found: 5, expected: 2.5 });
    expect(both.machines['wader']?.modes['stub']).toEqual({ found: 2, expected: 1 });
    expect(both.machines['whelk']?.modes['stub']).toEqual({ found: 1, expected: 1 });
    expect(both.families['hub-head']?.modes['stub']).toEqual({ found: 7, expected: 3.5 });
    expect(both.shop.modes['stub']).toEqual({ found: 8, expected: 4.5 });
  });
});

describe('what is told to have moved', () => {
  const learned = (tug: { present: number; missed: number; absent: number }): Learned => ({
    ...nothingLearned,
    shop: {
      ...noCounts,
      orders: 40,
      modes: {
        stub: { found: 12, expected: 4 },
        'tip-particles': { found: 0, expected: 30 },
        'gears-worn': { found: 3, expected: 3 },
      },
      checks: { tug: { ...tug, false: 0 } },
    },
  });

  test('the largest multiple first, up or down; what stayed within a twentieth is not told', () => {
    const { modes: moved } = whatMoved(catalogue, learned({ present: 0, missed: 0, absent: 0 }), dunlin);
    expect(moved.map(({ id }) => id)).toEqual(['tip-particles', 'stub']);
    expect(moved[0]?.to).toBeCloseTo(((moved[0]?.from ?? 0) * 3) / 33, 9);
    expect(moved[1]?.to).toBeCloseTo(((moved[1]?.from ?? 0) * 15) / 7, 9);
  });

  test('a check by how often it misses, with how many findings speak', () => {
    const { checks } = whatMoved(catalogue, learned({ present: 30, missed: 15, absent: 10 }), dunlin);
    const before = catalogue.checks.find(({ id }) => id === 'tug')?.miss ?? 0;
    expect(checks).toHaveLength(1);
    expect(checks[0]).toMatchObject({ id: 'tug', from: before, speak: 40 });
    expect(checks[0]?.to).toBeCloseTo((25 * before + 15) / 55, 12);
  });
});
