import { openAgainst } from '../bench/price';
import { liftAxis } from '../bench/state';
import { event, START, stateOf, takenIn, whelk } from '../testing/machines';
import type { OrderEvent } from './events';
import { benchAt } from './bench';

const at = (events: readonly OrderEvent[]) =>
  benchAt(whelk, stateOf(whelk, [takenIn(whelk), ...events]), Date.parse(START));
const heat = { heat: 'hot', power: 'on' } as const;

test('a hot end that is on with its screws on the mat is loosened, and nothing is heated until they are in', () => {
  const off = event('parts-moved', { off: ['hot-end'] });
  const on = event('parts-moved', { on: ['hot-end'] });
  expect([...(at([off]).loosened ?? [])]).toEqual([]);
  const back = at([off, on]);
  expect([...(back.loosened ?? [])]).toEqual(['hot-end']);
  expect(openAgainst(heat, back, whelk)).toMatch(/screws of .* are out: they go in first/);
  // Power alone may hurt nobody through a loose screw.
  expect(openAgainst({ heat: 'any', power: 'on' }, back, whelk)).toBeUndefined();
  const one = at([off, on, event('fasteners-moved', { part: 'hot-end', in: [0] })]);
  expect(openAgainst(heat, one, whelk)).toMatch(/screws/);
  const both = at([off, on, event('fasteners-moved', { part: 'hot-end', in: [0, 1] })]);
  expect(both.loosened?.size).toBe(0);
  expect(openAgainst(heat, both, whelk)).toBeUndefined();
});

test('a cover with a screw left out for a reason is not loosened, and a loose cover keeps no heat away', () => {
  const cover = whelk.parts.find(({ heats, unplug, fasteners }) => !heats && !unplug?.length && fasteners?.length);
  if (!cover) throw new Error('test data');
  const moved = [event('parts-moved', { off: [cover.id] }), event('parts-moved', { on: [cover.id] })];
  const loose = at(moved);
  expect([...(loose.loosened ?? [])]).toEqual([cover.id]);
  expect(openAgainst(heat, loose, whelk)).toBeUndefined();
  const count = (cover.fasteners ?? []).reduce((sum, one) => sum + one.count, 0);
  const left = Array.from({ length: count }, (_, index) => ({ index, why: 'stripped' }));
  expect(at([...moved, event('fasteners-moved', { part: cover.id, left })]).loosened?.size).toBe(0);
});

test('the lift axis: held by its motor under power, else on the support or free', () => {
  expect(liftAxis({ power: 'on', supported: false })).toBe('held');
  expect(liftAxis({ power: 'off', supported: true })).toBe('supported');
  expect(liftAxis({ power: 'off' })).toBe('free');
});
