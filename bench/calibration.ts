/** A share that was stated, and whether it was so. */
export type Stated = readonly [number, boolean];

interface Bin {
  readonly n: number;
  /** Sum of what was stated. */
  readonly stated: number;
  /** How often it was so. */
  readonly hits: number;
}

/** What was stated, in ten even bins. */
function bins(of: readonly Stated[]): readonly Bin[] {
  return of.reduce(
    (all, [p, hit]) =>
      all.map((bin, i) =>
        i === Math.min(9, Math.floor(p * 10))
          ? { n: bin.n + 1, stated: bin.stated + p, hits: bin.hits + (hit ? 1 : 0) }
          : bin,
      ),
    Array.from({ length: 10 }, (): Bin => ({ n: 0, stated: 0, hits: 0 })),
  );
}

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
