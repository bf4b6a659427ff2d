const KELVIN = 273.15;

/**
 * Resistance of a thermistor by its B equation: R = R0 exp(B (1/T − 1/T0)), Ω.
 *
 * @param temperatureC above absolute zero
 * @param r0 resistance at 25 °C, Ω
 * @param b B value, K
 * @throws RangeError below absolute zero.
 */
export function thermistorOhms(temperatureC: number, r0 = 100_000, b = 3950): number {
  if (!(temperatureC > -KELVIN)) throw new RangeError('The temperature lies below absolute zero.');
  return r0 * Math.exp(b * (1 / (temperatureC + KELVIN) - 1 / (25 + KELVIN)));
}

/** Resistance of a heater from its rating, R = V²/P, Ω. @throws RangeError when a rating is not positive. */
export function heaterOhms(volts: number, watts: number): number {
  if (!(volts > 0 && watts > 0)) throw new RangeError('Volts and watts must be positive.');
  return volts ** 2 / watts;
}

/** Constants of Steinhart and Hart's equation: 1/T = A + B ln R + C (ln R)³, T in kelvin, R in Ω. */
export interface SteinhartHart {
  readonly a: number;
  readonly b: number;
  readonly c: number;
}

/**
 * Constants through three points of a sensor's table (Steinhart and Hart 1968, Deep-Sea Research 15, 497).
 *
 * @param points temperature in °C and resistance in Ω, three different ones
 * @throws RangeError for points that are alike or cannot be
 */
export function steinhartHart(
  points: readonly [readonly [number, number], readonly [number, number], readonly [number, number]],
): SteinhartHart {
  if (points.some(([t, r]) => !(t > -KELVIN && r > 0)))
    throw new RangeError('A point is a temperature above absolute zero and a resistance above nothing.');
  const [l1, l2, l3] = points.map(([, r]) => Math.log(r)) as [number, number, number];
  const [y1, y2, y3] = points.map(([t]) => 1 / (t + KELVIN)) as [number, number, number];
  if (l1 === l2 || l2 === l3 || l1 === l3) throw new RangeError('Three different resistances are needed.');
  const g2 = (y2 - y1) / (l2 - l1);
  const g3 = (y3 - y1) / (l3 - l1);
  const c = (g3 - g2) / (l3 - l2) / (l1 + l2 + l3);
  const b = g2 - c * (l1 * l1 + l1 * l2 + l2 * l2);
  return { a: y1 - (b + l1 * l1 * c) * l1, b, c };
}

/** Temperature that a sensor of these constants shows at a resistance, °C. @throws RangeError when the resistance is not positive */
export function thermistorC(ohms: number, { a, b, c }: SteinhartHart): number {
  if (!(ohms > 0)) throw new RangeError('A resistance is more than nothing.');
  const l = Math.log(ohms);
  return 1 / (a + b * l + c * l ** 3) - KELVIN;
}
