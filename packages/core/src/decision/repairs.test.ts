import fc from 'fast-check';
import type { Model } from './model';
import { needsFrom, needsOf, repairCost } from './repairCost';
import { mendMinutes } from './repairs';

/** Repairs that each cure one hypothesis; the last hypothesis is on no list. */
function ordered(p: readonly number[], cost: readonly number[]) {
  const n = p.length;
  const rest = 1 - p.reduce((sum, x) => sum + x, 0);
  const needs = needsFrom([...p.map((_, i) => [i]), []], new Float64Array(n + 1), n);
  const { order, steps, minutes } = repairCost(needs, Float64Array.from([...p, Math.max(0, rest)]), cost);
  return { order: [...order.subarray(0, steps)], minutes };
}

function permutations(list: readonly number[]): number[][] {
  if (list.length === 0) return [[]];
  return list.flatMap((x, i) => permutations([...list.slice(0, i), ...list.slice(i + 1)]).map((rest) => [x, ...rest]));
}

/** Σ cost × chance of getting there; stripping everything (120 min) from wherever that is cheapest. */
function costOf(order: readonly number[], p: readonly number[], cost: readonly number[], rest: number): number {
  let left = 1;
  let sum = 0;
  let best = rest;
  for (const i of order) {
    sum += left * (cost[i] as number);
    left -= p[i] as number;
    best = Math.min(best, sum + left * rest);
  }
  return best;
}

// Heckerman, Breese, Rommelse 1995, Decision-theoretic troubleshooting, CACM 38(3): for one fault, by probability over cost.
test('order by probability over cost is the cheapest of all permutations', () => {
  const repairs = fc.array(fc.record({ w: fc.integer({ min: 1, max: 100 }), c: fc.integer({ min: 1, max: 60 }) }), {
    minLength: 1,
    maxLength: 6,
  });
  fc.assert(
    fc.property(repairs, fc.integer({ min: 0, max: 40 }), (list, other) => {
      const total = list.reduce((sum, { w }) => sum + w, other);
      const p = list.map(({ w }) => w / total);
      const cost = list.map(({ c }) => c);
      const best = Math.min(...permutations(list.map((_, i) => i)).map((order) => costOf(order, p, cost, 120)));
      expect(ordered(p, cost).minutes).toBeCloseTo(best, 8);
    }),
    { numRuns: 150 },
  );
});

test('worked by hand: 0.5 at 10 min and 0.5 at 2 min cost 2 + 0.5 × 10', () => {
  expect(ordered([0.5, 0.5], [10, 2])).toEqual({ order: [1, 0], minutes: 7 });
});

test('several causes at once are cured by the latest of their repairs', () => {
  // All repairs are needed for certain: all costs are paid.
  const two = needsFrom([[0, 1]], Float64Array.of(3), 2);
  expect(repairCost(two, Float64Array.of(1), [10, 20]).minutes).toBe(10 + 20 + 3);
  const three = needsFrom([[0, 2, 1]], Float64Array.of(0), 3);
  expect(repairCost(three, Float64Array.of(1), [10, 20, 30]).minutes).toBe(60);
  // Where one of them has no remedy left, only taking everything apart ends it.
  const none = needsFrom([[0, 1, -1]], Float64Array.of(0), 2);
  expect(repairCost(none, Float64Array.of(1), [10, 20]).minutes).toBe(120);
});

describe('several faults, later remedies, and what taking apart takes', () => {
  interface Hypothesis {
    /** Groups that cure it together; −1 where a fault of it has no remedy left; none: it is on no list. */
    readonly groups: readonly number[];
    readonly weight: number;
    readonly later: number;
    readonly apart: number;
  }

  /** By definition: the groups by chance over cost, and of all places in that row the cheapest to give it up. */
  function defined(list: readonly Hypothesis[], tries: readonly number[]): number {
    const ends = ({ groups }: Hypothesis, g: number): boolean => groups.includes(g) && !groups.includes(-1);
    const share = tries.map((_, g) => list.reduce((sum, h) => sum + (ends(h, g) ? h.weight : 0), 0));
    const whole = list.reduce((sum, h) => sum + h.weight, 0);
    const asTheyCome = [...new Set(list.flatMap((h) => h.groups.filter((g) => ends(h, g))))];
    const order = asTheyCome
      .filter((g) => (share[g] ?? 0) > whole * 1e-4)
      .sort((a, b) => (share[b] ?? 0) / (tries[b] ?? 1) - (share[a] ?? 0) / (tries[a] ?? 1));
    const courses = Array.from({ length: order.length + 1 }, (_, steps) =>
      list.reduce((sum, { groups, weight, later, apart }) => {
        // Cured by the step at which the last of its repairs is done, if all of them are in the row.
        const at =
          groups.length > 0
            ? Math.max(...groups.map((g) => (order.includes(g) ? order.indexOf(g) : Infinity)))
            : Infinity;
        const done = order.slice(0, Math.min(steps, at + 1)).reduce((minutes, g) => minutes + (tries[g] ?? 0), 0);
        return sum + weight * (done + (at < steps ? later : apart));
      }, 0),
    );
    return Math.min(...courses);
  }

  const groups = 4;
  const hypothesis: fc.Arbitrary<Hypothesis> = fc.record({
    groups: fc.uniqueArray(fc.integer({ min: -1, max: groups - 1 }), { maxLength: 4 }),
    weight: fc.integer({ min: 0, max: 50 }),
    later: fc.integer({ min: 0, max: 30 }),
    apart: fc.integer({ min: 20, max: 300 }),
  });

  test('cost what the cheapest place in the row to give it up costs', () => {
    fc.assert(
      fc.property(
        fc.array(hypothesis, { minLength: 1, maxLength: 6 }),
        fc.array(fc.integer({ min: 1, max: 90 }), { minLength: groups, maxLength: groups }),
        (list, tries) => {
          const needs = needsFrom(
            list.map((h) => h.groups),
            Float64Array.from(list, ({ later }) => later),
            groups,
            Float64Array.from(list, ({ apart }) => apart),
          );
          const found = repairCost(
            needs,
            Float64Array.from(list, ({ weight }) => weight),
            tries,
          );
          expect(found.minutes).toBeCloseTo(defined(list, tries), 6);
          expect(found.apart).toBe(list.reduce((sum, { weight, apart }) => sum + weight * apart, 0));
        },
      ),
      { numRuns: 400 },
    );
  });

  test('by hand: two faults of one remedy need it once, their later ones both; taken apart they are found on one way and each is mended', () => {
    const remedy = { minutes: 35 };
    const model = {
      groupOf: [0, 0, 1, -1],
      groups: [
        { laterMin: 4, remedy },
        { laterMin: 7, remedy: { minutes: 5 } },
      ],
    } as unknown as Model;
    expect(mendMinutes(model.groups[0]?.remedy)).toBe(35);
    const live = [[0, 1], [0, 2], [3], [2, 3], []].map((causes, index) => ({ index, causes }));
    const needs = needsOf(model, live, [100, 110, 90, 140, 170]);
    // With a fault beside it that has no remedy left, mending the other ends nothing.
    expect([...needs.first]).toEqual([0, 0, -1, -1, -1]);
    expect([...needs.second]).toEqual([-1, 1, -1, -1, -1]);
    expect([...needs.later]).toEqual([8, 11, 0, 7, 0]);
    // The longest way of them, and what mending takes beyond the twenty minutes that are in it: 15 for the first remedy.
    expect([...needs.apart]).toEqual([110 + 2 * 35 - 20, 100 + 35, 140, 140 + 20, 170]);
    expect([...needs.playing]).toEqual([0, 1]);
  });
});
