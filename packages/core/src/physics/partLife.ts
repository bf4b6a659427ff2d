/** How long a part was printed with: until it had to be renewed, or so far. */
export interface Life {
  readonly hours: number;
  /** False when it still ran, or came off sound: it lives at least so long. */
  readonly ended: boolean;
}

export interface Weibull {
  readonly shape: number;
  /** Hours by which 63.2 % have ended. */
  readonly scale: number;
}

const LEAST_SHAPE = 0.05;
const MOST_SHAPE = 50;

/**
 * Weibull by maximum likelihood, lives that have not ended counted as censored: the shape solves
 * Σ tᵏ ln t / Σ tᵏ − 1/k = mean of ln t over the ended ones, the scale is (Σ tᵏ / ended)^(1/k).
 *
 * @throws RangeError with fewer than two different ended lives, or a life that is not positive.
 */
export function fitWeibull(lives: readonly Life[]): Weibull {
  if (lives.some(({ hours }) => !(hours > 0))) throw new RangeError('A life is longer than 0 hours.');
  const ended = lives.filter((life) => life.ended);
  if (new Set(ended.map(({ hours }) => hours)).size < 2)
    throw new RangeError('Two different lives that ended are the least that a fit needs.');
  // In units of the longest life nothing overflows.
  const unit = Math.max(...lives.map(({ hours }) => hours));
  const times = lives.map(({ hours }) => hours / unit);
  const meanLog = ended.reduce((sum, { hours }) => sum + Math.log(hours / unit), 0) / ended.length;
  const slope = (k: number): number => {
    let power = 0;
    let weighted = 0;
    for (const t of times) {
      const x = t ** k;
      power += x;
      weighted += x * Math.log(t);
    }
    return weighted / power - 1 / k - meanLog;
  };
  // It rises with the shape and crosses zero once.
  let low = LEAST_SHAPE;
  let high = MOST_SHAPE;
  for (let i = 0; i < 80; i++) {
    const middle = (low + high) / 2;
    if (slope(middle) < 0) low = middle;
    else high = middle;
  }
  const shape = (low + high) / 2;
  const scale = unit * (times.reduce((sum, t) => sum + t ** shape, 0) / ended.length) ** (1 / shape);
  return { shape, scale };
}

/** Wear: it gets likelier with age (chosen; 1 would be chance, 3 and more old age). */
const WEAR_SHAPE = 2;
/** So many ended lives let the record speak for the shape too (chosen). */
const ENOUGH_FOR_SHAPE = 5;
/** A starting figure may be wrong by about a factor 2 either way (chosen): standard deviation of its logarithm. */
const START_SD = 0.7;
/** Grid of the scale's logarithm round the starting figure; wide enough for any life that is off by a factor 400. */
const GRID_HALF = 6;
const GRID_STEP = 0.02;

/**
 * Hours until half of such parts need renewing: a starting figure, moved by the lives on record. Posterior mean of the
 * logarithm of the Weibull scale on a grid, with a log-normal prior round the starting figure; a life that has not ended
 * counts as one that is longer.
 *
 * @param startHours starting figure, hours until half have ended
 */
export function halfLife(startHours: number, lives: readonly Life[]): number {
  const useful = lives.filter(({ hours }) => hours > 0);
  const ended = useful.filter((life) => life.ended);
  const spread = new Set(ended.map(({ hours }) => hours)).size;
  const shape =
    ended.length >= ENOUGH_FOR_SHAPE && spread > 1 ? Math.min(5, Math.max(1, fitWeibull(useful).shape)) : WEAR_SHAPE;
  const half = Math.LN2 ** (1 / shape);
  const start = startHours / half;
  // In units of the starting scale, so that nothing overflows.
  const power = useful.reduce((sum, { hours }) => sum + (hours / start) ** shape, 0);
  const log = (x: number): number =>
    -(x * x) / (2 * START_SD * START_SD) - shape * ended.length * x - power * Math.exp(-shape * x);
  const grid = Array.from({ length: (2 * GRID_HALF) / GRID_STEP + 1 }, (_, i) => i * GRID_STEP - GRID_HALF);
  const most = Math.max(...grid.map(log));
  let whole = 0;
  let sum = 0;
  for (const x of grid) {
    const p = Math.exp(log(x) - most);
    whole += p;
    sum += p * x;
  }
  return start * Math.exp(sum / whole) * half;
}
