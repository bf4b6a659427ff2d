/**
 * Heat along a hot end: block, heat break, sink and the strand within, over time. One dimension along the axis; metal and strand exchange
 * heat through the bore, the sink gives heat to the air along its length (a fin: Incropera, Fundamentals of Heat and Mass Transfer,
 * extended surfaces), the block cools by the machine's own time constant. Finite volumes, implicit in time (backward Euler), so that
 * any step is stable. Constants are typical, not measured: an answer comes with its spread and is no measurement.
 */
export interface HotEndBody {
  /** Heat break between block and sink: mm, mm², W/(m K). */
  readonly neckMm: number;
  readonly neckAreaMm2: number;
  readonly neckK: number;
  /** Sink: length and cross-section of its core, W/(m K), and the surface that the air passes, mm². */
  readonly sinkMm: number;
  readonly sinkAreaMm2: number;
  readonly sinkK: number;
  readonly sinkSurfaceMm2: number;
  /** Heat that the sink holds with its fins, and the block, J/K. */
  readonly sinkJPerK: number;
  readonly blockJPerK: number;
  /** Heat through bore and liner from the wall to the middle of the strand, W/(m K). */
  readonly wallToStrand: number;
}

export type HotEndKind = 'lined' | 'all-metal' | 'one-piece';

/** A steel break's conductivity, and an aluminium sink with its fins. */
const STEEL_W_PER_M_K = 16;
const USUAL_SINK = { sinkMm: 26, sinkAreaMm2: 60, sinkK: 160, sinkSurfaceMm2: 4500, sinkJPerK: 16 };

/** Typical bodies (from memory of common sizes; no source). */
export const BODIES: Readonly<Record<HotEndKind, HotEndBody>> = {
  lined: { ...USUAL_SINK, neckMm: 3, neckAreaMm2: 6, neckK: STEEL_W_PER_M_K, blockJPerK: 12, wallToStrand: 0.7 },
  'all-metal': { ...USUAL_SINK, neckMm: 2.1, neckAreaMm2: 3, neckK: STEEL_W_PER_M_K, blockJPerK: 12, wallToStrand: 1 },
  'one-piece': {
    neckMm: 2,
    neckAreaMm2: 1.8,
    neckK: STEEL_W_PER_M_K,
    sinkMm: 16,
    sinkAreaMm2: 70,
    sinkK: 160,
    sinkSurfaceMm2: 3600,
    sinkJPerK: 12,
    blockJPerK: 10,
    wallToStrand: 1,
  },
};

export type FanState = 'full' | 'half' | 'dead';

/** Heat to the air at a sink, W/(m² K): blown on, at half speed (flow to the power 0.6), still air (typical; Incropera, table 1.1). */
export const AIR: Readonly<Record<FanState, number>> = { full: 50, half: 33, dead: 9 };

/** Strand: PLA-like plastic, W/(m K), J/(m³ K). */
const STRAND_K = 0.15;
const STRAND_J_PER_M3_K = 2.2e6;
const STEEL_J_PER_M3_K = 3.9e6;
const NECK_CELLS = 8;
const SINK_CELLS = 40;
const MM = 1e-3;

/** A stretch of time: the heater holds its target or is off. */
export interface HeatPhase {
  readonly seconds: number;
  readonly heater: 'hold' | 'off';
  readonly fan: FanState;
}

export interface HeatTask {
  readonly body: HotEndBody;
  readonly ambientC: number;
  readonly targetC: number;
  /** Time constant of the block as it cools by itself, s. */
  readonly tauS: number;
  readonly strandMm: number;
  readonly phases: readonly HeatPhase[];
  /** Step, s. */
  readonly stepS?: number;
  /** Cells are so many times as many, for grid refinement. */
  readonly refine?: number;
  /** Heat to the air against the typical, for a machine whose sink was measured. */
  readonly airFactor?: number;
}

export interface HeatFrame {
  readonly atS: number;
  readonly blockC: number;
  /** By cell, from the block upwards. */
  readonly metalC: Float64Array;
  readonly strandC: Float64Array;
}

export interface HeatRun {
  /** Middle of each cell above the block, mm. */
  readonly heightMm: Float64Array;
  /** Where the cold zone begins: above the break, mm. */
  readonly coldFromMm: number;
  readonly frames: readonly HeatFrame[];
  /** Heat that left to the air less heat that came in, against what is held less, J: what the reckoning loses. */
  readonly balanceJ: number;
}

const FRAME_S = 10;

/** Solves a system with two neighbours on each side (Gauss without pivoting: the matrix is diagonally dominant). Rows of five. */
function solveBand(band: Float64Array, right: Float64Array): void {
  const n = right.length;
  for (let i = 0; i < n; i++) {
    const pivot = band[i * 5 + 2] as number;
    for (let d = 1; d <= 2 && i + d < n; d++) {
      const row = (i + d) * 5;
      const factor = (band[row + 2 - d] as number) / pivot;
      if (factor === 0) continue;
      for (let k = 0; k <= 2 && i + k < n; k++) {
        const at = row + 2 - d + k;
        band[at] = (band[at] as number) - factor * (band[i * 5 + 2 + k] as number);
      }
      right[i + d] = (right[i + d] as number) - factor * (right[i] as number);
    }
  }
  for (let i = n - 1; i >= 0; i--) {
    let sum = right[i] as number;
    for (let k = 1; k <= 2 && i + k < n; k++) sum -= (band[i * 5 + 2 + k] as number) * (right[i + k] as number);
    right[i] = sum / (band[i * 5 + 2] as number);
  }
}

/** The hot end as cells: conductances in W/K, capacities in J/K. Unknowns are interleaved: block, its strand, then wall and strand. */
function cells({ body, strandMm, refine = 1 }: HeatTask) {
  const [neck, sink] = [NECK_CELLS * refine, SINK_CELLS * refine];
  const n = neck + sink;
  const heightMm = new Float64Array(n);
  const along = new Float64Array(n);
  const metalJ = new Float64Array(n);
  const strandJ = new Float64Array(n);
  const toStrand = new Float64Array(n);
  const strandAlong = new Float64Array(n);
  const surfaceM2 = new Float64Array(n);
  const strandArea = (Math.PI * (strandMm * MM) ** 2) / 4;
  /** Half-cell resistances of the metal, K/W. */
  const half = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    const inNeck = i < neck;
    const dz = (inNeck ? body.neckMm / neck : body.sinkMm / sink) * MM;
    const area = (inNeck ? body.neckAreaMm2 : body.sinkAreaMm2) * MM * MM;
    heightMm[i] = inNeck ? (i + 0.5) * (body.neckMm / neck) : body.neckMm + (i - neck + 0.5) * (body.sinkMm / sink);
    half[i] = dz / 2 / ((inNeck ? body.neckK : body.sinkK) * area);
    metalJ[i] = inNeck ? STEEL_J_PER_M3_K * area * dz : body.sinkJPerK / sink;
    strandJ[i] = STRAND_J_PER_M3_K * strandArea * dz;
    toStrand[i] = body.wallToStrand * dz;
    strandAlong[i] = (STRAND_K * strandArea) / dz;
    surfaceM2[i] = inNeck ? 0 : (body.sinkSurfaceMm2 * MM * MM) / sink;
  }
  // From the block to the first cell, then between neighbours.
  for (let i = 0; i < n; i++) along[i] = 1 / ((half[i] as number) + (i > 0 ? (half[i - 1] as number) : 0));
  return { n, heightMm, along, metalJ, strandJ, toStrand, strandAlong, surfaceM2 };
}

/**
 * Runs the phases from the steady state of a machine that prints with its fan at full speed.
 *
 * @throws RangeError for a target below the room, a step or a time constant that is not positive
 */
export function runHeat(task: HeatTask): HeatRun {
  const { body, ambientC, targetC, tauS, stepS = 1, airFactor = 1 } = task;
  if (!(stepS > 0 && tauS > 0 && targetC > ambientC))
    throw new RangeError('The target must lie above the room, step and time constant above zero.');
  const of = cells(task);
  const { n } = of;
  const blockLoss = body.blockJPerK / tauS;
  const size = 2 + 2 * n;
  const band = new Float64Array(size * 5);
  let now = new Float64Array(size).fill(ambientC);
  let toAirJ = 0;
  let heaterJ = 0;

  /** One implicit step; an infinite one gives the steady state. */
  const step = (seconds: number, hold: boolean, fan: FanState): void => {
    const steady = !Number.isFinite(seconds);
    const h = AIR[fan] * airFactor;
    band.fill(0);
    const right = new Float64Array(size);
    const add = (i: number, j: number, g: number): void => {
      band[i * 5 + 2] = (band[i * 5 + 2] as number) + g;
      band[i * 5 + 2 + j - i] = (band[i * 5 + 2 + j - i] as number) - g;
    };
    const store = (i: number, joule: number): void => {
      if (steady) return;
      band[i * 5 + 2] = (band[i * 5 + 2] as number) + joule / seconds;
      right[i] = (right[i] as number) + (joule / seconds) * (now[i] as number);
    };
    const air = (i: number, g: number): void => {
      band[i * 5 + 2] = (band[i * 5 + 2] as number) + g;
      right[i] = (right[i] as number) + g * ambientC;
    };
    // Block and the melt in it, which is as hot as the block.
    if (hold) {
      band[2] = 1;
      right[0] = targetC;
    } else {
      store(0, body.blockJPerK);
      air(0, blockLoss);
      add(0, 2, of.along[0] as number);
    }
    band[7] = 1;
    band[6] = -1;
    for (let i = 0; i < n; i++) {
      const [m, s] = [2 + 2 * i, 3 + 2 * i];
      store(m, of.metalJ[i] as number);
      store(s, of.strandJ[i] as number);
      air(m, h * (of.surfaceM2[i] as number));
      add(m, m - 2, of.along[i] as number);
      if (i + 1 < n) add(m, m + 2, of.along[i + 1] as number);
      add(m, s, of.toStrand[i] as number);
      add(s, m, of.toStrand[i] as number);
      add(s, s - 2, of.strandAlong[i] as number);
      if (i + 1 < n) add(s, s + 2, of.strandAlong[i + 1] as number);
    }
    solveBand(band, right);
    if (!steady) {
      for (let i = 0; i < n; i++)
        toAirJ += seconds * h * (of.surfaceM2[i] as number) * ((right[2 + 2 * i] as number) - ambientC);
      // What flows out of the block into wall and strand.
      const out =
        (of.along[0] as number) * ((right[0] as number) - (right[2] as number)) +
        (of.strandAlong[0] as number) * ((right[1] as number) - (right[3] as number));
      heaterJ += seconds * out;
    }
    now = right;
  };
  const held = (): number => {
    let sum = 0;
    for (let i = 0; i < n; i++)
      sum +=
        (of.metalJ[i] as number) * (now[2 + 2 * i] as number) + (of.strandJ[i] as number) * (now[3 + 2 * i] as number);
    return sum;
  };

  step(Infinity, true, 'full');
  const before = held();
  const frames: HeatFrame[] = [];
  let atS = 0;
  const keep = (): void => {
    const metalC = new Float64Array(n);
    const strandC = new Float64Array(n);
    for (let i = 0; i < n; i++) {
      metalC[i] = now[2 + 2 * i] as number;
      strandC[i] = now[3 + 2 * i] as number;
    }
    frames.push({ atS, blockC: now[0] as number, metalC, strandC });
  };
  keep();
  for (const { seconds, heater, fan } of task.phases) {
    const end = atS + seconds;
    while (atS < end - 1e-9) {
      const dt = Math.min(stepS, end - atS);
      step(dt, heater === 'hold', fan);
      atS += dt;
      if (atS - (frames.at(-1)?.atS ?? 0) >= FRAME_S - 1e-9 || atS >= end - 1e-9) keep();
    }
  }
  return { heightMm: of.heightMm, coldFromMm: body.neckMm, frames, balanceJ: heaterJ - toAirJ - (held() - before) };
}
