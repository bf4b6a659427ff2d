/** Threads, holes and torque: figures of standards, all from memory and marked so; the maker's own figures go before them. */

export interface Thread {
  /** Nominal diameter, mm. */
  readonly mm: number;
  /** Coarse pitch, mm (ISO 261, memory). */
  readonly pitchMm: number;
  /** Clearance hole, medium series, mm (ISO 273, memory). */
  readonly clearanceMm: number;
}

export const THREADS: readonly Thread[] = [
  { mm: 2, pitchMm: 0.4, clearanceMm: 2.4 },
  { mm: 2.5, pitchMm: 0.45, clearanceMm: 2.9 },
  { mm: 3, pitchMm: 0.5, clearanceMm: 3.4 },
  { mm: 4, pitchMm: 0.7, clearanceMm: 4.5 },
  { mm: 5, pitchMm: 0.8, clearanceMm: 5.5 },
  { mm: 6, pitchMm: 1, clearanceMm: 6.6 },
  { mm: 8, pitchMm: 1.25, clearanceMm: 9 },
  { mm: 10, pitchMm: 1.5, clearanceMm: 11 },
];

/** Drill before a thread is cut, mm: diameter less pitch (practice; the list of ISO 2306 is this, rounded). @throws RangeError */
export function tapDrillMm(mm: number, pitchMm: number): number {
  if (!(pitchMm > 0 && pitchMm < mm)) throw new RangeError('The pitch lies between zero and the diameter.');
  return mm - pitchMm;
}

/** How far a screw goes, mm: turns times pitch. */
export const travelMm = (turns: number, pitchMm: number): number => turns * pitchMm;

/** One inch-pound of force is so many newton metres: 0.0254 m × 4.4482216 N. */
const NM_PER_IN_LBF = 0.0254 * 4.4482216152605;
export const nmFromInLbf = (inLbf: number): number => inLbf * NM_PER_IN_LBF;
export const inLbfFromNm = (nm: number): number => nm / NM_PER_IN_LBF;

const MM_PER_INCH = 25.4;
/** Number drills, inches (ANSI B94.11M, memory). */
const NUMBER_DRILLS: Readonly<Record<number, number>> = {
  7: 0.201,
  21: 0.159,
  25: 0.1495,
  29: 0.136,
  30: 0.1285,
  33: 0.113,
  36: 0.1065,
  43: 0.089,
  47: 0.0785,
  50: 0.07,
  56: 0.0465,
  60: 0.04,
};
export const KNOWN_DRILLS: readonly number[] = Object.keys(NUMBER_DRILLS).map(Number);

/** Diameter of a number drill, mm; undefined for one that is not in the list. */
export function numberDrillMm(n: number): number | undefined {
  const inches = NUMBER_DRILLS[n];
  return inches === undefined ? undefined : inches * MM_PER_INCH;
}
