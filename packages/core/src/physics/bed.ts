/** One point of the bed, or of the nozzle's height, read in two rounds, mm above where paper only just pulls. */
export interface BedPoint {
  readonly name: string;
  readonly first: number;
  readonly second: number;
}

export interface BedDrift {
  readonly points: readonly (BedPoint & { readonly drift: number })[];
  /** Largest change from the first round to the second, mm. */
  readonly worstMm: number;
  /** Largest difference between points in the second round, mm. */
  readonly spreadMm: number;
  readonly advice: 'good' | 'another round' | 'look for play';
}

/** A point that moved by less, and points closer than this, are good (chosen: a quarter of a 0.2 mm layer). */
const BED_GOOD_MM = 0.05;
/** Turning the others does not move a sound point so far: something has play (chosen). */
const PLAY_MM = 0.3;

/** What two rounds say: how far each point drifted, and whether it is good, to be gone round again, or has play. */
export function bedDrift(points: readonly BedPoint[]): BedDrift {
  const list = points.map((point) => ({ ...point, drift: point.second - point.first }));
  const worstMm = Math.max(0, ...list.map(({ drift }) => Math.abs(drift)));
  const seconds = list.map(({ second }) => second);
  const spreadMm = list.length ? Math.max(...seconds) - Math.min(...seconds) : 0;
  const good = spreadMm <= BED_GOOD_MM && Math.max(0, ...seconds.map(Math.abs)) <= BED_GOOD_MM;
  return {
    points: list,
    worstMm,
    spreadMm,
    advice: worstMm > PLAY_MM ? 'look for play' : good ? 'good' : 'another round',
  };
}
