import type { StationKind } from '../path/machine';
import type { Route, Stop } from '../path/route';
import { buckling, type Buckling } from './buckling';
import { strandArea } from './feed';
import { afterStation } from './force';
import { nozzlePressure, type Melt, type NozzleShape } from './nozzleFlow';
import { tubeSlack } from './tube';

/** Force on the strand at a station: drawn ahead of the gears, pushed behind them. */
export interface ForceAt {
  readonly stop: Stop;
  readonly side: 'pull' | 'push';
  /** At its end towards the spool and at its end towards the nozzle, N. */
  readonly fromN: number;
  readonly toN: number;
  /** What it adds to what the gears must do, N. */
  readonly addsN: number;
}

/** What the strand and the drive can bear. */
export interface Bearing {
  readonly strandMm: number;
  readonly melt: Melt;
  readonly stiffnessMPa: number;
  readonly yieldMPa: number;
  readonly nozzle: NozzleShape;
  /** Unguided stretch behind the gears, mm. */
  readonly gapMm: number;
  /** What the gears hold before they slip or grind, N. */
  readonly gripN: number;
}

export interface PathForces {
  readonly stations: readonly ForceAt[];
  /** Pull ahead of the gears, push behind them, N; the gears must hold both together. */
  readonly pullN: number;
  readonly pushN: number;
  readonly nozzleN: number;
  readonly pressureMPa: number;
  readonly buckles: Buckling;
  /** What gives way first as the flow rises, and how many times over it holds now. */
  readonly weakest: 'grip' | 'buckling';
  readonly margin: number;
  /** Station that costs the gears most, beside the nozzle itself. */
  readonly worst: ForceAt | undefined;
  /** What turning from pull to push loses in the tubes behind the gears, mm (clearance times bend). */
  readonly slackMm: number;
}

const TUBE_BORE_MM = 2;

const gearsOf = (route: Route): number => {
  const at = route.stops.findIndex(({ station }) => station.kind === 'extruder');
  if (at < 0) throw new RangeError('This path has no gears: nothing pulls or pushes on it.');
  return at;
};

/**
 * Force on the strand along the whole path at a flow: from spool to gears it is drawn, from nozzle to gears it is pushed back, each
 * bend by T₂ = T₁ e^(μθ). The strand's own weight (3 g a metre) is left out.
 *
 * @param flow mm³/s
 * @throws RangeError without gears, and for figures that cannot be
 */
export function pathForces(route: Route, flow: number, bearing: Bearing): PathForces {
  const gears = gearsOf(route);
  const pressureMPa = nozzlePressure(flow, bearing.nozzle, bearing.melt);
  const nozzleN = pressureMPa * strandArea(bearing.strandMm);
  const stations: ForceAt[] = [];
  let force = 0;
  for (const stop of route.stops.slice(0, gears)) {
    const toN = afterStation(force, stop.station);
    stations.push({ stop, side: 'pull', fromN: force, toN, addsN: toN - force });
    force = toN;
  }
  const pullN = force;
  force = nozzleN;
  let slackMm = 0;
  const pushed: ForceAt[] = [];
  for (const stop of [...route.stops.slice(gears + 1)].reverse()) {
    const { kind, params } = stop.station;
    // Settings lie on no path, and in the melt the nozzle's own pressure is all.
    if (kind === 'job') continue;
    const fromN = kind === 'nozzle' || kind === 'heat-block' ? force : afterStation(force, stop.station);
    pushed.unshift({
      stop,
      side: 'push',
      fromN,
      toN: force,
      addsN: kind === 'nozzle' ? nozzleN : fromN - force,
    });
    if (kind === 'tube' && params?.bendRad)
      slackMm += tubeSlack(Math.max(params.boreMm ?? TUBE_BORE_MM, bearing.strandMm), bearing.strandMm, params.bendRad);
    force = fromN;
  }
  const pushN = force;
  const buckles = buckling({
    diameterMm: bearing.strandMm,
    gapMm: bearing.gapMm,
    stiffnessMPa: bearing.stiffnessMPa,
    yieldMPa: bearing.yieldMPa,
  });
  const holds = bearing.gripN / Math.max(1e-9, pullN + pushN);
  const stands = buckles.forceN / Math.max(1e-9, pushN);
  const all = [...stations, ...pushed];
  return {
    stations: all,
    pullN,
    pushN,
    nozzleN,
    pressureMPa,
    buckles,
    weakest: holds <= stands ? 'grip' : 'buckling',
    margin: Math.min(holds, stands),
    worst: all
      .filter(({ stop }) => stop.station.kind !== 'nozzle')
      .reduce<ForceAt | undefined>((most, one) => (one.addsN > (most?.addsN ?? 0) ? one : most), undefined),
    slackMm,
  };
}

const MOST_FLOW = 500;

/** Flow at which the weakest link gives way, mm³/s; 0 when it does so without any, Infinity when nothing does. */
export function mostFlow(route: Route, bearing: Bearing): number {
  const holds = (flow: number): boolean => pathForces(route, flow, bearing).margin >= 1;
  if (!holds(0)) return 0;
  if (holds(MOST_FLOW)) return Infinity;
  let [low, high] = [0, MOST_FLOW];
  while (high - low > 1e-4) {
    const middle = (low + high) / 2;
    if (holds(middle)) low = middle;
    else high = middle;
  }
  return low;
}

/** A pull gauge on the strand where it leaves a station. */
export interface GaugeReading {
  readonly station: string;
  readonly n: number;
}

/** The stretch between two readings, or from the spool to the first. */
export interface Span {
  readonly from: string | undefined;
  readonly to: string;
  /** What it should be at its end, from what was read at its beginning, N, and what was read. */
  readonly expectedN: number;
  readonly readN: number;
  /** How many spreads it is above that. */
  readonly excess: number;
  /** Friction in its bends that would explain it (usual: 0.1 in PTFE, 0.2 elsewhere); undefined where it does not bend. */
  readonly friction: number | undefined;
}

/** How far a sound stretch may be from what is reckoned: friction and bends are known roughly (chosen, as for the gauge's check). */
const SPREAD = 0.35;
const LEAST_SPREAD_N = 0.2;

/**
 * Stretch by stretch ahead of the gears: what the gauge should read, going on from the reading before, against what it reads. A
 * reading that is high only because of what lies ahead of an earlier one is not held against the later stretch.
 *
 * @throws RangeError for a station that is not on the path ahead of the gears, and for a reading below nothing
 */
export function readSpans(route: Route, readings: readonly GaugeReading[]): readonly Span[] {
  const ahead = route.stops.slice(0, gearsOf(route));
  const placed = readings
    .map((reading) => ({ reading, at: ahead.findIndex(({ station }) => station.id === reading.station) }))
    .sort((a, b) => a.at - b.at);
  let last = { at: -1, n: 0, name: undefined as string | undefined };
  return placed.map(({ reading, at }): Span => {
    const stop = ahead[at];
    if (!stop) throw new RangeError('A gauge pulls the strand ahead of the gears: choose a station there.');
    if (!(reading.n >= 0)) throw new RangeError('A gauge reads nothing below zero.');
    const between = ahead.slice(last.at + 1, at + 1).map(({ station }) => station);
    const expectedN = between.reduce(afterStation, last.n);
    const bendRad = between.reduce((sum, { params }) => sum + (params?.bendRad ?? 0), 0);
    const start = between.reduce(
      (force, station) => afterStation(force, { ...station, params: { ...station.params, bendRad: 0 } }),
      last.n,
    );
    const span: Span = {
      from: last.name,
      to: stop.station.name,
      expectedN,
      readN: reading.n,
      excess: (reading.n - expectedN) / Math.max(LEAST_SPREAD_N, SPREAD * expectedN),
      friction:
        bendRad > 0 && reading.n > 0 && start > 0 ? Math.max(0, Math.log(reading.n / start)) / bendRad : undefined,
    };
    last = { at, n: reading.n, name: stop.station.name };
    return span;
  });
}

/** What gears hold before they slip or grind, N, by their teeth; and an unguided stretch, mm (chosen: nothing was found measured). */
const GRIP_N: Readonly<Record<string, number>> = { brass: 40, steel: 50, hardened: 60, plastic: 30 };
const USUAL_GRIP_N = 45;
const OPEN_GAP_MM = 6;
const GUIDED_GAP_MM = 2;
const LAND_MM = 0.6;
const CONE = { halfRad: Math.PI / 6, fromMm: 2 };
/** The material that stands in where a filament states no figures of its own: PLA's. */
const STRAND = { stiffnessMPa: 3300, yieldMPa: 60, meltPaS: 400, thinning: 0.45 };

/** Figures to begin with, from the machine's description and the filament's record. */
export function usualBearing(
  route: Route,
  strandMm: number,
  material: Partial<typeof STRAND>,
): Bearing & { readonly assumed: boolean } {
  const gears = route.stops[gearsOf(route)]?.station;
  const at = (kind: StationKind) => route.stops.find(({ station }) => station.kind === kind)?.station.params;
  const figures = { ...STRAND, ...Object.fromEntries(Object.entries(material).filter(([, v]) => v !== undefined)) };
  return {
    strandMm,
    melt: { at100PaS: figures.meltPaS, thinning: figures.thinning },
    stiffnessMPa: figures.stiffnessMPa,
    yieldMPa: figures.yieldMPa,
    nozzle: {
      boreMm: at('nozzle')?.boreMm ?? 0.4,
      landMm: LAND_MM,
      cone: { ...CONE, fromMm: at('heat-break')?.boreMm ?? CONE.fromMm },
    },
    gapMm: at('guide-tube') ? GUIDED_GAP_MM : OPEN_GAP_MM,
    gripN: GRIP_N[gears?.params?.teeth ?? ''] ?? USUAL_GRIP_N,
    assumed: Object.keys(STRAND).some((name) => material[name as keyof typeof STRAND] === undefined),
  };
}

/** What is said of the weakest link: what gives way first, what is needed, and up to which flow it holds. */
export function weakestSentence(found: PathForces, flow: number, most: number): string {
  const { weakest, margin, pullN, pushN, buckles } = found;
  const n = (x: number): string => (x < 10 ? x.toFixed(1) : x.toFixed(0));
  const link =
    weakest === 'grip'
      ? `the gears, which must hold ${n(pullN + pushN)} N (${n(pullN)} N to draw it, ${n(pushN)} N to push it)`
      : `the strand in the gap behind the gears, which gives way at ${n(buckles.forceN)} N (${buckles.by}) and is pushed with ${n(pushN)} N`;
  if (margin < 1) return `Too much at ${n(flow)} mm³/s: the weakest link is ${link}.`;
  const limit =
    most === Infinity
      ? 'No flow that a hot end melts makes it give way by itself.'
      : `It gives way at about ${n(most)} mm³/s.`;
  return `It holds at ${n(flow)} mm³/s, ${n(margin)} times over. The weakest link is ${link}. ${limit}`;
}
