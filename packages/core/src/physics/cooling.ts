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
  /** What it cools towards, °C, as the readings have it, and its standard deviation; absent without readings. */
  readonly roomC?: number;
  readonly roomSd?: number;
}

/** How well a machine's own constant is known before anything is read (chosen: 15 %). */
const TAU_SPREAD = 0.15;
/** Standard deviation of one reading, °C (chosen: a display that lags and a digit). */
const READING_SD_C = 2;
/** Closer to the room than this a reading says next to nothing. */
const NEAR_AMBIENT_C = 4;

/** A room warmer than this is not believed: what counts as safe to touch must lie above it. */
const MOST_ROOM_C = 45;
/** A room that is held: as good as known. */
const HELD_SD_C = 1e-3;

/** How far the room may be from what the machine's description says, °C (chosen): a cold workshop, a warm chamber. */
const ROOM_SD_C = 4;
const ROUNDS = 30;

/** Solves three symmetric equations, and gives the inverse's diagonal too. @returns undefined when they do not determine it */
function solve3(
  m: readonly number[],
  r: readonly number[],
): { readonly x: number[]; readonly variance: number[] } | undefined {
  const [a, b, c, d, e, f] = m as [number, number, number, number, number, number];
  const det = a * (d * f - e * e) - b * (b * f - c * e) + c * (b * e - c * d);
  if (!(Math.abs(det) > 1e-300)) return undefined;
  const inverse = [d * f - e * e, c * e - b * f, b * e - c * d, a * f - c * c, b * c - a * e, a * d - b * b].map(
    (v) => v / det,
  ) as [number, number, number, number, number, number];
  const [p, q, s, t, u, v] = inverse;
  const [x, y, z] = r as [number, number, number];
  return { x: [p * x + q * y + s * z, q * x + t * y + u * z, s * x + u * y + v * z], variance: [p, t, v] };
}

/**
 * Time constant of cooling and the room about it, refitted as readings come in: T = Ta + A e^(−kt) by Gauss and Newton's least squares,
 * the machine's own constant and room being one more observation each (normal priors; the spread is the inverse of the normal
 * equations'). Without two readings the machine's constant stands.
 *
 * @param heat ambient temperature and time constant of the machine
 * @param readings taken while it cooled with no target
 * @param roomSdC how far the room may be from the machine's; next to nothing where it was read
 */
export function fitCooling(
  heat: Pick<MachineHeat, 'ambientC' | 'coolTauS'>,
  readings: readonly TimedReading[],
  readingSdC = READING_SD_C,
  roomSdC = ROOM_SD_C,
): Cooling {
  const useful = readings.filter(({ temperatureC }) => temperatureC - heat.ambientC > NEAR_AMBIENT_C);
  const prior = { tauS: heat.coolTauS, tauSd: TAU_SPREAD * heat.coolTauS, readings: 0 };
  if (useful.length < 2) return prior;
  const k0 = 1 / heat.coolTauS;
  const kWeight = 1 / (TAU_SPREAD * k0) ** 2;
  const roomWeight = 1 / roomSdC ** 2;
  const weight = 1 / readingSdC ** 2;
  const t0 = Math.min(...useful.map(({ atS }) => atS));
  // Rates are reckoned in units of the machine's own, so that the equations are of one size.
  let [amplitude, rate, room] = [
    Math.max(...useful.map(({ temperatureC }) => temperatureC)) - heat.ambientC,
    1,
    heat.ambientC,
  ];
  let solved: ReturnType<typeof solve3>;
  for (let round = 0; round < ROUNDS; round++) {
    const m = [0, 0, 0, kWeight * k0 * k0, 0, roomWeight];
    const r = [0, kWeight * k0 * k0 * (1 - rate), roomWeight * (heat.ambientC - room)];
    for (const { temperatureC, atS } of useful) {
      const t = (atS - t0) * k0;
      const decay = Math.exp(-rate * t);
      const [byA, byRate] = [decay, -amplitude * t * decay];
      const miss = temperatureC - room - amplitude * decay;
      m[0] = (m[0] as number) + weight * byA * byA;
      m[1] = (m[1] as number) + weight * byA * byRate;
      m[2] = (m[2] as number) + weight * byA;
      m[3] = (m[3] as number) + weight * byRate * byRate;
      m[4] = (m[4] as number) + weight * byRate;
      m[5] = (m[5] as number) + weight;
      r[0] = (r[0] as number) + weight * byA * miss;
      r[1] = (r[1] as number) + weight * byRate * miss;
      r[2] = (r[2] as number) + weight * miss;
    }
    solved = solve3(m, r);
    if (!solved) return prior;
    const [dA = 0, dRate = 0, dRoom = 0] = solved.x;
    amplitude += dA;
    // No step halves or doubles the rate: far from the answer the straight line is no guide.
    rate = Math.min(rate * 2, Math.max(rate / 2, rate + dRate));
    room += dRoom;
    if (Math.abs(dRate) < 1e-9 * rate && Math.abs(dRoom) < 1e-6) break;
  }
  if (!(rate > 0 && amplitude > 0)) return prior;
  if (room > Math.max(MOST_ROOM_C, heat.ambientC)) return fitCooling(heat, readings, readingSdC, HELD_SD_C);
  const tauS = heat.coolTauS / rate;
  return {
    tauS,
    tauSd: (tauS * Math.sqrt(solved?.variance[1] ?? 0)) / rate,
    readings: useful.length,
    roomC: room,
    roomSd: Math.sqrt(solved?.variance[2] ?? 0),
  };
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
