import { linearRegression, sampleVariance } from 'simple-statistics';
import { bedDrift } from './bed';
import { fitFeedCurve, type FedAt } from './feedCurve';

const curve = (share: (v: number) => number, speeds = [1, 2, 3, 4, 5, 6, 7]): FedAt[] =>
  speeds.map((mmPerS) => ({ mmPerS, askedMm: 100, fedMm: 100 * share(mmPerS) }));

test('a level and a straight fall are found again; 5 % of the level, not of what was asked', () => {
  const fit = fitFeedCurve(
    curve((v) => 0.98 - 0.05 * Math.max(0, v - 4)),
    1.75,
  );
  expect(fit.level).toBeCloseTo(0.98, 3);
  expect(fit.kneeMmPerS).toBeCloseTo(4, 1);
  expect(fit.fivePercentMmPerS).toBeCloseTo(4 + (0.05 * 0.98) / 0.05, 1);
  // 2.4053 mm² of strand.
  expect((fit.flowMm3PerS ?? 0) / (fit.fivePercentMmPerS ?? 1)).toBeCloseTo(2.4053, 4);
});

test('beyond the knee it is the ordinary regression line of a general library', () => {
  const list = curve((v) => 1 - 0.08 * Math.max(0, v - 3), [1, 2, 3, 4, 5, 6, 7, 8]);
  const fit = fitFeedCurve(list, 1.75);
  const { m } = linearRegression(list.filter(({ mmPerS }) => mmPerS > 3).map((p) => [p.mmPerS, p.fedMm / p.askedMm]));
  expect(-(fit.slope ?? 0)).toBeCloseTo(m, 3);
});

test('readings of half a millimetre leave an estimate with an error that covers the truth', () => {
  const errors = [0.4, -0.3, 0.2, -0.5, 0.5, -0.2, 0.3];
  const list = curve((v) => 1 - 0.06 * Math.max(0, v - 4)).map((p, i) => ({ ...p, fedMm: p.fedMm + (errors[i] ?? 0) }));
  const fit = fitFeedCurve(list, 1.75);
  const truth = 4 + 0.05 / 0.06;
  expect(fit.standardError).toBeGreaterThan(0);
  expect(fit.standardError).toBeLessThan(0.5);
  expect(Math.abs((fit.fivePercentMmPerS ?? 0) - truth)).toBeLessThan(2 * (fit.standardError ?? 0));
});

// Tukey 1958: SE² = (n − 1)/n Σ (θ(i) − θ(·))², θ(i) being the estimate without point i.
test('the error is that of the jackknife, worked out here from the fits without each point', () => {
  const errors = [0.4, -0.3, 0.2, -0.5, 0.5, -0.2, 0.3];
  const list = curve((v) => 1 - 0.06 * Math.max(0, v - 4)).map((p, i) => ({ ...p, fedMm: p.fedMm + (errors[i] ?? 0) }));
  const without = list.map((_, i) => {
    const {
      level,
      kneeMmPerS = 0,
      slope = 1,
    } = fitFeedCurve(
      list.filter((__, k) => k !== i),
      1.75,
    );
    return kneeMmPerS + (0.05 * level) / slope;
  });
  const n = without.length;
  const spread = sampleVariance(without) * (n - 1);
  expect(fitFeedCurve(list, 1.75).standardError).toBeCloseTo(Math.sqrt(((n - 1) / n) * spread), 9);
});

test('no fall within what was tried is said, not invented; too few speeds are refused', () => {
  const flat = fitFeedCurve(
    curve(() => 0.995),
    1.75,
  );
  expect(flat.fivePercentMmPerS).toBeUndefined();
  expect(flat.kneeMmPerS).toBeUndefined();
  expect(flat.fastestMmPerS).toBe(7);
  expect(() =>
    fitFeedCurve(
      curve(() => 1, [1, 2, 3]),
      1.75,
    ),
  ).toThrow(/Four different speeds/);
});

describe('the bed in two rounds', () => {
  test('turning one point moves the others: drift is shown, and another round asked for until all are even', () => {
    const first = bedDrift([
      { name: 'front left', first: 0.2, second: 0.02 },
      { name: 'front right', first: 0, second: 0.09 },
    ]);
    expect(first.points.map(({ drift }) => Number(drift.toFixed(2)))).toEqual([-0.18, 0.09]);
    expect(first.advice).toBe('another round');
    expect(
      bedDrift([
        { name: 'a', first: 0.02, second: 0.01 },
        { name: 'b', first: 0.09, second: 0.03 },
      ]).advice,
    ).toBe('good');
    expect(bedDrift([{ name: 'a', first: 0, second: 0.4 }]).advice).toBe('look for play');
  });
});
