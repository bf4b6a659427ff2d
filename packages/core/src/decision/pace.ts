import type { Catalogue } from '../catalogue/types';

/** How the minutes that a shop needs compare with those expected at the taking-in. */
export interface ShopPace {
  /** Closed orders that speak; none: what was measured on simulated orders. */
  readonly orders: number;
  /** Mean minutes as a multiple of what is expected. */
  readonly factor: number;
  /** Eight of ten orders lie between these multiples. */
  readonly low: number;
  readonly high: number;
}

/** A catalogue as a shop's own orders have moved it; never a file. */
export interface LearnedCatalogue extends Catalogue {
  readonly pace?: ShopPace;
}

/** Bench minutes of closed orders against what was expected of each at the taking-in. */
export interface Pace {
  readonly orders: number;
  /** Sums of minutes. */
  readonly expected: number;
  readonly taken: number;
  /** Sums of the natural logarithms of taken over expected, and of their squares. */
  readonly logs: number;
  readonly squares: number;
}

/**
 * Between which shares of the minutes expected at the taking-in eight of ten orders lie: measured on 400 simulated orders, ten
 * machines, half of them in the catalogue's own world and half in one of other structure (0.26 to 1.62, 0.26 to 1.68; docs/bench.md).
 */
const EIGHT_OF_TEN = { low: 0.26, high: 1.65 } as const;
/**
 * An order takes so many times what is expected of it at the taking-in where no shop's orders are known: the mean of the two worlds in the same
 * measurement (1.00 where the catalogue is right, 1.21 where it is off in every rate; docs/bench.md).
 */
const UNKNOWN_SHOP = 1.1;
/** Standard deviations of a normal distribution beyond which a tenth lies. */
const TENTH = 1.2816;
/** So many orders are worth as much as what was measured (chosen). */
const STRENGTH = 20;
const MEAN = (Math.log(EIGHT_OF_TEN.low) + Math.log(EIGHT_OF_TEN.high)) / 2;
const VARIANCE = (Math.log(EIGHT_OF_TEN.high / EIGHT_OF_TEN.low) / (2 * TENTH)) ** 2;

/** What was measured, moved by what the shop's own orders took: the mean by sums, the range by logarithms, as if normal. */
export function shopPace(pace: Pace | undefined): ShopPace {
  if (!pace || pace.orders <= 0) return { orders: 0, factor: UNKNOWN_SHOP, ...EIGHT_OF_TEN };
  const { orders, expected, taken, logs, squares } = pace;
  const n = STRENGTH + orders;
  const mean = (STRENGTH * MEAN + logs) / n;
  const variance = (STRENGTH * (VARIANCE + (MEAN - mean) ** 2) + squares - 2 * mean * logs + orders * mean * mean) / n;
  const spread = TENTH * Math.sqrt(Math.max(0, variance));
  return {
    orders,
    factor: (STRENGTH * UNKNOWN_SHOP + (orders * taken) / expected) / n,
    low: Math.exp(mean - spread),
    high: Math.exp(mean + spread),
  };
}
