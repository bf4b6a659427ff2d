import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { assess } from '../explain/assess';
import { believed, cold, seen, takenIn } from '../testing/believed';
import { raised } from './prior';

/** What is seen at its place and has no name. Common practice, no source. */

const stopped = (...looks: readonly ReturnType<typeof seen>[]) =>
  believed('bowden-open', (id) => [
    takenIn(id, { symptoms: ['not-reach'], onset: 'after-moving' }),
    seen('push-strand@extruder>end', 'stops', { value: 265 }),
    ...looks,
  ]);

test('what is on no list and is seen at its place is put right there; before it is seen it is next to nothing', () => {
  const before = stopped();
  expect(before.share('tube/unlisted')).toBeLessThan(0.05);
  const { machine, state, share } = stopped(seen('free-tube@tube', 'unlisted', { finished: true }));
  expect(share('tube/unlisted')).toBeGreaterThan(0.7);
  const { advice } = assess(machine, catalogue, state, cold(machine));
  expect(advice).toMatchObject({ kind: 'repair', station: 'tube', mode: 'unlisted' });
});

test('two faults that nobody knows have nothing to do with each other; two of one kind have', () => {
  const { causes } = stopped();
  const of = (mode: string) => causes.filter((cause) => cause.mode.id === mode);
  const [a, b] = of('unlisted');
  const [c, d] = of('coupler-creep');
  if (!a || !b || !c || !d) throw new Error('This machine has two of each.');
  expect(raised(a, b)).toBe(1);
  expect(raised(c, d)).toBeGreaterThan(1);
});
