import { calibrateFeed, strandArea } from './feed';
import { coolingConstant, cooledTo, secondsToCool } from './heat';
import { tubeSlack } from './tube';

// Check values: closed forms worked by hand, as in the trade's arithmetic (see docs/checks.md).
describe('strand and feed', () => {
  test('area π d²/4', () => {
    expect(strandArea(1.75)).toBeCloseTo(2.4053, 4);
    expect(strandArea(2.85)).toBeCloseTo(6.3794, 4);
  });

  test('new steps/mm = old × asked / fed: 400 × 100 / 92.5', () => {
    const result = calibrateFeed(100, 92.5, 400);
    expect(result.stepsPerMm).toBeCloseTo(432.4324, 4);
    expect(result.resolvable).toBeCloseTo(0.005, 10);
    expect(result.significant).toBe(true);
    // First-order propagation of the quotient's error (GUM, JCGM 100:2008, 5.1): u/y = u(fed)/fed.
    expect(result.uncertainty / result.stepsPerMm).toBeCloseTo(0.5 / 92.5, 10);
  });

  test('a change that the reading cannot show asks for a longer feed that can', () => {
    const result = calibrateFeed(100, 99.7, 93);
    expect(result.significant).toBe(false);
    const longer = result.longerFeedMm ?? 0;
    expect(longer * 0.003).toBeGreaterThan(0.5);
  });

  test('nothing fed, or impossible figures, are refused', () => {
    expect(() => calibrateFeed(100, 0, 93)).toThrow(/Nothing was fed/);
    expect(() => calibrateFeed(0, 10, 93)).toThrow(RangeError);
  });
});

describe('heat', () => {
  test('cooling time: τ 180 s, 220 °C at 22 °C ambient', () => {
    expect(secondsToCool(220, 100, 22, 180)).toBeCloseTo(167.7, 1);
    expect(secondsToCool(220, 51, 22, 180)).toBeCloseTo(345.8, 1);
    expect(secondsToCool(220, 48, 22, 180)).toBeCloseTo(365.4, 1);
  });

  test('time constant from two readings: 220 → 150 °C in 85 s', () => {
    expect(coolingConstant(220, 150, 85, 22)).toBeCloseTo(194.85, 2);
  });

  test('cooling for the time to a temperature ends at that temperature', () => {
    expect(cooledTo(220, 22, 180, secondsToCool(220, 48, 22, 180))).toBeCloseTo(48, 9);
  });

  test('what never happens is refused', () => {
    expect(() => secondsToCool(200, 20, 22, 180)).toThrow(/will not cool/);
    expect(() => coolingConstant(150, 220, 85, 22)).toThrow(RangeError);
    expect(secondsToCool(30, 48, 22, 180)).toBe(0);
  });
});

describe('tube', () => {
  test('slack of a strand in a bent tube: clearance × bend', () => {
    expect(tubeSlack(2, 1.75, 3 * Math.PI)).toBeCloseTo(2.356, 3);
    expect(tubeSlack(1.9, 1.75, 3 * Math.PI)).toBeCloseTo(1.414, 3);
    expect(() => tubeSlack(1.7, 1.75, 1)).toThrow(/thicker/);
  });
});
