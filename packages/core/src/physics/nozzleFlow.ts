/** How a melt thins with shear: viscosity K γ̇^(n−1) (power law; Bird, Armstrong, Hassager, Dynamics of Polymeric Liquids). */
export interface Melt {
  /** Viscosity at a shear rate of 100 1/s, Pa·s. */
  readonly at100PaS: number;
  /** Power-law index n: 1 does not thin. */
  readonly thinning: number;
}

export interface NozzleShape {
  readonly boreMm: number;
  /** Length of the straight end. */
  readonly landMm: number;
  /** Half of the cone's angle ahead of it, radians, and the bore that it begins with, mm; without them there is no cone. */
  readonly cone?: { readonly halfRad: number; readonly fromMm: number };
}

const REFERENCE_RATE = 100;
const positive = (what: string, value: number): void => {
  if (!(value > 0)) throw new RangeError(`${what} must be more than nothing.`);
};

/** Consistency K, Pa·sⁿ. */
export const consistency = ({ at100PaS, thinning }: Melt): number => at100PaS * REFERENCE_RATE ** (1 - thinning);

/** Shear rate at the wall of a round bore, 1/s, with the correction of Rabinowitsch. @param flow mm³/s @param radius mm */
export const wallRate = (flow: number, radius: number, thinning: number): number =>
  (((3 * thinning + 1) / (4 * thinning)) * 4 * flow) / (Math.PI * radius ** 3);

/**
 * Pressure ahead of the nozzle, MPa: the land as a round pipe, the cone after Bellini, Güçeri and Bertoldi (2004, J. Manuf. Sci. Eng.
 * 126, 237) in the form for any power law. For n = 1 the land is Hagen and Poiseuille's. Ends and stretching are not reckoned.
 *
 * @param flow mm³/s, not negative
 * @throws RangeError for a bore, land or melt that cannot be
 */
export function nozzlePressure(flow: number, shape: NozzleShape, melt: Melt): number {
  positive('The bore', shape.boreMm);
  positive('The land', shape.landMm);
  positive('The viscosity', melt.at100PaS);
  positive('The index of thinning', melt.thinning);
  if (!(flow >= 0)) throw new RangeError('The flow must not be negative.');
  if (flow === 0) return 0;
  const n = melt.thinning;
  const k = consistency(melt);
  const radius = shape.boreMm / 2;
  const land = (2 * shape.landMm * k * wallRate(flow, radius, n) ** n) / radius;
  let cone = 0;
  if (shape.cone && shape.cone.fromMm > shape.boreMm) {
    const wide = shape.cone.fromMm / 2;
    const rate = ((3 * n + 1) * flow) / (Math.PI * n);
    cone = ((2 * k) / (3 * n * Math.tan(shape.cone.halfRad))) * rate ** n * (radius ** (-3 * n) - wide ** (-3 * n));
  }
  return (land + cone) / 1e6;
}

/**
 * Bore that would let through the same share at the same push: flow goes with d^(3 + 1/n), so with d⁴ where nothing thins.
 *
 * @param share of what comes against what would come, above 0
 * @throws RangeError outside of it
 */
export function equivalentBore(boreMm: number, share: number, thinning: number): number {
  positive('The bore', boreMm);
  positive('The index of thinning', thinning);
  positive('What comes', share);
  return boreMm * share ** (1 / (3 + 1 / thinning));
}
