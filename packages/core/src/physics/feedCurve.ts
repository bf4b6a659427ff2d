import { strandArea } from './feed';

/** Length fed of a length asked at one speed of the strand. */
export interface FedAt {
  readonly mmPerS: number;
  readonly askedMm: number;
  readonly fedMm: number;
}

export interface FeedCurve {
  /** Share fed while nothing is lost yet: the steps, not the hot end. */
  readonly level: number;
  /** Speed of the strand from where it falls off, mm/s, and by how much of the whole each further mm/s; no fall: absent. */
  readonly kneeMmPerS?: number;
  readonly slope?: number;
  /** Speed at which 5 % of the level is lost, mm/s, with its standard error by leaving out each point once; absent when it lies beyond what was tried. */
  readonly fivePercentMmPerS?: number;
  readonly standardError?: number;
  /** The same as flow, mm³/s. */
  readonly flowMm3PerS?: number;
  readonly fastestMmPerS: number;
  /** Root mean square of what is left over, as a share. */
  readonly residual: number;
}

const LOST = 0.05;
/** A fall that is no more than the readings' own scatter is none. */
const LEAST_FALL = 0.01;
const STEPS = 400;

interface Fit {
  readonly level: number;
  readonly knee: number;
  readonly slope: number;
  readonly sse: number;
}

/** Level and slope for one knee, by least squares on share = level − slope · max(0, v − knee); slope not negative. */
function withKnee(points: readonly (readonly [number, number])[], knee: number): Fit {
  const n = points.length;
  let sx = 0;
  let sxx = 0;
  let sy = 0;
  let sxy = 0;
  for (const [v, share] of points) {
    const x = Math.max(0, v - knee);
    sx += x;
    sxx += x * x;
    sy += share;
    sxy += x * share;
  }
  const det = n * sxx - sx * sx;
  const slope = det > 1e-12 ? Math.max(0, (sx * sy - n * sxy) / det) : 0;
  const level = (sy + slope * sx) / n;
  const sse = points.reduce((sum, [v, share]) => sum + (share - level + slope * Math.max(0, v - knee)) ** 2, 0);
  return { level, knee, slope, sse };
}

function bestFit(points: readonly (readonly [number, number])[]): Fit {
  const speeds = points.map(([v]) => v);
  const [low, high] = [Math.min(...speeds), Math.max(...speeds)];
  let best = withKnee(points, low);
  for (let i = 1; i < STEPS; i++) {
    const fit = withKnee(points, low + ((high - low) * i) / STEPS);
    if (fit.sse < best.sse - 1e-12) best = fit;
  }
  return best;
}

const fivePercent = ({ level, knee, slope }: Fit): number | undefined =>
  slope > 0 ? knee + (LOST * level) / slope : undefined;

/**
 * What the hot end melts, as a fall-off: level up to a knee, then a straight fall (segmented regression, the knee by search,
 * the rest by least squares), and from it the speed at which 5 % is lost.
 *
 * @param strandMm diameter of the strand, for the flow
 * @throws RangeError with fewer than four speeds, or equal ones.
 */
export function fitFeedCurve(list: readonly FedAt[], strandMm: number): FeedCurve {
  const points = list.map(({ mmPerS, askedMm, fedMm }): readonly [number, number] => [mmPerS, fedMm / askedMm]);
  if (new Set(points.map(([v]) => v)).size < 4)
    throw new RangeError('Four different speeds at least: two that are surely slow enough, two that are fast.');
  const fit = bestFit(points);
  const fastest = Math.max(...points.map(([v]) => v));
  const residual = Math.sqrt(fit.sse / points.length);
  const fallen = fit.slope * (fastest - fit.knee);
  if (fallen < Math.max(LEAST_FALL, 2 * residual)) {
    const level = points.reduce((sum, [, share]) => sum + share, 0) / points.length;
    return { level, fastestMmPerS: fastest, residual };
  }
  const at = fivePercent(fit);
  const known = at !== undefined && at <= fastest;
  // Jackknife (Quenouille 1956): the estimate again without each point.
  const again = points
    .map((_, i) => fivePercent(bestFit(points.filter((__, k) => k !== i))))
    .filter((x): x is number => x !== undefined);
  const mean = again.reduce((sum, x) => sum + x, 0) / (again.length || 1);
  const n = again.length;
  const standardError = Math.sqrt(((n - 1) / n) * again.reduce((sum, x) => sum + (x - mean) ** 2, 0));
  return {
    level: fit.level,
    kneeMmPerS: fit.knee,
    slope: fit.slope,
    ...(known ? { fivePercentMmPerS: at, standardError, flowMm3PerS: at * strandArea(strandMm) } : {}),
    fastestMmPerS: fastest,
    residual,
  };
}
