import fc from 'fast-check';
import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { parseLearned } from '../formats/index';
import type { OrderEvent } from '../order/events';
import { dunlin, event, finding, stateOf, takenIn, whelk } from '../testing/machines';
import {
  inSteps,
  unlearn,
  addCounts,
  learn,
  learnedCatalogue,
  lessonOfOrder,
  noCounts,
  nothingLearned,
  previewChange,
  together,
  weightFactor,
  whatMoved,
  type Counts,
  type Learned,
  type Lesson,
} from './index';

/** An order of Dunlin with a stub in the hub, closed as cured. */
const closedOrder = (): OrderEvent[] => [
  takenIn(dunlin, { lane: 'lane-a', material: 'PLA', symptoms: ['not-reach'] }),
  finding('push-strand@gate-a>end', 'stops', 901),
  finding('lift-hub@hub', 'stub'),
  event('cause-chosen', { station: 'hub', mode: 'stub', advised: true }),
  event('rung-tried', { stepId: 'rung:push-through', remedy: 'push-through', outcome: 'cleared' }),
  event('proof-recorded', { proof: 'cold-pass', passed: true }),
  event('closed', { outcome: 'cured' }),
];
let taught: Lesson | undefined;
const lesson = (): Lesson => {
  taught ??= lessonOfOrder(dunlin, catalogue, stateOf(dunlin, closedOrder()));
  if (!taught) throw new Error('no lesson');
  return taught;
};
const after = (orders: number): Learned =>
  Array.from({ length: orders }).reduce<Learned>((learned) => learn(learned, lesson()), nothingLearned);
const weightOf = (learned: Learned, mode: string, machine = dunlin): number =>
  learnedCatalogue(catalogue, learned, machine).modes.find((item) => item.id === mode)?.weight ?? 0;

describe('what one order teaches', () => {
  test('its cause once, against what the catalogue expected of this machine: together as much as one order', () => {
    const { counts, family, machine } = lesson();
    expect([family, machine]).toEqual(['hub-head', 'dunlin']);
    const modes = Object.values(counts.modes);
    expect(modes.reduce((sum, count) => sum + count.found, 0)).toBe(1);
    expect(modes.reduce((sum, count) => sum + count.expected, 0)).toBeCloseTo(1, 9);
    expect(counts.modes['stub']?.found).toBe(1);
  });

  test('only what was looked at, and by how much it is certain', () => {
    const shows = lesson().counts.shows['stub'] ?? {};
    expect(shows['passage-cold']?.['blocked']).toBeGreaterThan(0.95);
    // Lying inside, or right at the end: the look does not say which.
    expect((shows['visible']?.['stub'] ?? 0) + (shows['visible']?.['stub-end'] ?? 0)).toBeGreaterThan(0.95);
    expect(shows['withdrawal']).toBeUndefined();
    for (const values of Object.values(shows))
      expect(Object.values(values).reduce((sum, n) => sum + n, 0)).toBeCloseTo(1, 6);
  });

  test('nothing, when it was not cured or is still open', () => {
    const open = closedOrder().slice(0, -1);
    expect(lessonOfOrder(dunlin, catalogue, stateOf(dunlin, open))).toBeUndefined();
    const back = [...open, event('closed', { outcome: 'given-back' })];
    expect(lessonOfOrder(dunlin, catalogue, stateOf(dunlin, back))).toBeUndefined();
  });
});

describe('what the counts move', () => {
  test('nothing learned changes nothing; more orders move more, and never past what they say', () => {
    expect(learnedCatalogue(catalogue, nothingLearned, dunlin)).toBe(catalogue);
    const delivered = catalogue.modes.find((mode) => mode.id === 'stub')?.weight ?? 0;
    const weights = [1, 5, 20].map((n) => weightOf(after(n), 'stub'));
    expect(weights[0]).toBeGreaterThan(delivered);
    expect(weights[1]).toBeGreaterThan(weights[0] ?? 0);
    expect(weights[2]).toBeGreaterThan(weights[1] ?? 0);
    // A cause that never came loses.
    expect(weightOf(after(20), 'tip-particles')).toBeLessThan(8);
  });

  test('the machine of the orders moves most, its family less, another family least', () => {
    const learned = after(10);
    const sister = { id: 'other', family: 'hub-head' };
    const stranger = { id: 'whelk', family: 'bowden-open' };
    const [own, family, shop] = [dunlin, sister, stranger].map((machine) =>
      weightOf(learned, 'stub', machine as typeof dunlin),
    );
    expect(own).toBeGreaterThan(family ?? 0);
    expect(family).toBeGreaterThan(shop ?? 0);
  });

  // Gelman et al., Bayesian Data Analysis, gamma–Poisson (from memory): posterior mean (α + n) / (β + exposure), here α = β.
  test('by hand: three pseudo-orders, 4 found where 2 were expected', () => {
    const shop: Counts = { ...noCounts, orders: 10, modes: { stub: { found: 4, expected: 2 } } };
    expect(weightFactor('stub', { shop, family: noCounts, machine: noCounts })).toBeCloseTo(7 / 5, 12);
  });

  // The factor of one machine's mode alone: its shape is 1 / (1/3 + 1/12 + 1/20) = 15/7, so (15/7 + 8) / (15/7 + 4) = 71/43.
  test('by hand: the orders of the only machine count once, not once a level', () => {
    const counts: Counts = { ...noCounts, orders: 10, modes: { stub: { found: 8, expected: 4 } } };
    expect(weightFactor('stub', { shop: counts, family: counts, machine: counts })).toBeCloseTo(71 / 43, 12);
  });

  // Beta–binomial: a check missed 5 of 50; the catalogue's word counts as 25.
  test('by hand: how often a check misses', () => {
    const count = { present: 50, missed: 5, absent: 0, false: 0 };
    const learned: Learned = { ...nothingLearned, shop: { ...noCounts, orders: 1, checks: { tug: count } } };
    const before = catalogue.checks.find((check) => check.id === 'tug')?.miss ?? 0;
    const moved = learnedCatalogue(catalogue, learned, dunlin).checks.find((check) => check.id === 'tug');
    expect(moved?.miss).toBeCloseTo((25 * before + 5) / 75, 12);
  });

  test('by hand: how often it reports what is not there', () => {
    const count = { present: 0, missed: 0, absent: 40, false: 6 };
    const learned: Learned = { ...nothingLearned, shop: { ...noCounts, orders: 1, checks: { tug: count } } };
    const before = catalogue.checks.find((check) => check.id === 'tug')?.falseAlarm ?? 0;
    const moved = learnedCatalogue(catalogue, learned, dunlin).checks.find((check) => check.id === 'tug');
    expect(moved?.falseAlarm).toBeCloseTo((25 * before + 6) / 65, 12);
  });

  test('a look that reported something far from the cause teaches a false alarm; one that was silent there, none', () => {
    const told = (result: string) => {
      const events = closedOrder();
      events.splice(1, 0, finding('tug@coupler-a', result));
      return lessonOfOrder(dunlin, catalogue, stateOf(dunlin, events))?.counts.checks['tug'];
    };
    expect(told('moves')).toEqual({ present: 0, missed: 0, absent: 1, false: 1 });
    expect(told('holds')).toEqual({ present: 0, missed: 0, absent: 1, false: 0 });
  });

  test('every distribution stays one, whatever was counted', () => {
    const moved = learnedCatalogue(catalogue, after(30), dunlin);
    for (const mode of moved.modes) {
      expect(mode.weight).toBeGreaterThan(0);
      for (const shows of Object.values(mode.shows)) {
        const values = Object.values(shows);
        expect(Math.min(0, ...values)).toBe(0);
        expect(values.reduce((sum, p) => sum + p, 0)).toBeLessThanOrEqual(1 + 1e-9);
      }
    }
  });

  test('what moved is told with how many orders speak', () => {
    const { orders, modes } = whatMoved(catalogue, after(6), dunlin);
    expect(orders).toBe(6);
    expect(modes[0]).toMatchObject({ id: 'stub', speak: 6 });
  });
});

describe('counts', () => {
  const number = fc.integer({ min: 0, max: 9 });
  const counts: fc.Arbitrary<Counts> = fc.record({
    orders: number,
    modes: fc.dictionary(fc.constantFrom('a', 'b', 'c'), fc.record({ found: number, expected: number })),
    shows: fc.constant({}),
    checks: fc.constant({}),
  });

  test('add up in any order', () => {
    fc.assert(
      fc.property(counts, counts, counts, (a, b, c) => {
        expect(addCounts(a, b)).toEqual(addCounts(b, a));
        expect(addCounts(addCounts(a, b), c)).toEqual(addCounts(a, addCounts(b, c)));
      }),
    );
  });

  test('go out and come back in the published format, and two shops can be put together', () => {
    const learned = after(3);
    expect(parseLearned(JSON.parse(JSON.stringify(learned)))).toEqual(learned);
    expect(together(learned, after(2)).shop.orders).toBe(5);
    expect(together(learned, nothingLearned)).toEqual(learned);
    expect(() => parseLearned({ ...learned, shop: { ...learned.shop, orders: -1 } })).toThrow(/shop\/orders/);
  });
});

test('a preview says what a change would move on a machine', () => {
  const {
    stations,
    before,
    after: then,
  } = previewChange(whelk, catalogue, {
    kind: 'modes',
    id: 'gears-worn',
    op: 'change',
    fields: { weight: 10 },
  });
  expect(stations[0]?.name).toBe('Extruder');
  expect(stations[0]?.to).toBeGreaterThan(stations[0]?.from ?? 1);
  expect(before).toHaveLength(5);
  expect(then).toHaveLength(5);
});

test('a lesson that is taken back is wholly gone, whatever was learned before and after it', () => {
  const one = lesson();
  const third = {
    ...one,
    counts: inSteps({ ...one.counts, orders: 1, modes: { stub: { found: 1, expected: 1 / 3 } } }),
  };
  const before = [one, third, third].reduce(learn, nothingLearned);
  const elsewhere = { ...third, machine: 'other', family: 'kin' };
  expect(unlearn(learn(before, elsewhere), elsewhere)).toEqual(before);
  expect(unlearn(learn(learn(before, one), third), one)).toEqual(learn(before, third));
});

test('what was learned of a value that has another name now counts for those that the mode has', () => {
  const steps = catalogue.modes.find(({ id }) => id === 'steps-wrong');
  const shown = (counts: Readonly<Record<string, number>>): number | undefined => {
    const shop = { ...noCounts, orders: 40, shows: { 'steps-wrong': { settings: counts } } };
    return learnedCatalogue(catalogue, { ...nothingLearned, shop }, dunlin).modes.find(({ id }) => id === 'steps-wrong')
      ?.shows['settings']?.['steps'];
  };
  expect(Object.keys(steps?.shows['settings'] ?? {})).toEqual(['steps']);
  expect(shown({ differs: 39, '': 1 })).toBeCloseTo(shown({ steps: 39, '': 1 }) ?? 0, 12);
  expect(shown({ differs: 39, '': 1 })).toBeGreaterThan(0.9);
});

test('a mode that was learned keeps what it reads, and what was read of it moves the chance that it shows there', () => {
  const mode = catalogue.modes.find(({ reads }) => Object.keys(reads ?? {}).length > 0);
  if (!mode?.reads) throw new Error('test data');
  const [name, reading] = Object.entries(mode.reads)[0] ?? [];
  if (name === undefined || !reading) throw new Error('test data');
  const dimension = Object.keys(mode.shows)[0] ?? '';
  const taught = (shows: Counts['shows'][string]): Learned => ({
    ...nothingLearned,
    shop: { ...noCounts, orders: 40, shows: { [mode.id]: shows } },
  });
  const readsOf = (learned: Learned) =>
    learnedCatalogue(catalogue, learned, dunlin).modes.find(({ id }) => id === mode.id)?.reads;
  // Taught of another side of it: the reading stands.
  expect(readsOf(taught({ [dimension]: { [Object.keys(mode.shows[dimension] ?? {})[0] ?? '']: 5 } }))).toEqual(
    mode.reads,
  );
  const moved = readsOf(taught({ [`reads:${name}`]: { off: 0, '': 40 } }))?.[name];
  expect(moved?.p).toBeLessThan(reading.p);
  expect(moved).toMatchObject({ mean: reading.mean, sd: reading.sd });
});
