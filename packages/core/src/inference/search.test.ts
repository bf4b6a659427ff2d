import fc from 'fast-check';
import type { Evidence } from './evidence';
import { STILL_ILL } from './evidence';
import { NEVER } from './given';
import { weighLarger } from './larger';
import { leaders, leadersAlone } from './leaders';
import { Removals, REMOVALS_LEFT_OUT } from './removals';

const sized = (logs: readonly number[]) => logs.map((log, c) => ({ set: [c], log }));

describe('when repairs in vain may have taken a fault away', () => {
  test('one repair that takes it half of the time: never is the likelier, as the machine stayed ill', () => {
    const removals = new Removals(3, [[0.5, 0, 0.5]]);
    expect(removals.of([1])).toBeUndefined();
    const ways = removals.of([0]) ?? [];
    // By hand: 0.5 × 0.97 stays ill with it there, 0.5 × 0.03 with it gone.
    expect(ways.map(({ at }) => at)).toEqual([[NEVER], [0]]);
    for (const { log } of ways) expect(log).toBeCloseTo(Math.log(0.5), 12);
    // Of two faults, one of them untouched, the other may be gone as likely as not: the machine stays ill with what is left.
    const both = removals.of([0, 1]) ?? [];
    expect(both).toHaveLength(2);
    expect(new Set(both.map(({ at }) => at[0]))).toEqual(new Set([0, NEVER]));
    expect(both.every(({ at }) => at[1] === NEVER)).toBe(true);
  });

  test('faults that repairs treat alike share what is worked out; sets of another size do not', () => {
    const removals = new Removals(4, [[0.5, 0.5, 0, 0.2]]);
    expect(removals.of([1])).toBe(removals.of([0]));
    expect(removals.of([3])).not.toBe(removals.of([0]));
    expect(removals.of([0, 2])?.[0]?.at).toHaveLength(2);
    expect(removals.of([0])?.[0]?.at).toHaveLength(1);
  });

  test('a second repair takes only what the first has left', () => {
    const ways = new Removals(1, [[0.8], [0.5]]).of([0]) ?? [];
    const chance = (at: number): number => Math.exp(ways.find((way) => way.at[0] === at)?.log ?? -Infinity);
    expect(chance(0)).toBeCloseTo(0.8, 12);
    expect(chance(1)).toBeCloseTo(0.2 * 0.5, 12);
    expect(chance(NEVER)).toBeCloseTo(0.2 * 0.5, 12);
  });

  test('the weightiest ways are kept, first things first, and no more of them than leave next to nothing out', () => {
    const chance = fc.double({ min: 0.05, max: 0.9, noNaN: true });
    fc.assert(
      fc.property(fc.array(fc.tuple(chance, chance), { minLength: 3, maxLength: 7 }), (repairs) => {
        const kept = new Removals(2, repairs).of([0, 1]) ?? [];
        const weight = (at: readonly number[], log: number): number =>
          Math.exp(log) * repairs.reduce((p, _, k) => p * (Math.max(...at) > k ? STILL_ILL.left : STILL_ILL.none), 1);
        const weights = kept.map(({ at, log }) => weight(at, log));
        // Every way of both faults, worked out the plain way: taken away by the k-th repair, or never.
        const own = (fault: 0 | 1) =>
          [...repairs.keys(), NEVER].map((at) => {
            const before = repairs.slice(0, at === NEVER ? undefined : at).reduce((p, of) => p * (1 - of[fault]), 1);
            return { at, p: at === NEVER ? before : before * (repairs[at]?.[fault] ?? 0) };
          });
        const all = own(0).flatMap((a) => own(1).map((b) => weight([a.at, b.at], Math.log(a.p * b.p))));
        const whole = all.reduce((sum, x) => sum + x, 0);
        const held = weights.reduce((sum, x) => sum + x, 0);
        expect(weights).toEqual([...weights].sort((a, b) => b - a));
        expect(held / whole).toBeGreaterThanOrEqual(1 - REMOVALS_LEFT_OUT - 1e-9);
        expect((held - (weights.at(-1) ?? 0)) / whole).toBeLessThan(1 - REMOVALS_LEFT_OUT + 1e-9);
      }),
      { numRuns: 60 },
    );
  });
});

describe('which causes larger sets are made of', () => {
  const saw = (likelihood: readonly number[], elsewhere = 0.1) => ({ likelihood, elsewhere }) as Evidence;

  test('few are all taken, the likeliest first', () => {
    expect(leadersAlone(sized([-3, -1, -2]), [], 3)).toEqual([1, 2, 0]);
  });

  test('two thirds lead alone; a third explains what the leading one does not, where it does so more than twice as well', () => {
    const alone = sized([-1, -2, -3, -4, -5, -6]);
    const explained = saw([0.01, 0.01, 0.01, 0.01, 0.01, 0.9]);
    expect([...leadersAlone(alone, [explained], 3)].sort()).toEqual([0, 1, 5]);
    // Twice as well is not enough: the next by itself is taken.
    expect([...leadersAlone(alone, [saw([0.1, 0.1, 0.1, 0.1, 0.1, 0.19])], 3)].sort()).toEqual([0, 1, 2]);
    // What the leading one explains worst comes first, and two speak for each observation at the most.
    const [bad, worse] = [saw([0.05, 0, 0, 0.5, 0, 0]), saw([0.001, 0, 0, 0, 0.5, 0])];
    expect([...leadersAlone(alone, [bad, worse], 3)].sort()).toEqual([0, 1, 4]);
    // Worst against something on no list: what that would show as seldom is no reproach.
    const rare = saw([0.001, 0, 0, 0, 0.5, 0], 0.001);
    expect([...leadersAlone(alone, [rare, bad], 3)].sort()).toEqual([0, 1, 3]);
  });

  test('by the share that they have in pairs', () => {
    const pairs = [
      { set: [0, 1], log: Math.log(0.1) },
      { set: [1, 3], log: Math.log(0.6) },
      { set: [2, 3], log: Math.log(0.3) },
    ];
    // 3 has 0.9, 1 has 0.7, 2 has 0.3, 0 has 0.1.
    expect(leaders([0, 1, 2, 3], pairs, 3)).toEqual([3, 1, 2]);
    expect(leaders([0, 1, 2, 3], pairs, 4)).toEqual([0, 1, 2, 3]);
    // At equal shares the earlier.
    expect(leaders([0, 1, 2], [], 2)).toEqual([0, 1]);
  });
});

describe('larger sets, class by class', () => {
  /** Logarithm of all that is believed so far. */
  const WHOLE = -4;
  /** Classes of so many sets each, which are expected to hold `expected` together and hold `held`. */
  function searched(
    classes: readonly (readonly [number, number, number])[],
    leftOut: number,
    most = 10_000,
  ): { readonly weighed: number; readonly rest: number } {
    const each = classes.flatMap(([n, , held]) => Array.from({ length: n }, () => held / n));
    let at = 0;
    const made = weighLarger(
      {
        with: (set, c) => [...set, c],
        weigh: (set) => ({ set, log: WHOLE + Math.log(each[at++] ?? 0) }),
      },
      {
        classes: classes.map(([n, expected]) => ({ sets: Array.from({ length: n }, (_, i) => i), expected })),
        at: (code) => ({ set: [code], add: code }),
      },
      WHOLE,
      leftOut,
      most,
    );
    expect(made.level).toHaveLength(at);
    return { weighed: at, rest: made.rest };
  }

  test('it stops once the rest may be left out, and says how much that is', () => {
    const classes = [
      [50, 0.1, 0.1],
      [50, 0.01, 0.01],
      [50, 0.001, 0.001],
    ] as const;
    const all = searched(classes, 0);
    expect(all.weighed).toBe(150);
    expect(all.rest).toBeCloseTo(0, 12);
    const some = searched(classes, 0.002);
    expect(some.weighed).toBe(100);
    expect(some.rest).toBeCloseTo(0.001, 12);
  });

  test('nothing is left out before some have been weighed, however little is expected', () => {
    expect(searched([[50, 1e-9, 1e-9]], 0.5).weighed).toBe(50);
    // Fewer than say anything: the next class is weighed as well.
    expect(
      searched(
        [
          [20, 0.1, 0.1],
          [30, 1e-6, 1e-6],
          [50, 1e-6, 1e-6],
        ],
        0.01,
      ).weighed,
    ).toBe(50);
  });

  test('what holds more than expected keeps the search going, what holds less ends it sooner, to a third at the most', () => {
    const many = (true2: number) =>
      [
        [50, 0.1, 0.1],
        [50, 0.01, 0.01 * true2],
        [50, 0.004, 0.004 * true2],
      ] as const;
    // Three times as much as expected: 0.004 × 3 is too much to leave out.
    expect(searched(many(3), 0.005).weighed).toBe(150);
    expect(searched(many(1), 0.005).weighed).toBe(100);
    const less = [...many(0.01), [50, 0.001, 0], [50, 0.01, 0]] as const;
    // After two classes that held next to nothing 0.3 of what the rest is expected to hold may still be there.
    expect(searched(less, 0.0034).weighed).toBe(150);
    expect(searched(less, 0.0034).rest).toBeCloseTo(0.3 * 0.011, 9);
    expect(searched(less, 0.0032).weighed).toBe(200);
  });

  test('no more than so many of one size', () => {
    const made = searched(
      [
        [50, 0.1, 0.1],
        [50, 0.05, 0.05],
      ],
      0,
      99,
    );
    expect(made.weighed).toBe(50);
    expect(made.rest).toBeCloseTo(0.05, 12);
  });
});
