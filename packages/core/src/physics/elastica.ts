/** A springy tube in a plane: the angles of its pieces from the x axis, radians, each `stepMm` long. */
export interface Elastica {
  readonly angles: Float64Array;
  readonly stepMm: number;
  /** Least bend radius, mm; total bend, radians; bending energy per stiffness, 1/mm. */
  readonly radiusMm: number;
  readonly bendRad: number;
  readonly energy: number;
}

const PIECES = 60;
const ROUNDS = 600;
/** How far one round goes down the energy: implicit, so that large steps are stable. */
const STEP = 6;
const CLOSE_MM = 1e-6;
const BOW = 0.01;

/** Solves a tridiagonal system with −1 beside the diagonal (Thomas), in place of the right-hand side. */
function thomas(inner: number, ends: number, right: Float64Array): void {
  const n = right.length;
  const c = new Float64Array(n);
  let d = ends;
  c[0] = -1 / d;
  right[0] = (right[0] as number) / d;
  for (let i = 1; i < n; i++) {
    d = (i === n - 1 ? ends : inner) + (c[i - 1] as number);
    c[i] = -1 / d;
    right[i] = ((right[i] as number) + (right[i - 1] as number)) / d;
  }
  for (let i = n - 2; i >= 0; i--) right[i] = (right[i] as number) - (c[i] as number) * (right[i + 1] as number);
}

/** Brings the end back to where it is held: the least change of angles that does (Newton on two equations). */
function hold(angles: Float64Array, ds: number, dx: number, dz: number): boolean {
  for (let round = 0; round < 40; round++) {
    let ex = -dx;
    let ez = -dz;
    let a = 0;
    let b = 0;
    let c = 0;
    for (let i = 0; i < angles.length; i++) {
      const cos = Math.cos(angles[i] as number) * ds;
      const sin = Math.sin(angles[i] as number) * ds;
      ex += cos;
      ez += sin;
      a += sin * sin;
      b -= sin * cos;
      c += cos * cos;
    }
    if (Math.hypot(ex, ez) < CLOSE_MM) return true;
    const det = a * c - b * b;
    if (Math.abs(det) < 1e-12) return false;
    const p = (c * ex - b * ez) / det;
    const q = (a * ez - b * ex) / det;
    for (let i = 0; i < angles.length; i++) {
      const cos = Math.cos(angles[i] as number) * ds;
      const sin = Math.sin(angles[i] as number) * ds;
      const change = -(-sin * p + cos * q);
      angles[i] = (angles[i] as number) + Math.max(-0.5, Math.min(0.5, change));
    }
  }
  return false;
}

/**
 * Euler's elastica between two clamped ends, in a plane: the shape of least bending energy ∫κ² ds at a given length, by
 * implicit descent with the ends held. A tube's own weight and set are not reckoned.
 *
 * @param dx where the far end is, mm, seen from the near one
 * @param dz the same, upwards
 * @param startRad direction in which the tube leaves
 * @param endRad direction in which it arrives; turns are counted, so endRad − startRad says which way round it goes
 * @returns undefined when the length does not reach
 */
export function elastica(
  dx: number,
  dz: number,
  lengthMm: number,
  startRad: number,
  endRad: number,
  from?: Float64Array,
): Elastica | undefined {
  if (lengthMm < Math.hypot(dx, dz) - CLOSE_MM) return undefined;
  const ds = lengthMm / PIECES;
  // Angles in the middle of each piece; a small bow, so that a straight tube can give way.
  const angles =
    from?.slice() ??
    Float64Array.from({ length: PIECES }, (_, i) => {
      const s = (i + 0.5) / PIECES;
      return startRad + (endRad - startRad) * s + BOW * Math.sin(2 * Math.PI * s);
    });
  if (!hold(angles, ds, dx, dz)) return undefined;
  const gamma = 1 / STEP;
  for (let round = 0; round < ROUNDS; round++) {
    const right = angles.map((angle) => angle * gamma);
    // The ends are clamped half a piece away: twice as stiff.
    right[0] = (right[0] as number) + 2 * startRad;
    right[PIECES - 1] = (right[PIECES - 1] as number) + 2 * endRad;
    const before = angles.slice();
    thomas(2 + gamma, 3 + gamma, right);
    angles.set(right);
    if (!hold(angles, ds, dx, dz)) return undefined;
    let moved = 0;
    for (let i = 0; i < PIECES; i++) moved = Math.max(moved, Math.abs((angles[i] as number) - (before[i] as number)));
    if (moved < 1e-5) break;
  }
  let most = 0;
  let bend = 0;
  let energy = 0;
  for (let i = 0; i <= PIECES; i++) {
    const left = i === 0 ? startRad : (angles[i - 1] as number);
    const next = i === PIECES ? endRad : (angles[i] as number);
    const over = i === 0 || i === PIECES ? ds / 2 : ds;
    const turn = Math.abs(next - left);
    most = Math.max(most, turn / over);
    bend += turn;
    energy += turn ** 2 / over;
  }
  return { angles, stepMm: ds, radiusMm: most > 0 ? 1 / most : Infinity, bendRad: bend, energy };
}
