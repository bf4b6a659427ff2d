export const mean = (list: readonly number[]): number => list.reduce((sum, x) => sum + x, 0) / Math.max(1, list.length);

/** Standard error of the mean. */
export const standardError = (list: readonly number[]): number => {
  const m = mean(list);
  return Math.sqrt(mean(list.map((x) => (x - m) ** 2)) / list.length);
};
