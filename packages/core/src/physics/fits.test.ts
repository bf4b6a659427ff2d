import { inLbfFromNm, KNOWN_DRILLS, nmFromInLbf, numberDrillMm, tapDrillMm, THREADS, travelMm } from './fits';

test('drills, threads and torque by their standards', () => {
  // 1 in·lbf = 0.112985 N·m (NIST SP 811, appendix B.8); no. 29 = 0.136 in (ANSI B94.11M).
  expect(nmFromInLbf(1)).toBeCloseTo(0.112985, 6);
  expect(inLbfFromNm(nmFromInLbf(13))).toBeCloseTo(13, 12);
  expect(numberDrillMm(29)).toBeCloseTo(3.4544, 4);
  expect(numberDrillMm(61)).toBeUndefined();
  // ISO 2306 lists 2.5 for M3, 3.3 for M4, 5 for M6, 6.8 for M8 (rounded from 6.75).
  const drill = (mm: number): number => tapDrillMm(mm, THREADS.find((one) => one.mm === mm)?.pitchMm ?? 0);
  expect([drill(3), drill(4), drill(6), drill(8)].map((x) => Number(x.toFixed(2)))).toEqual([2.5, 3.3, 5, 6.75]);
  // Three quarters of a turn of M10 × 1 and of M6 × 1 (ISO 261).
  expect(travelMm(0.75, 1)).toBe(0.75);
  expect(() => tapDrillMm(3, 3)).toThrow(RangeError);
});

test('a higher number is a thinner drill, and a hole that clears is wider than its thread', () => {
  const sizes = [...KNOWN_DRILLS].sort((a, b) => a - b).map((n) => numberDrillMm(n) ?? 0);
  expect(sizes).toEqual([...sizes].sort((a, b) => b - a));
  for (const { mm, pitchMm, clearanceMm } of THREADS) {
    expect(clearanceMm).toBeGreaterThan(mm);
    expect(tapDrillMm(mm, pitchMm)).toBeLessThan(mm);
  }
});
