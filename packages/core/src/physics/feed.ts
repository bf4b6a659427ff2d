/** Cross-section of the strand, mm², from its diameter in mm. */
export const strandArea = (diameterMm: number): number => (Math.PI * diameterMm ** 2) / 4;

export interface FeedCalibration {
  readonly stepsPerMm: number;
  /** Half-width of the steps' range that the reading allows, steps/mm. */
  readonly uncertainty: number;
  /** Change as a fraction of the old value. */
  readonly change: number;
  /** Change that the reading could not tell from none, as a fraction. */
  readonly resolvable: number;
  readonly significant: boolean;
  /** Feed that would show this change with the same reading error, mm; undefined when the change is significant or nil. */
  readonly longerFeedMm?: number;
}

/**
 * New steps/mm = old × asked / fed, with the uncertainty that the reading error puts on it (relative error of the
 * quotient: reading error over fed length, first order).
 *
 * @param askedMm length asked, mm, positive
 * @param fedMm length measured, mm, positive
 * @param oldSteps present steps/mm, positive
 * @param readingMm half-width of one reading, mm (0.5 for a ruler)
 * @throws RangeError when a length or the steps are not positive.
 */
export function calibrateFeed(askedMm: number, fedMm: number, oldSteps: number, readingMm = 0.5): FeedCalibration {
  if (!(askedMm > 0 && oldSteps > 0 && readingMm > 0))
    throw new RangeError('Asked length, steps and reading error must be positive.');
  if (!(fedMm > 0)) throw new RangeError('Nothing was fed: the steps cannot be computed. Trace the fault first.');
  const stepsPerMm = (oldSteps * askedMm) / fedMm;
  const change = stepsPerMm / oldSteps - 1;
  const resolvable = readingMm / askedMm;
  const missing = Math.abs(askedMm - fedMm);
  const significant = missing > readingMm;
  return {
    stepsPerMm,
    uncertainty: stepsPerMm * (readingMm / fedMm),
    change,
    resolvable,
    significant,
    ...(significant || missing === 0
      ? {}
      : { longerFeedMm: Math.ceil((askedMm * readingMm * 1.5) / missing / 50) * 50 }),
  };
}
