/** A stretch of strand that nothing guides. */
export interface Gap {
  readonly diameterMm: number;
  readonly gapMm: number;
  /** Young's modulus and the stress at which it yields, MPa. */
  readonly stiffnessMPa: number;
  readonly yieldMPa: number;
  /** Effective length: 1 with hinged ends, 0.5 with held ones. */
  readonly ends?: number;
}

export interface Buckling {
  /** Force at which it gives way, N. */
  readonly forceN: number;
  readonly by: 'Euler' | 'Johnson';
  /** Effective length over radius of gyration, and where Euler's begins to hold. */
  readonly slenderness: number;
  readonly transition: number;
}

/**
 * Force at which a strand gives way in a gap: Euler's column while slender, Johnson's parabola below the transition, where Euler's
 * would promise more than the material bears (Shigley's Mechanical Engineering Design, columns).
 *
 * @throws RangeError when a figure is not positive
 */
export function buckling({ diameterMm, gapMm, stiffnessMPa, yieldMPa, ends = 1 }: Gap): Buckling {
  if (!(diameterMm > 0 && gapMm > 0 && stiffnessMPa > 0 && yieldMPa > 0 && ends > 0))
    throw new RangeError('Diameter, gap, stiffness and yield stress must be more than nothing.');
  const area = (Math.PI * diameterMm ** 2) / 4;
  const slenderness = (ends * gapMm) / (diameterMm / 4);
  const transition = Math.sqrt((2 * Math.PI ** 2 * stiffnessMPa) / yieldMPa);
  return slenderness >= transition
    ? { forceN: eulerForce(diameterMm, ends * gapMm, stiffnessMPa), by: 'Euler', slenderness, transition }
    : {
        forceN: area * (yieldMPa - (yieldMPa * slenderness) ** 2 / (4 * Math.PI ** 2 * stiffnessMPa)),
        by: 'Johnson',
        slenderness,
        transition,
      };
}

/** Euler's load of a round column, N: π² E I / L², I = π d⁴ / 64. */
export const eulerForce = (diameterMm: number, lengthMm: number, stiffnessMPa: number): number =>
  (Math.PI ** 2 * stiffnessMPa * ((Math.PI * diameterMm ** 4) / 64)) / lengthMm ** 2;
