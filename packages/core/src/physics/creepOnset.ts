import type { HotEndKind } from './heatCreep';
import { normalCdf } from '../quantities/normal';
import table from './creepTable.json';

/** What may let the strand soften in the cold zone: fan at half, fan dead, or switched off hot. */
export const CREEPS = ['half', 'dead', 'off'] as const;
export type Creep = (typeof CREEPS)[number];

/**
 * Of a hot end, by how far a temperature lies between room and target (0 to 1): the highest that the strand gets in the cold zone, its
 * spread from constants that are not known, and when it passes each of some shares, s. The heat equation is linear in that share, so one
 * run serves every filament and room.
 */
export interface CreepCurve {
  readonly peak: number;
  readonly spread: number;
  readonly passes: readonly (readonly [number, number])[];
}

/** Made from the model itself by `scripts/creepTable.ts`; a test holds it to the model. */
const CURVES = table as unknown as Readonly<Record<HotEndKind, Readonly<Record<Creep, CreepCurve>>>>;

export interface CreepOnset {
  /** Probability that the strand softens in the cold zone, by the spread of the constants. */
  readonly softens: number;
  /** When it first does, s; absent: not by the typical constants. */
  readonly afterS?: number;
}

/** Where a filament’s glass transition lies between the room and the target. */
export const shareOf = (glassC: number, ambientC: number, targetC: number): number =>
  (glassC - ambientC) / Math.max(1, targetC - ambientC);

/** Whether and when the strand softens in the cold zone of a kind of hot end. */
export function creepOnset(kind: HotEndKind, creep: Creep, share: number): CreepOnset {
  const { peak, spread, passes } = CURVES[kind][creep];
  const softens = normalCdf(peak, share, Math.max(1e-6, spread));
  const at = passes.findIndex(([theta]) => theta >= share);
  const [above, before] = [passes[at], passes[at - 1]];
  if (share >= peak || !above) return { softens };
  if (!before) return { softens, afterS: above[1] };
  const part = (share - before[0]) / (above[0] - before[0]);
  return { softens, afterS: before[1] + part * (above[1] - before[1]) };
}
