/** A share that was stated, and whether it was so. */
export type Stated = readonly [number, boolean];

/** What was stated, in ten even bins. */
const bins = (of: readonly Stated[]) =>
  Array.from({ length: 10 }, (_, i) => {
    const inside = of.filter(([p]) => Math.min(9, Math.floor(p * 10)) === i);
    return {
      n: inside.length,
      stated: inside.reduce((sum, [p]) => sum + p, 0),
      hits: inside.filter(([, so]) => so).length,
    };
  });

/** Expected calibration error over ten even bins: |stated − true share|, weighted by how often it is stated. */
export const calibrationError = (of: readonly Stated[]): number =>
  bins(of).reduce((sum, { stated, hits }) => sum + Math.abs(stated - hits), 0) / Math.max(1, of.length);

/** A row for each bin: how often, what was stated in the mean, and how often it was so. */
export const calibrationTable = (of: readonly Stated[]) =>
  bins(of).map(({ n, stated, hits }, i) => ({
    stated: `${i * 10}–${i * 10 + 10} %`,
    n,
    'mean stated %': Math.round((100 * stated) / Math.max(1, n)),
    'true %': Math.round((100 * hits) / Math.max(1, n)),
  }));
