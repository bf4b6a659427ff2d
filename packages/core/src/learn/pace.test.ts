import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { shopPace } from '../decision/pace';
import { assess } from '../explain/assess';
import { parseLearned } from '../formats/index';
import type { OrderEvent } from '../order/events';
import { event, finding, stateOf, takenIn, whelk } from '../testing/machines';
import {
  addCounts,
  expectedAtTakeIn,
  learn,
  learnedCatalogue,
  lessonOfOrder,
  nothingLearned,
  paceOf,
  unlearn,
} from './index';

const cold = { temperatureC: whelk.heat.ambientC, power: 'off' as const, off: new Set<string>() };
const begun = [takenIn(whelk, { material: 'PLA', symptoms: ['thin'] })];
const closed = (minutes?: number, cause = true): OrderEvent[] => [
  ...begun,
  finding('look-gears@extruder', 'worn'),
  ...(cause ? [event('cause-chosen', { station: 'extruder', mode: 'gears-worn', advised: true })] : []),
  event('closed', { outcome: 'cured', ...(minutes === undefined ? {} : { minutes }) }),
];
const lessonOf = (...args: Parameters<typeof closed>) =>
  lessonOfOrder(whelk, catalogue, stateOf(whelk, closed(...args)));
const many = (n: number, expected: number, taken: number) =>
  Array.from({ length: n }).reduce<ReturnType<typeof paceOf>>(
    (sum) =>
      addCounts(
        { orders: 0, modes: {}, shows: {}, checks: {}, pace: sum },
        { orders: 0, modes: {}, shows: {}, checks: {}, pace: paceOf(expected, taken) },
      ).pace as ReturnType<typeof paceOf>,
    { orders: 0, expected: 0, taken: 0, logs: 0, squares: 0 },
  );

describe('the shop’s own pace', () => {
  test('a closed order tells the minutes that it took against those the screen spoke of before anything was looked at', () => {
    const expected = expectedAtTakeIn(whelk, catalogue, stateOf(whelk, closed(90)));
    const first = assess(whelk, catalogue, stateOf(whelk, begun), cold, { depth: 2 }).advice;
    expect(expected).toBeCloseTo(Math.min(first.repairMinutes, first.checkMinutes ?? Infinity), 6);
    const pace = lessonOf(90)?.counts.pace;
    expect(pace).toMatchObject({ orders: 1, taken: 90 });
    expect(pace?.expected).toBeCloseTo(expected, 6);
    expect(pace?.logs).toBeCloseTo(Math.log(90 / expected), 6);
    // Without minutes it tells none; without a cause on the list it still tells them.
    expect(lessonOf()?.counts.pace).toBeUndefined();
    expect(lessonOf(90, false)?.counts).toMatchObject({ orders: 0, modes: {}, pace: { orders: 1 } });
    expect(lessonOf(undefined, false)).toBeUndefined();
  });

  test('by hand: twenty orders’ worth of what was measured, and sixty that took twice what was expected', () => {
    expect(shopPace(undefined)).toEqual({ orders: 0, factor: 1.1, low: 0.26, high: 1.65 });
    const { factor, low, high } = shopPace(many(60, 50, 100));
    // (20 × 1.1 + 60 × 2) / 80.
    expect(factor).toBeCloseTo(1.775, 9);
    // Logarithms: mean (20 × −0.4231 + 60 × 0.6931) / 80 = 0.4141, spread of the first 0.7209 (worked out with a calculator).
    const [m, s] = [
      0.41407,
      Math.sqrt((20 * (0.72093 ** 2 + (-0.42315 - 0.41407) ** 2) + 60 * (0.69315 - 0.41407) ** 2) / 80),
    ];
    expect(Math.log(low)).toBeCloseTo(m - 1.2816 * s, 3);
    expect(Math.log(high)).toBeCloseTo(m + 1.2816 * s, 3);
  });

  test('the screen says so when five orders have told, and is silent before', () => {
    const lesson = lessonOf(400);
    if (!lesson) throw new Error('no lesson');
    const after = (n: number) =>
      Array.from({ length: n }).reduce<typeof nothingLearned>((sum) => learn(sum, lesson), nothingLearned);
    const text = (n: number): string =>
      assess(whelk, learnedCatalogue(catalogue, after(n), whelk), stateOf(whelk, begun), cold).advice.text;
    expect(text(4)).toMatch(/Before anything is looked at count on about .*no list is quite right/);
    expect(text(6)).toMatch(
      /This shop’s 6 closed orders took [1-9]\.\d times what was expected of them: count on about/,
    );
    expect(parseLearned(JSON.parse(JSON.stringify(after(6))))).toEqual(after(6));
    // Taken back, nothing of it is left.
    expect(unlearn(after(1), lesson)).toEqual({
      ...nothingLearned,
      shop: expect.not.objectContaining({ pace: expect.anything() }),
    });
    expect(unlearn(after(3), lesson)).toEqual(after(2));
  });
});
