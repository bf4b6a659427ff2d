/** Error function, Abramowitz and Stegun 7.1.26, absolute error below 1.5e-7: ample beside a spread judged by eye. */
function erf(x: number): number {
  const t = 1 / (1 + 0.3275911 * Math.abs(x));
  const poly = ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) * t;
  const y = 1 - poly * Math.exp(-x * x);
  return x >= 0 ? y : -y;
}

export const normalCdf = (x: number, mean: number, sd: number): number => (1 + erf((x - mean) / (sd * Math.SQRT2))) / 2;

export const normalPdf = (x: number, mean: number, sd: number): number =>
  Math.exp(-(((x - mean) / sd) ** 2) / 2) / (sd * Math.sqrt(2 * Math.PI));

/** Density of a place spread evenly over [from, to] and read with a normal error. */
export function smearedPdf(x: number, from: number, to: number, sd: number): number {
  if (to - from < sd / 50) return normalPdf(x, (from + to) / 2, sd);
  return (normalCdf(x, from, sd) - normalCdf(x, to, sd)) / (to - from);
}

/** Beyond this many spreads a normal error does not reach. */
const FAR = 6;

/** Antiderivative of the standard normal distribution function: z Φ(z) + φ(z). */
const cdfIntegral = (z: number): number => z * normalCdf(z, 0, 1) + normalPdf(z, 0, 1);

/** Probability that such a reading falls within [low, high]; exact, from the antiderivative. */
export function smearedMass(low: number, high: number, from: number, to: number, sd: number): number {
  // Most bands lie far from most places: nothing to be worked out there, within 1e-9.
  const reach = FAR * sd;
  if (high < from - reach || low > to + reach) return 0;
  if (low < from - reach && high > to + reach) return 1;
  if (to - from < sd / 50) return normalCdf(high, (from + to) / 2, sd) - normalCdf(low, (from + to) / 2, sd);
  const part = (edge: number): number => cdfIntegral((high - edge) / sd) - cdfIntegral((low - edge) / sd);
  return (sd / (to - from)) * (part(from) - part(to));
}
