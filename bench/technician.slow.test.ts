import { deliveredCatalogue as catalogue } from '@zealous/core';
import { drawOrder, followTracer } from '@zealous/core/practice';
import { whelk } from '../packages/core/src/testing/machines';
import { followTechnician } from './fairTechnician';
import { luckOf, seeded } from './worlds';

const mean = (list: readonly number[]): number => list.reduce((sum, x) => sum + x, 0) / list.length;
// Of ten, the one or two that end with everything apart decide.
const ORDERS = 20;

// Habits that look at nothing are soon beaten; somebody who splits what is suspected and repairs at an even bet is not.
test('the tracer, one check ahead, needs at most 85 % of a fair technician’s minutes', () => {
  const pairs = Array.from({ length: ORDERS }, (_, i) => {
    const order = drawOrder(whelk, catalogue, seeded(500 + i));
    return [followTracer(order, luckOf(i), { depth: 1 }).minutes, followTechnician(order, luckOf(i)).minutes] as const;
  });
  expect(mean(pairs.map(([ours]) => ours))).toBeLessThan(0.85 * mean(pairs.map(([, theirs]) => theirs)));
}, 600_000);
