import { heaterOhms, thermistorOhms } from './electric';
import { afterBend } from './force';
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

describe('force and resistance', () => {
  // Euler and Eytelwein: T2 = T1 e^(μθ); figures of the rope friction formula.
  test.each([
    [0.1, Math.PI, 1.3691],
    [0.1, 3 * Math.PI, 2.5663],
    [0.2, 3 * Math.PI, 6.5861],
  ])('μ %f over %f rad', (friction, bend, factor) => {
    expect(afterBend(1, friction, bend)).toBeCloseTo(factor, 4);
  });

  // B equation, 100 kΩ at 25 °C, B 3950.
  test.each([
    [60, 24_862],
    [100, 6_975],
    [200, 744.6],
    [220, 530.8],
    [250, 335.3],
  ])('a thermistor at %i °C', (celsius, ohms) => {
    expect(thermistorOhms(celsius) / ohms).toBeCloseTo(1, 3);
  });

  test('a heater of 24 V and 40 W has 14.4 Ω, of 12 V 3.6 Ω; what cannot be is refused', () => {
    expect(heaterOhms(24, 40)).toBeCloseTo(14.4, 9);
    expect(heaterOhms(12, 40)).toBeCloseTo(3.6, 9);
    expect(() => heaterOhms(0, 40)).toThrow(RangeError);
    expect(() => thermistorOhms(-300)).toThrow(RangeError);
  });
});
