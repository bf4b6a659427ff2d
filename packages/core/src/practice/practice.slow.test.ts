import { mersenne, unsafeUniformIntDistribution } from 'pure-rand';
import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { dunlin, whelk } from '../testing/machines';
import { learnedCatalogue } from '../learn';
import {
  drawOrder,
  followInformation,
  followTracer,
  HABITS,
  learnedFrom,
  lookByHabit,
  perturbed,
  renewByHabit,
  type Luck,
  type Random,
} from './index';

function seeded(seed: number): Random {
  const generator = mersenne(seed);
  return () => unsafeUniformIntDistribution(0, 0x7fffffff, generator) / 0x80000000;
}
const mean = (list: readonly number[]): number => list.reduce((sum, x) => sum + x, 0) / list.length;

test.each([
  ['Dunlin', dunlin],
  ['Whelk', whelk],
])(
  'on %s the tracer needs fewer bench minutes than the best fixed habit of the trade',
  (_name, machine) => {
    const orders = Array.from({ length: 12 }, (_, i) => drawOrder(machine, catalogue, seeded(i + 1)));
    const tracer = mean(orders.map((order, i) => followTracer(order, seeded(1000 + i), { depth: 1 }).minutes));
    const habits = HABITS.flatMap((habit) =>
      [lookByHabit, renewByHabit].map((follow) =>
        mean(orders.map((order, i) => follow(habit, order, seeded(1000 + i)).minutes)),
      ),
    );
    expect(tracer).toBeLessThan(Math.min(...habits));
    // Single orders with many findings take seconds a step; nothing here is a timed test.
  },
  600_000,
);

test('the same seed gives the same order and the same work', () => {
  const once = followTracer(drawOrder(whelk, catalogue, seeded(7)), seeded(8));
  expect(followTracer(drawOrder(whelk, catalogue, seeded(7)), seeded(8))).toEqual(once);
});

test('drawn causes follow the catalogue’s weights; some are on no list, some are two', () => {
  const drawn = Array.from({ length: 800 }, (_, i) => drawOrder(dunlin, catalogue, seeded(i + 1)));
  const share = (of: (order: (typeof drawn)[number]) => boolean): number => drawn.filter(of).length / drawn.length;
  // Binomial bounds of about three standard errors.
  const nozzle = share((order) => order.faults[0]?.stop.station.kind === 'nozzle');
  expect(nozzle).toBeGreaterThan(0.11);
  expect(nozzle).toBeLessThan(0.28);
  const unlisted = share((order) => order.faults.length === 0);
  expect(unlisted).toBeGreaterThan(0.01);
  expect(unlisted).toBeLessThan(0.05);
  const two = share((order) => order.faults.length === 2);
  expect(two).toBeGreaterThan(0.065);
  expect(two).toBeLessThan(0.135);
});

test('a perturbed world keeps its probabilities probabilities and every weight within a factor three', () => {
  const other = perturbed(catalogue, seeded(3));
  other.modes.forEach((mode, i) => {
    const ratio = mode.weight / (catalogue.modes[i]?.weight ?? 1);
    expect(ratio).toBeGreaterThanOrEqual(1 / 3 - 1e-9);
    expect(ratio).toBeLessThanOrEqual(3 + 1e-9);
    for (const shows of Object.values(mode.shows)) {
      expect(Object.values(shows).reduce((sum, p) => sum + p, 0)).toBeLessThanOrEqual(1 + 1e-9);
    }
  });
});

/** The same number for the same thing, whoever asks and when. */
const luckOf =
  (seed: number): Luck =>
  (what) => {
    const letters = [...what].reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0)) % 1_000_003, seed);
    return seeded(letters)();
  };

test('with luck by what it is drawn for, two policies meet the same answers: the tracer’s check says the same to the other', () => {
  const met = [7, 8, 9, 10].flatMap((seed) => {
    const order = drawOrder(whelk, catalogue, seeded(seed));
    const [tracer, other] = [followTracer(order, luckOf(seed), { depth: 1 }), followInformation(order, luckOf(seed))];
    const said = new Map(tracer.findings.map(({ key, result }) => [key, result]));
    // Answers repeat errors of earlier ones, so the first that both asked is compared.
    const both = other.findings.find(({ key }) => said.has(key));
    return both ? [[both.result, said.get(both.key)] as const] : [];
  });
  expect(met.length).toBeGreaterThan(0);
  for (const [one, other] of met) expect(one).toBe(other);
});

test('what orders taught moves the weights towards the world that they came from', () => {
  const world = perturbed(catalogue, seeded(5));
  // What is taught does not hang on who found the cause: looking by habit is quickly worked through.
  const [habit] = HABITS;
  if (!habit) throw new Error('no habit');
  const orders = Array.from({ length: 120 }, (_, i) => {
    const hidden = drawOrder(whelk, world, seeded(100 + i), catalogue);
    return { hidden, tally: lookByHabit(habit, hidden, luckOf(i)) };
  });
  const learned = learnedFrom(orders, catalogue);
  const single = orders.filter(({ hidden }) => hidden.faults.length === 1).length;
  expect(learned.shop.orders).toBe(single);
  const moved = learnedCatalogue(catalogue, learned, whelk);
  // Mean error of the weights' logarithms, over the modes that were found or were to be expected.
  const wrong = (believed: typeof catalogue): number => {
    const seen = catalogue.modes.flatMap((mode, i) => ((learned.shop.modes[mode.id]?.expected ?? 0) > 1 ? [i] : []));
    const off = seen.map((i) => Math.log((believed.modes[i]?.weight ?? 1) / (world.modes[i]?.weight ?? 1)));
    const centre = mean(off);
    return mean(off.map((x) => (x - centre) ** 2));
  };
  expect(wrong(moved)).toBeLessThan(wrong(catalogue));
});
