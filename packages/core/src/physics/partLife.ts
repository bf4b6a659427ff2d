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

/** When to renew a part before it fails. */
export interface AgeReplacement {
  /** Hours at which it is cheapest to renew it; Infinity where waiting is. */
  readonly atHours: number;
  /** Cost an hour against waiting until it fails: below 1 where renewing early pays. */
  readonly share: number;
}

const REPLACE_STEPS = 2000;
/** Longer than so many scales no part is kept: the rest of the distribution is next to nothing. */
const LONGEST_SCALES = 6;

/**
 * Age at which to renew a part whose life is Weibull, when a failure costs more than a planned renewal: least cost an hour
 * (R(T) + ratio (1 − R(T))) / ∫₀ᵀ R (Barlow and Proschan 1965, Mathematical Theory of Reliability, age replacement). Where it does not
 * get likelier with age, or a failure costs no more, waiting is cheapest.
 *
 * @param ratio cost of a failure over that of a planned renewal, both with the part
 * @throws RangeError when shape, scale or ratio is not positive
 */
export function ageReplacement({ shape, scale }: Weibull, ratio: number): AgeReplacement {
  if (!(shape > 0 && scale > 0 && ratio > 0)) throw new RangeError('Shape, scale and ratio must be more than nothing.');
  const step = LONGEST_SCALES / REPLACE_STEPS;
  const alive = (t: number): number => Math.exp(-(t ** shape));
  let lived = 0;
  let best = { at: Infinity, cost: Infinity };
  for (let i = 1; i <= REPLACE_STEPS; i++) {
    const [from, to] = [(i - 1) * step, i * step];
    // Simpson's rule: R is smooth.
    lived += (step / 6) * (alive(from) + 4 * alive((from + to) / 2) + alive(to));
    const cost = (alive(to) + ratio * (1 - alive(to))) / lived;
    if (cost < best.cost) best = { at: to, cost };
  }
  // Waiting costs the ratio over the mean life; a minimum at the end of the search is none.
  const waiting = ratio / lived;
  return best.cost < waiting * (1 - 1e-6) && best.at < LONGEST_SCALES - step
    ? { atHours: best.at * scale, share: best.cost / waiting }
    : { atHours: Infinity, share: 1 };
}
