import type { MachineHeat } from '../path/machine';

export interface TimedReading {
  readonly temperatureC: number;
  /** Seconds, from any beginning. */
  readonly atS: number;
}

export interface Cooling {
  /** Time constant, s, and its standard deviation. */
  readonly tauS: number;
  readonly tauSd: number;
  /** Readings that speak; 0 when only the machine's own constant does. */
  readonly readings: number;
}

/** How well a machine's own constant is known before anything is read (chosen: 15 %). */
const TAU_SPREAD = 0.15;
/** Standard deviation of one reading, °C (chosen: a display that lags and a digit). */
const READING_SD_C = 2;
/** Closer to the room than this a reading says next to nothing. */
const NEAR_AMBIENT_C = 4;

/**
 * Time constant of cooling, refitted as readings come in: weighted least squares on ln(T − Ta) = a − t/τ, with the machine's
 * own constant as one more observation of 1/τ (Bayesian linear regression with a normal prior; error of ln(T − Ta) by the
 * delta method: σ/(T − Ta)). Without two readings the machine's constant stands.
 *
 * @param heat ambient temperature and time constant of the machine
 * @param readings taken while it cooled with no target
 */
export function fitCooling(
  heat: Pick<MachineHeat, 'ambientC' | 'coolTauS'>,
  readings: readonly TimedReading[],
  readingSdC = READING_SD_C,
): Cooling {
  const useful = readings.filter(({ temperatureC }) => temperatureC - heat.ambientC > NEAR_AMBIENT_C);
  const prior = { tauS: heat.coolTauS, tauSd: TAU_SPREAD * heat.coolTauS, readings: 0 };
  if (useful.length < 2) return prior;
  const k0 = 1 / heat.coolTauS;
  const priorWeight = 1 / (TAU_SPREAD * k0) ** 2;
  const t0 = Math.min(...useful.map(({ atS }) => atS));
  // Normal equations of a and k with y = a − k t.
  let sw = 0;
  let st = 0;
  let stt = 0;
  let sy = 0;
  let sty = 0;
  for (const { temperatureC, atS } of useful) {
    const above = temperatureC - heat.ambientC;
    const w = (above / readingSdC) ** 2;
    const t = atS - t0;
    const y = Math.log(above);
    sw += w;
    st += w * t;
    stt += w * t * t;
    sy += w * y;
    sty += w * t * y;
  }
  const kk = stt + priorWeight;
  const det = sw * kk - st * st;
  const k = (st * sy - sw * sty + sw * priorWeight * k0) / det;
  if (!(k > 0)) return prior;
  const kSd = Math.sqrt(sw / det);
  return { tauS: 1 / k, tauSd: kSd / (k * k), readings: useful.length };
}

export interface TimeLeft {
  readonly seconds: number;
  /** Standard deviation, s. */
  readonly sd: number;
}

/**
 * Seconds until a cooling body passes `toC`, with the spread that the time constant and the present temperature put on
 * it (first order). 0 when it is there.
 *
 * @throws RangeError when the target is not above ambient.
 */
export function timeToCool(
  fromC: number,
  toC: number,
  ambientC: number,
  { tauS, tauSd }: Pick<Cooling, 'tauS' | 'tauSd'>,
  fromSdC = READING_SD_C,
): TimeLeft {
  if (toC <= ambientC) throw new RangeError(`It will not cool to ${toC} °C in a room at ${ambientC} °C.`);
  if (fromC <= toC) return { seconds: 0, sd: 0 };
  const log = Math.log((fromC - ambientC) / (toC - ambientC));
  const byTau = log * tauSd;
  const byFrom = (tauS / (fromC - ambientC)) * fromSdC;
  return { seconds: tauS * log, sd: Math.hypot(byTau, byFrom) };
}
