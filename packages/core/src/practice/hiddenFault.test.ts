import { mersenne, unsafeUniformIntDistribution } from 'pure-rand';
import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { dunlin } from '../testing/machines';
import { drawOrder, followHabit, followTracer, HABITS, type Random } from './hiddenFault';

function seeded(seed: number): Random {
  const generator = mersenne(seed);
  return () => unsafeUniformIntDistribution(0, 0x7fffffff, generator) / 0x80000000;
}
const mean = (list: readonly number[]): number => list.reduce((sum, x) => sum + x, 0) / list.length;

test('the tracer needs fewer bench minutes than the habit of renewing in a fixed order', () => {
  const orders = Array.from({ length: 25 }, (_, i) => drawOrder(dunlin, catalogue, seeded(i + 1)));
  const tracer = orders.map((order, i) => followTracer(order, seeded(1000 + i)));
  const habit = HABITS.map((item) =>
    mean(orders.map((order, i) => followHabit(item, order, seeded(1000 + i)).minutes)),
  );
  expect(mean(tracer.map((tally) => tally.minutes))).toBeLessThan(Math.min(...habit));
});

test('the same seed gives the same order and the same work', () => {
  const once = followTracer(drawOrder(dunlin, catalogue, seeded(7)), seeded(8));
  expect(followTracer(drawOrder(dunlin, catalogue, seeded(7)), seeded(8))).toEqual(once);
});

test('drawn causes follow the catalogue’s weights, and some are on no list', () => {
  const drawn = Array.from({ length: 600 }, (_, i) => drawOrder(dunlin, catalogue, seeded(i + 1)));
  const nozzle = drawn.filter((order) => order.cause?.stop.station.kind === 'nozzle').length / drawn.length;
  const unlisted = drawn.filter((order) => !order.cause).length / drawn.length;
  // Binomial bounds of about three standard errors.
  expect(nozzle).toBeGreaterThan(0.1);
  expect(nozzle).toBeLessThan(0.28);
  expect(unlisted).toBeGreaterThan(0.008);
  expect(unlisted).toBeLessThan(0.055);
});
