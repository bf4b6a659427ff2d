/** What is at stake when the long print is begun at once. */
export interface Bet {
  /** Chance that the fault is still there. */
  readonly pFail: number;
  readonly printHours: number;
  readonly filamentGrams: number;
  readonly pricePerKg: number;
  /** What an hour of the machine is worth. */
  readonly machineRate: number;
  /** The calibration piece: minutes, and the chance that it misses the fault. */
  readonly pieceMinutes: number;
  readonly pieceMiss: number;
}

export interface BetAdvice {
  /** Expected loss of beginning at once, in money. */
  readonly straight: number;
  /** Expected loss with the piece first: its time, and what it misses. */
  readonly pieceFirst: number;
  /** Chance of failure at which both cost the same; above it the piece comes first. */
  readonly breakEven: number;
  readonly advice: 'piece first' | 'straight away';
}

/**
 * The bet on the long print: p (hours × rate + filament) against the piece's time and what it would miss. A print that fails
 * is taken to fail at its end: the worst case.
 *
 * @throws RangeError when a figure is negative or a chance is not between 0 and 1.
 */
export function priceBet(bet: Bet): BetAdvice {
  const { pFail, printHours, filamentGrams, pricePerKg, machineRate, pieceMinutes, pieceMiss } = bet;
  for (const [name, value] of Object.entries(bet))
    if (!(value >= 0)) throw new RangeError(`${name} must not be negative.`);
  if (pFail > 1 || pieceMiss > 1) throw new RangeError('A chance lies between 0 and 1.');
  const loss = printHours * machineRate + (filamentGrams / 1000) * pricePerKg;
  const piece = (pieceMinutes / 60) * machineRate;
  const straight = pFail * loss;
  const pieceFirst = piece + pFail * pieceMiss * loss;
  const saved = loss * (1 - pieceMiss);
  const breakEven = saved > 0 ? Math.min(1, piece / saved) : 1;
  return { straight, pieceFirst, breakEven, advice: pFail > breakEven ? 'piece first' : 'straight away' };
}
