import { runHeat, type HeatFrame, type HeatRun, type HeatTask } from './heatCreep';

export interface Softening {
  /** Warmest that the strand gets in the cold zone, °C, when, s, and how far above the break, mm. */
  readonly peakC: number;
  readonly peakAtS: number;
  /** When it first is softer than its glass transition there, s; absent: never. */
  readonly softAtS?: number;
  /** How far up it is soft at most, mm above the break. */
  readonly softToMm: number;
}

/** The strand sits in the break itself as melt and glass; the cold zone is counted from so far above it, mm (chosen). */
export const COLD_MARGIN_MM = 2;

/** Whether the strand softens in the cold zone, where and after how long. */
export function softening({ heightMm, coldFromMm, frames }: HeatRun, glassC: number): Softening {
  let peakC = -Infinity;
  let peakAtS = 0;
  let softAtS: number | undefined;
  let softToMm = 0;
  for (const { atS, strandC } of frames)
    for (let i = 0; i < strandC.length; i++) {
      const above = (heightMm[i] as number) - coldFromMm;
      if (above < COLD_MARGIN_MM) continue;
      const t = strandC[i] as number;
      if (t > peakC) {
        peakC = t;
        peakAtS = atS;
      }
      if (t > glassC) {
        softAtS ??= atS;
        softToMm = Math.max(softToMm, above);
      }
    }
  return { peakC, peakAtS, softToMm, ...(softAtS === undefined ? {} : { softAtS }) };
}

/** How far the constants of a body may be off, as shares (chosen): heat to the air, through the break, held by the block. */
const SPREAD = { air: 0.3, neck: 0.25, block: 0.2 } as const;

/** Spread of the warmest temperature, °C: each constant off by its share in turn, the effects squared and added. */
export function peakSpread(task: HeatTask, glassC: number): number {
  const peak = (other: Partial<HeatTask>): number => softening(runHeat({ ...task, ...other }), glassC).peakC;
  const own = peak({});
  const { body, airFactor = 1 } = task;
  // A sink that was measured leaves a third of the doubt about the air.
  const air = airFactor === 1 ? SPREAD.air : SPREAD.air / 3;
  return Math.hypot(
    peak({ airFactor: airFactor * (1 - air) }) - own,
    peak({ body: { ...body, neckAreaMm2: body.neckAreaMm2 * (1 + SPREAD.neck) } }) - own,
    peak({ body: { ...body, blockJPerK: body.blockJPerK * (1 + SPREAD.block) } }) - own,
  );
}

/**
 * Heat to the air of this machine against the typical, from the sink's own temperature while it prints with its fan running.
 *
 * @throws RangeError for a reading that no air could explain
 */
export function airFactorFrom(task: Omit<HeatTask, 'phases'>, sinkC: number): number {
  const sink = (airFactor: number): number => {
    const { frames, heightMm, coldFromMm } = runHeat({ ...task, airFactor, phases: [] });
    const { metalC } = frames[0] as HeatFrame;
    const cold = [...metalC].filter((_, i) => (heightMm[i] as number) > coldFromMm);
    return cold.reduce((sum, t) => sum + t, 0) / cold.length;
  };
  let [low, high] = [0.02, 50];
  if (!(sinkC < sink(low) && sinkC > sink(high)))
    throw new RangeError(
      `A sink at ${sinkC} °C does not fit a room at ${task.ambientC} °C and a target of ${task.targetC} °C.`,
    );
  for (let i = 0; i < 50; i++) {
    const middle = Math.sqrt(low * high);
    if (sink(middle) > sinkC) low = middle;
    else high = middle;
  }
  return Math.sqrt(low * high);
}
