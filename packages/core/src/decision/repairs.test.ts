import fc from 'fast-check';
import { needsFrom, repairCost } from './repairCost';

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
  expect(repairCost(none, Float64Array.of(1), [10, 20]).minutes).toBe(30);
});
