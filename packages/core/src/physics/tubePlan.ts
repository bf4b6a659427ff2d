import { elastica, type Elastica } from './elastica';
import { tubeSlack } from './tube';

export interface Point3 {
  readonly x: number;
  readonly y: number;
  readonly z: number;
}

/** A mouth that a tube leaves: where it is and which way it points, mm; the direction need not be of length one. */
export interface Mouth {
  readonly at: Point3;
  readonly towards: Point3;
}

export interface TubeTask {
  /** On the frame. */
  readonly fixed: Mouth;
  /** On the head, with the head at the origin of its travel. */
  readonly moving: Mouth;
  /** Travel of the head from there, mm. */
  readonly travel: { readonly x: number; readonly y: number; readonly z: number };
  /** How deep the tube sits in each mouth, mm. */
  readonly seatFixedMm: number;
  readonly seatMovingMm: number;
  readonly leastRadiusMm: number;
  /** Spare over the shortest tube that reaches every corner, mm. */
  readonly marginMm: number;
}

export interface TubeAt {
  readonly corner: Point3;
  /** Free length of the shortest tube that keeps the radius here, mm. */
  readonly shortestMm: number;
  /** Spare of the planned tube here, mm. */
  readonly slackMm: number;
  /** Tightest bend of the planned tube here, mm. */
  readonly radiusMm: number;
  /** All bends of it here, radians. */
  readonly bendRad: number;
  /** Points of the curve, for drawing. */
  readonly curve: readonly Point3[];
}

export interface TubePlan {
  /** Between the mouths, without the seats. */
  readonly freeMm: number;
  /** To be cut, with the seats. */
  readonly cutMm: number;
  /** It may be so much longer, and no shorter. */
  readonly toleranceMm: number;
  readonly corners: readonly TubeAt[];
  /** Where it bends tightest, and where it hangs slackest. */
  readonly tightest: TubeAt;
  readonly slackest: TubeAt;
  /** False when no length reaches every corner without a bend below the least radius. */
  readonly fits: boolean;
}

const plus = (a: Point3, b: Point3): Point3 => ({ x: a.x + b.x, y: a.y + b.y, z: a.z + b.z });
const length = ({ x, y, z }: Point3): number => Math.hypot(x, y, z);

/** The upright plane through both mouths: across and up, and the directions of the tube in it. */
interface Plane {
  readonly across: number;
  readonly up: number;
  readonly start: number;
  readonly end: number;
  readonly place: (across: number, up: number) => Point3;
}

/** Sine of the angle by which a mouth may point out of the plane: up to 30° the shape in the plane is near enough (chosen). */
const SIDEWAYS = 0.5;

function planeOf(from: Mouth, to: Mouth): Plane {
  for (const { towards } of [from, to])
    if (!(length(towards) > 0)) throw new RangeError('A mouth must point somewhere.');
  const [dx, dy] = [to.at.x - from.at.x, to.at.y - from.at.y];
  const across = Math.hypot(dx, dy);
  const [ux, uy] = across > 1e-9 ? [dx / across, dy / across] : [1, 0];
  for (const { towards } of [from, to])
    if (across > 1e-9 && Math.abs(towards.y * ux - towards.x * uy) > SIDEWAYS * length(towards))
      throw new RangeError(
        'A mouth points far out of the upright plane through both mouths at a corner of travel. Such a tube twists in space, which is not worked out here: lay a piece on the machine and measure it.',
      );
  const angle = ({ x, y, z }: Point3): number => Math.atan2(z, x * ux + y * uy);
  const { x, y, z } = to.towards;
  return {
    across,
    up: to.at.z - from.at.z,
    start: angle(from.towards),
    // It arrives against the direction in which the mouth points.
    end: angle({ x: -x, y: -y, z: -z }),
    place: (a, u) => ({ x: from.at.x + a * ux, y: from.at.y + a * uy, z: from.at.z + u }),
  };
}

const TURN = 2 * Math.PI;

/** Shapes of growing length, each begun from the one before; the way round that bends least counts. */
class Shapes {
  private readonly ways: readonly { readonly end: number; last?: Float64Array }[];

  constructor(private readonly plane: Plane) {
    const { start, end } = plane;
    this.ways = [end, end - TURN, end + TURN]
      .sort((a, b) => Math.abs(a - start) - Math.abs(b - start))
      .slice(0, 2)
      .map((way) => ({ end: way }));
  }

  at(mm: number): Elastica | undefined {
    const { across, up, start } = this.plane;
    let best: Elastica | undefined;
    for (const way of this.ways) {
      const shape = elastica(across, up, mm, start, way.end, way.last);
      if (shape) way.last = shape.angles;
      if (shape && (!best || shape.energy < best.energy)) best = shape;
    }
    return best;
  }
}

/** Lengths tried on the way to the shortest admissible one, and the finest step, mm. */
const COARSE = 40;
const FINE_MM = 0.5;
/** A straight tube has so much spare, as a share of its length: none can be drawn with none. */
const SPARE = 5e-4;
/** Longer tubes are tried in such steps, up to so much, where the shortest bends too tightly somewhere. */
const SPARE_STEP_MM = 10;
const MOST_SPARE_MM = 120;

/** The shortest tube that keeps the radius, mm; undefined when none up to a generous length does. */
function shortest(plane: Plane, leastRadiusMm: number): number | undefined {
  const shapes = new Shapes(plane);
  const least = Math.hypot(plane.across, plane.up) * (1 + SPARE);
  const most = least + 3 * Math.PI * leastRadiusMm;
  const good = (mm: number): boolean => (shapes.at(mm)?.radiusMm ?? 0) >= leastRadiusMm;
  if (good(least)) return least;
  let low = least;
  for (let i = 1; i <= COARSE; i++) {
    const mm = least + ((most - least) * i) / COARSE;
    if (good(mm)) {
      let high = mm;
      while (high - low > FINE_MM) {
        const middle = (low + high) / 2;
        if (good(middle)) high = middle;
        else low = middle;
      }
      return high;
    }
    low = mm;
  }
  return undefined;
}

function curveOf(plane: Plane, { angles, stepMm }: Elastica): readonly Point3[] {
  let a = 0;
  let u = 0;
  const points = [plane.place(0, 0)];
  for (const angle of angles) {
    a += Math.cos(angle) * stepMm;
    u += Math.sin(angle) * stepMm;
    points.push(plane.place(a, u));
  }
  return points;
}

const cornersOf = ({ x, y, z }: TubeTask['travel']): readonly Point3[] => {
  const ends = (span: number): readonly number[] => (span === 0 ? [0] : [0, span]);
  return ends(x).flatMap((cx) => ends(y).flatMap((cy) => ends(z).map((cz) => ({ x: cx, y: cy, z: cz }))));
};

/**
 * A tube that reaches every corner of travel: the shortest that does without a bend below the least radius, and a margin.
 * The tube lies as Euler's elastica in the upright plane through both mouths; its own weight, set and twist are not
 * reckoned, so the drawing is near, not exact.
 *
 * @throws RangeError when a mouth points nowhere, or a length or radius is not positive.
 */
export function planTube(task: TubeTask): TubePlan {
  const { fixed, moving, travel, seatFixedMm, seatMovingMm, leastRadiusMm, marginMm } = task;
  if (!(leastRadiusMm > 0)) throw new RangeError('The least bend radius must be positive.');
  if (!(seatFixedMm >= 0 && seatMovingMm >= 0 && marginMm >= 0 && travel.x >= 0 && travel.y >= 0 && travel.z >= 0))
    throw new RangeError('Seats, margin and travel must not be negative.');
  const at = cornersOf(travel).map((corner) => {
    const plane = planeOf(fixed, { ...moving, at: plus(moving.at, corner) });
    return { corner, plane, found: shortest(plane, leastRadiusMm) };
  });
  const reached = at.every(({ found }) => found !== undefined);
  const needed = Math.max(...at.map(({ plane, found }) => found ?? Math.hypot(plane.across, plane.up)));
  const laid = (freeMm: number): readonly TubeAt[] =>
    at.map(({ corner, plane, found }): TubeAt => {
      const shape = new Shapes(plane).at(freeMm);
      return {
        corner,
        shortestMm: found ?? Infinity,
        slackMm: freeMm - (found ?? freeMm),
        radiusMm: shape?.radiusMm ?? 0,
        bendRad: shape?.bendRad ?? 0,
        curve: shape ? curveOf(plane, shape) : [],
      };
    });
  const keeps = (list: readonly TubeAt[]): boolean => list.every(({ radiusMm }) => radiusMm >= leastRadiusMm * 0.98);
  let freeMm = needed + marginMm;
  let corners = laid(freeMm);
  // With some more it may hang wider at the near corners.
  for (let more = SPARE_STEP_MM; reached && !keeps(corners) && more <= MOST_SPARE_MM; more += SPARE_STEP_MM) {
    const longer = laid(needed + marginMm + more);
    if (!keeps(longer)) continue;
    freeMm = needed + marginMm + more;
    corners = longer;
  }
  const tightest = corners.reduce((a, b) => (b.radiusMm < a.radiusMm ? b : a));
  const slackest = corners.reduce((a, b) => (b.slackMm > a.slackMm ? b : a));
  return {
    freeMm,
    cutMm: freeMm + seatFixedMm + seatMovingMm,
    toleranceMm: Math.max(1, marginMm),
    corners,
    tightest,
    slackest,
    fits: reached && keeps(corners),
  };
}

/** By how much retraction changes with another tube, mm: the strand changes wall in it (see `tubeSlack`). */
export const retractionChange = (
  strandMm: number,
  old: { readonly boreMm: number; readonly bendRad: number },
  fresh: { readonly boreMm: number; readonly bendRad: number },
): number => tubeSlack(fresh.boreMm, strandMm, fresh.bendRad) - tubeSlack(old.boreMm, strandMm, old.bendRad);

/** Pitch of the fine threads of couplers, mm (ISO 261). */
export const COUPLER_PITCH_MM: Readonly<Record<string, number>> = { M6: 1, M10: 1 };

/** How far a coupler moves the tube end, mm: travel, not force. @throws RangeError for a thread that is not known. */
export function couplerTravel(thread: string, turns: number): number {
  const pitch = COUPLER_PITCH_MM[thread];
  if (pitch === undefined) throw new RangeError(`The pitch of ${thread} is not known; measure it.`);
  return pitch * turns;
}
