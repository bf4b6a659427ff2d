import fc from 'fast-check';
import { orderOfRepairs } from './repairs';

function permutations(list: readonly number[]): number[][] {
  if (list.length === 0) return [[]];
  return list.flatMap((x, i) => permutations([...list.slice(0, i), ...list.slice(i + 1)]).map((rest) => [x, ...rest]));
}

/** Σ cost × chance of getting there, then what is left when nothing was it. */
function costOf(order: readonly number[], p: readonly number[], cost: readonly number[], rest: number): number {
  let left = 1;
  let sum = 0;
  for (const i of order) {
    sum += left * (cost[i] as number);
    left -= p[i] as number;
  }
  return sum + left * rest;
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
      expect(orderOfRepairs(p, cost, 120).minutes).toBeCloseTo(best, 8);
    }),
    { numRuns: 150 },
  );
});

test('worked by hand: 0.5 at 10 min and 0.5 at 2 min cost 2 + 0.5 × 10', () => {
  expect(orderOfRepairs([0.5, 0.5], [10, 2], 0)).toEqual({ order: [1, 0], minutes: 7 });
});
