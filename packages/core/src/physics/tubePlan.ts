import { Bezier } from 'bezier-js';
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

const plus = (a: Point3, b: Point3, k = 1): Point3 => ({ x: a.x + k * b.x, y: a.y + k * b.y, z: a.z + k * b.z });
const length = ({ x, y, z }: Point3): number => Math.hypot(x, y, z);
const unit = (v: Point3): Point3 => {
  const l = length(v);
  if (!(l > 0)) throw new RangeError('A mouth must point somewhere.');
  return { x: v.x / l, y: v.y / l, z: v.z / l };
};

/** Steps at which curvature is looked at. */
const STEPS = 120;
/** Longest handle that is tried, as a multiple of the distance: beyond it the curve loops. */
const LONGEST_HANDLE = 3;

/** The curve that a springy tube takes between two mouths, nearly: a cubic that leaves both straight, its handles alike. */
function curveOf(from: Mouth, to: Mouth, handle: number): Bezier {
  const a = plus(from.at, unit(from.towards), handle);
  const b = plus(to.at, unit(to.towards), handle);
  return new Bezier({ ...from.at }, { ...a }, { ...b }, { ...to.at });
}

const cross = (a: Point3, b: Point3): Point3 => ({
  x: a.y * b.z - a.z * b.y,
  y: a.z * b.x - a.x * b.z,
  z: a.x * b.y - a.y * b.x,
});
const point = (p: { x: number; y: number; z?: number }): Point3 => ({ x: p.x, y: p.y, z: p.z ?? 0 });

/** Least radius and total bend: curvature |r′ × r″| / |r′|³ (any text on differential geometry), summed along the arc. */
function bends(curve: Bezier): { readonly radiusMm: number; readonly bendRad: number } {
  let least = Infinity;
  let total = 0;
  for (let i = 0; i <= STEPS; i++) {
    const t = i / STEPS;
    const first = point(curve.derivative(t) as Point3);
    const second = secondDerivative(curve, t);
    const speed = length(first);
    if (speed < 1e-9) continue;
    const curvature = length(cross(first, second)) / speed ** 3;
    if (curvature > 0) least = Math.min(least, 1 / curvature);
    total += (curvature * speed * (i === 0 || i === STEPS ? 0.5 : 1)) / STEPS;
  }
  return { radiusMm: least, bendRad: total };
}

function secondDerivative(curve: Bezier, t: number): Point3 {
  const [p0, p1, p2, p3] = curve.points.map((p) => point(p as Point3)) as [Point3, Point3, Point3, Point3];
  const a = plus(plus(p2, p1, -2), p0);
  const b = plus(plus(p3, p2, -2), p1);
  return plus({ x: 6 * (1 - t) * a.x, y: 6 * (1 - t) * a.y, z: 6 * (1 - t) * a.z }, b, 6 * t);
}

/** The shortest curve that keeps the radius; undefined when none does. Handles are tried from short to long. */
function shortest(
  from: Mouth,
  to: Mouth,
  leastRadiusMm: number,
): { readonly handle: number; readonly mm: number } | undefined {
  const reach = Math.max(1, length(plus(to.at, from.at, -1)));
  let best: { readonly handle: number; readonly mm: number } | undefined;
  for (let i = 1; i <= STEPS; i++) {
    const handle = (LONGEST_HANDLE * reach * i) / STEPS;
    const curve = curveOf(from, to, handle);
    const mm = curve.length();
    if (best && mm >= best.mm) continue;
    if (bends(curve).radiusMm >= leastRadiusMm) best = { handle, mm };
  }
  return best;
}

/** The curve of a tube of this length: the handle by bisection, from the shortest admissible one outwards. */
function ofLength(from: Mouth, to: Mouth, mm: number, start: number): Bezier {
  let low = start;
  let high = start;
  const reach = Math.max(1, length(plus(to.at, from.at, -1)));
  while (curveOf(from, to, high).length() < mm && high < 20 * reach) high = high * 1.3 + 1;
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (curveOf(from, to, middle).length() < mm) low = middle;
    else high = middle;
  }
  return curveOf(from, to, (low + high) / 2);
}

const cornersOf = ({ x, y, z }: TubeTask['travel']): readonly Point3[] => {
  const ends = (span: number): readonly number[] => (span === 0 ? [0] : [0, span]);
  return ends(x).flatMap((cx) => ends(y).flatMap((cy) => ends(z).map((cz) => ({ x: cx, y: cy, z: cz }))));
};

/**
 * A tube that reaches every corner of travel: the shortest that does without a bend below the least radius, and a margin.
 * The tube is taken to lie as a cubic that leaves both mouths straight; its own weight and stiffness are not reckoned, so
 * the drawing is near, not exact.
 *
 * @throws RangeError when a mouth points nowhere, or a length or radius is not positive.
 */
export function planTube(task: TubeTask): TubePlan {
  const { fixed, moving, travel, seatFixedMm, seatMovingMm, leastRadiusMm, marginMm } = task;
  if (!(leastRadiusMm > 0)) throw new RangeError('The least bend radius must be positive.');
  if (!(seatFixedMm >= 0 && seatMovingMm >= 0 && marginMm >= 0 && travel.x >= 0 && travel.y >= 0 && travel.z >= 0))
    throw new RangeError('Seats, margin and travel must not be negative.');
  const at = cornersOf(travel).map((corner) => {
    const to: Mouth = { ...moving, at: plus(moving.at, corner) };
    return { corner, to, found: shortest(fixed, to, leastRadiusMm) };
  });
  const reached = at.every(({ found }) => found !== undefined);
  const needed = Math.max(...at.map(({ to, found }) => found?.mm ?? length(plus(to.at, fixed.at, -1))));
  const freeMm = needed + marginMm;
  const corners = at.map(({ corner, to, found }): TubeAt => {
    const curve = ofLength(fixed, to, freeMm, found?.handle ?? 1);
    return {
      corner,
      shortestMm: found?.mm ?? Infinity,
      slackMm: freeMm - (found?.mm ?? freeMm),
      ...bends(curve),
      curve: curve.getLUT(40).map((p) => point(p as Point3)),
    };
  });
  const tightest = corners.reduce((a, b) => (b.radiusMm < a.radiusMm ? b : a));
  const slackest = corners.reduce((a, b) => (b.slackMm > a.slackMm ? b : a));
  return {
    freeMm,
    cutMm: freeMm + seatFixedMm + seatMovingMm,
    toleranceMm: Math.max(1, marginMm),
    corners,
    tightest,
    slackest,
    fits: reached && tightest.radiusMm >= leastRadiusMm * 0.98,
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
