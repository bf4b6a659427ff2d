import fc from 'fast-check';
import { fitWeibull, ageReplacement, halfLife, type Life } from './partLife';

// Ball bearings, million turns: Lieblein and Zelen 1956, J. Res. NBS 57; lives and estimates from memory.
const BEARINGS = [
  17.88, 28.92, 33.0, 41.52, 42.12, 45.6, 48.4, 51.84, 51.96, 54.12, 55.56, 67.8, 68.64, 68.64, 68.88, 84.12, 93.12,
  98.64, 105.12, 105.84, 127.92, 128.04, 173.4,
];
const ended = (hours: number): Life => ({ hours, ended: true });
const running = (hours: number): Life => ({ hours, ended: false });

describe('Weibull', () => {
  test('23 ball bearings: shape 2.102, scale 81.87', () => {
    const { shape, scale } = fitWeibull(BEARINGS.map(ended));
    expect(shape).toBeCloseTo(2.102, 3);
    expect(scale).toBeCloseTo(81.87, 1);
  });

  // With the exponential shape the estimate of the mean is total time over failures; here the shape is free, so it is checked
  // by its own optimum: no neighbour is likelier.
  test('what is found is likelier than its neighbours, censored lives included', () => {
    const lives = [ended(200), ended(450), ended(700), running(500), running(900)];
    const likelihood = (k: number, c: number): number =>
      lives.reduce(
        (sum, { hours: t, ended: e }) => sum + (e ? Math.log(k / c) + (k - 1) * Math.log(t / c) : 0) - (t / c) ** k,
        0,
      );
    const { shape, scale } = fitWeibull(lives);
    const best = likelihood(shape, scale);
    for (const [dk, dc] of [
      [1.02, 1],
      [0.98, 1],
      [1, 1.02],
      [1, 0.98],
    ] as const)
      expect(likelihood(shape * dk, scale * dc)).toBeLessThan(best);
  });

  test('says what it needs', () => {
    expect(() => fitWeibull([ended(5), ended(5), running(9)])).toThrow(/Two different/);
    expect(() => fitWeibull([ended(0), ended(5)])).toThrow(/longer than 0/);
  });
});

describe('hours until half need renewing', () => {
  test('without lives the starting figure stands', () => expect(halfLife(1500, [])).toBeCloseTo(1500, 9));

  // Laplace's approximation by hand, shape 2: with n ended lives of one length m the posterior of ln scale lies near ln m + …
  // where prior and likelihood balance: x/0.49 = 2n(e^(−2x + 2u) − 1), u = ln(m/start scale); n = 1, m = half the start.
  test('by hand: one that ended at 500 of 1000 hours moves it about a third of the way', () => {
    const u = Math.log(500 / (1000 / Math.sqrt(Math.LN2)));
    let x = 0;
    for (let i = 0; i < 200; i++) x += 0.02 * (-x / 0.49 + 2 * (Math.exp(2 * u - 2 * x) - 1));
    expect(Math.abs(Math.log(halfLife(1000, [ended(500)]) / (1000 * Math.exp(x))))).toBeLessThan(0.15);
  });

  test('with many lives it is what they say', () => {
    const lives = Array.from({ length: 20 }, () => BEARINGS.map(ended)).flat();
    const { shape, scale } = fitWeibull(lives);
    expect(halfLife(300, lives) / (scale * Math.LN2 ** (1 / shape))).toBeCloseTo(1, 1);
  });

  test('a part that still runs never shortens it, an early end never lengthens it', () => {
    fc.assert(
      fc.property(fc.integer({ min: 100, max: 5000 }), fc.integer({ min: 1, max: 5000 }), (start, hours) => {
        expect(halfLife(start, [running(hours)])).toBeGreaterThanOrEqual(start - 1e-6);
        if (hours < start) expect(halfLife(start, [ended(hours)])).toBeLessThan(start);
      }),
    );
  });
});

// Barlow and Proschan 1965, age replacement: at the best age h(T) ∫R − F(T) = 1 / (ratio − 1), h the hazard rate.
test.each([
  [2, 3],
  [2.5, 10],
  [4, 2],
])('the age at which renewing is cheapest fulfils its condition: shape %f, a failure costs %f', (shape, ratio) => {
  const { atHours, share } = ageReplacement({ shape, scale: 700 }, ratio);
  const t = atHours / 700;
  let lived = 0;
  const steps = 200_000;
  for (let i = 0; i < steps; i++) lived += Math.exp(-((((i + 0.5) / steps) * t) ** shape)) * (t / steps);
  const condition = shape * t ** (shape - 1) * lived - (1 - Math.exp(-(t ** shape)));
  expect(condition * (ratio - 1)).toBeCloseTo(1, 1);
  expect(share).toBeLessThan(1);
});

test('where age does not wear, or a failure costs no more, waiting is cheapest', () => {
  expect(ageReplacement({ shape: 1, scale: 700 }, 5)).toEqual({ atHours: Infinity, share: 1 });
  expect(ageReplacement({ shape: 0.8, scale: 700 }, 5).atHours).toBe(Infinity);
  expect(ageReplacement({ shape: 3, scale: 700 }, 1).atHours).toBe(Infinity);
  expect(() => ageReplacement({ shape: 0, scale: 1 }, 2)).toThrow(RangeError);
});
