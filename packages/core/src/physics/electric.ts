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
