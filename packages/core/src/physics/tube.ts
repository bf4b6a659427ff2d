/**
 * Slack of a strand in a bent tube: going from pull to push it changes wall, ΔL = (bore − strand) × total bend.
 *
 * @param boreMm inner diameter of the tube, mm
 * @param strandMm diameter of the strand, mm, at most the bore
 * @param bendRad total bend along the tube, radians
 * @throws RangeError when the strand is thicker than the bore.
 */
export function tubeSlack(boreMm: number, strandMm: number, bendRad: number): number {
  if (strandMm > boreMm) throw new RangeError('The strand is thicker than the bore.');
  return (boreMm - strandMm) * bendRad;
}
