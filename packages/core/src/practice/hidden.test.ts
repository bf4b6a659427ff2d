import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { seeded } from '../quantities/random';
import { dunlin } from '../testing/machines';
import { drawOrder, drawUntilBrought, hasSymptom, withoutEye } from './hidden';

const drawn = Array.from({ length: 300 }, (_, i) => drawOrder(dunlin, catalogue, seeded(i + 1)));

test('every order drawn is one that an owner would bring: something complained of is so, and every fault shows', () => {
  for (const { kase, faults, like } of drawn) {
    expect(kase.symptoms.length).toBeGreaterThan(0);
    const there = like ? [like] : faults;
    const told = catalogue.symptoms.filter(({ id }) => kase.symptoms.includes(id));
    if (there.length > 0)
      expect(told.some((symptom) => there.some(({ mode }) => hasSymptom(symptom, mode)))).toBe(true);
    // One that does nothing anybody would complain of passes every test: it is no second fault.
    for (const { mode } of faults) expect(catalogue.symptoms.some((symptom) => hasSymptom(symptom, mode))).toBe(true);
  }
});

test('a fault on no list is like a listed one in all but what an eye sees, or lies aside of the path', () => {
  const strange = drawn.filter(({ faults }) => faults.length === 0);
  // Half of them lie aside, and are like nothing.
  expect(new Set(strange.map(({ like }) => like === undefined)).size).toBe(2);
  for (const { like } of strange) expect(like?.mode.shows['visible']).toBeUndefined();
  const mode = catalogue.modes.find(({ shows }) => shows['visible'] && Object.keys(shows).length > 1);
  if (!mode) throw new Error('test data');
  const seen = withoutEye(catalogue, mode);
  expect(Object.keys(seen.shows)).toEqual(Object.keys(mode.shows).filter((dimension) => dimension !== 'visible'));
  // Which dimension that is the catalogue says.
  const blind = {
    ...catalogue,
    dimensions: catalogue.dimensions.map(({ id, name, values }) => ({ id, name, values })),
  };
  expect(withoutEye(blind, mode).shows).toEqual(mode.shows);
});

test('a world in which nobody complains is refused, not waited for', () => {
  const order = drawn.find(({ faults }) => faults.length > 0);
  if (!order) throw new Error('test data');
  const silent = { ...order, kase: { ...order.kase, symptoms: [] } };
  expect(() => drawUntilBrought(() => silent)).toThrow(/Nothing is ever complained of/);
  // A complaint that is false alarm alone brings nobody either.
  const other = catalogue.symptoms.find((symptom) => !order.faults.some(({ mode }) => hasSymptom(symptom, mode)));
  if (!other) throw new Error('test data');
  const mistaken = { ...order, kase: { ...order.kase, symptoms: [other.id] } };
  const draws = [silent, mistaken, order];
  expect(drawUntilBrought(() => draws.shift() ?? silent)).toBe(order);
});
