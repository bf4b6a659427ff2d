import { dunlin } from '../testing/machines';
import { fastenerMap, onTheMat } from './fastenerMap';

const cover = dunlin.parts.find((part) => part.id === 'extruder-cover');
const buffer = dunlin.parts.find((part) => part.id === 'buffer-cover');

test('every screw has a number and a place of its own, where the words put it', () => {
  const groups = fastenerMap(cover?.fasteners ?? []);
  const pins = groups.flatMap((group) => group.pins);
  // Four screws and the motor's plug.
  expect(pins.map((pin) => pin.index)).toEqual([0, 1, 2, 3, 4]);
  expect(new Set(pins.map((pin) => `${pin.x},${pin.y}`)).size).toBe(5);
  // "lower left" is below and to the left of the rest.
  const long = groups[1]?.pins[0];
  expect(long && long.x < 0.5 && long.y > 0.5).toBe(true);
});

test('places of the machine’s own data go before words; without either they stand round the part', () => {
  const [given] = fastenerMap([
    {
      count: 2,
      what: 'clip',
      hole: 'left and right',
      at: [
        [0.3, 0.3],
        [0.7, 0.3],
      ],
    },
  ]);
  expect(given?.pins.map(({ x, y }) => [x, y])).toEqual([
    [0.3, 0.3],
    [0.7, 0.3],
  ]);
  const unknown = fastenerMap([{ count: 7, what: 'M3 screw' }]).flatMap((group) => group.pins);
  for (const a of unknown)
    for (const b of unknown) if (a !== b) expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThan(0.2);
});

test('almost the same length is flagged before it comes out, clearly different lengths are not', () => {
  const groups = fastenerMap(buffer?.fasteners ?? []);
  expect(groups.map((group) => group.lookAlikes)).toEqual([['B'], ['A'], []]);
  expect(fastenerMap(cover?.fasteners ?? []).map((group) => group.lookAlikes)).toEqual([[], [], []]);
});

test('what is out lies on the mat until it is in or left out for a reason; what is only loosened never does', () => {
  const groups = fastenerMap([
    { count: 2, what: 'M3 screw' },
    { count: 1, what: 'spring screw', loosenOnly: true },
  ]);
  expect(onTheMat(groups, { 0: { now: 'out' }, 1: { now: 'out' }, 2: { now: 'out' } }).map((pin) => pin.index)).toEqual(
    [0, 1],
  );
  expect(onTheMat(groups, { 0: { now: 'in' }, 1: { now: 'left', why: 'stripped' } })).toEqual([]);
});

test('plugs, collets and springs are joints like screws; what only comes loose is never left on the mat', () => {
  const groups = fastenerMap(cover?.fasteners ?? []);
  const plug = groups.find(({ fastener }) => fastener.what === 'plug')?.pins[0]?.index ?? -1;
  expect(onTheMat(groups, { [plug]: { now: 'out' } })).toEqual([]);
  const spring = fastenerMap(buffer?.fasteners ?? []).find(({ fastener }) => fastener.what === 'spring');
  expect(spring?.fastener.note).toMatch(/under tension/);
  expect(onTheMat(spring ? [spring] : [], { [spring?.pins[0]?.index ?? -1]: { now: 'out' } })).toHaveLength(1);
});
