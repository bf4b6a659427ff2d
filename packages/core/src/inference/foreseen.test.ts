import fc from 'fast-check';
import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { causesOf } from '../observation/causes';
import { routeOf } from '../path/route';
import { dunlin } from '../testing/machines';
import { Foreseen, keyWith, type Sized } from './foreseen';
import { priorOf, SetPrior } from './prior';

// Two of one mode, so that some raise each other, and others that do not.
const all = causesOf({ machine: dunlin, catalogue, symptoms: [], before: [], material: 'PLA' }, routeOf(dunlin));
const edges = all.filter(({ mode }) => mode.id === all[0]?.mode.id).slice(0, 2);
const causes = [...edges, ...all.filter(({ mode }) => !edges.some((edge) => edge.mode.id === mode.id)).slice(0, 4)];
const N = causes.length;
const prior = new SetPrior(causes, priorOf(causes));
const rank = causes.map((_, c) => c);
const pairsOf = (n: number) => rank.flatMap((a) => rank.slice(a + 1, n).map((b) => [a, b]));
const logs = (n: number) => fc.array(fc.double({ min: -2, max: 1, noNaN: true }), { minLength: n, maxLength: n });

/** By the definition: what the set says, and the least that the added fault does beside any single one of its faults. */
function byDefinition(
  { set, log }: Sized,
  add: number,
  whole: number,
  alone: readonly Sized[],
  pairs: readonly Sized[],
): number {
  const says = (item: Sized): number => item.log - prior.log(item.set);
  const beside = set.map((m) => {
    const both = pairs.find((pair) => pair.set.includes(m) && pair.set.includes(add)) as Sized;
    return says(both) - says(alone[m] as Sized);
  });
  return Math.exp(says({ set, log }) + Math.min(...beside) + prior.log([...set, add]) - whole);
}

test.each([
  ['two to three', pairsOf(N)],
  ['three to four', pairsOf(N).flatMap(([a = 0, b = 0]) => rank.slice(b + 1).map((c) => [a, b, c]))],
])(
  '%s: every larger set once, from the likeliest that it can be made of, with what the definition expects of it',
  (_, sets) => {
    fc.assert(
      fc.property(logs(N), logs(pairsOf(N).length), logs(sets.length), (one, two, more) => {
        const alone = one.map((x, c): Sized => ({ set: [c], log: prior.log([c]) + x }));
        const pairs = pairsOf(N).map((set, i): Sized => ({ set, log: prior.log(set) + (two[i] ?? 0) }));
        const level =
          sets[0]?.length === 2 ? pairs : sets.map((set, i): Sized => ({ set, log: prior.log(set) + (more[i] ?? 0) }));
        // So that none is too unlikely to be listed.
        const whole = Math.max(...level.map(({ log }) => log)) - 2;
        const { classes, at } = new Foreseen(rank, prior, alone, pairs).larger(level, whole);
        const listed = classes.flatMap((like) => like.sets);
        const keys = listed.map((code) => [...at(code).set, at(code).add].sort((a, b) => a - b).join());
        expect(new Set(keys).size).toBe(keys.length);
        const size = (sets[0]?.length ?? 0) + 1;
        const larger = level.flatMap(({ set }) =>
          rank.filter((c) => !set.includes(c)).map((c) => [...set, c].sort((a, b) => a - b).join()),
        );
        expect(new Set(keys)).toEqual(new Set(larger));
        let lowest = Infinity;
        for (const like of classes.slice(0, -1)) {
          const own = like.sets.map((code) => {
            const { set, add } = at(code);
            const parent = level.find((item) => item.set.join() === set.join()) as Sized;
            // It is made of the likeliest set that it can be made of.
            for (const other of level)
              if (other.log > parent.log + 1e-12)
                expect(other.set.every((c) => c === add || set.includes(c)) && other.set.length === size - 1).toBe(
                  false,
                );
            return byDefinition(parent, add, whole, alone, pairs);
          });
          expect(own.reduce((sum, x) => sum + x, 0)).toBeCloseTo(like.expected, 9);
          // Classes follow one another.
          for (const x of own) expect(x).toBeLessThanOrEqual(Math.max(1, lowest * 1.0000001));
          if (own.length > 0) lowest = Math.min(lowest, ...own);
        }
      }),
      { numRuns: 25 },
    );
  },
);

test('what is too unlikely to be listed is counted all the same, each set once', () => {
  const flat = (set: readonly number[], x: number): Sized => ({ set, log: prior.log(set) + x });
  // Each further fault is a reproach: what is made of three of them is far less likely than what it is made of.
  const alone = rank.map((c) => flat([c], 36));
  const pairs = pairsOf(N).map((set) => flat(set, 18));
  const triples = pairsOf(N).flatMap(([a = 0, b = 0]) => rank.slice(b + 1).map((c) => [a, b, c]));
  const expected = triples.reduce((sum, set) => sum + Math.exp(prior.log(set)), 0);
  // Seen from so much above that every set of three lies under what is listed, and pairs still above what is made larger.
  const whole = Math.max(...triples.map((set) => prior.log(set))) + 15.7;
  const { classes } = new Foreseen(rank, prior, alone, pairs).larger(pairs, whole);
  expect(classes.flatMap(({ sets }) => sets)).toEqual([]);
  const counted = (classes.at(-1)?.expected ?? 0) / (expected / Math.exp(whole));
  expect(counted).toBeCloseTo(1, 1);
});

test('a set and one more as one number, the same from whichever of its sets', () => {
  const places = [2, 0, 3, 1, 4];
  expect(keyWith([1, 3], 0, places)).toBe(keyWith([1, 0], 3, places));
  expect(keyWith([1, 3], 0, places)).toBe(keyWith([3, 0], 1, places));
  expect(keyWith([1, 3], 2, places)).not.toBe(keyWith([1, 3], 0, places));
  // In path order 1, 3, 0: by hand, with base 6.
  expect(keyWith([1, 3], 0, places)).toBe((2 * 6 + 4) * 6 + 1);
});
