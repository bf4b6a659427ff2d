import type { Check, CheckResult } from '../catalogue/types';
import type { PrintFile, PrintLayer } from './printFile';

/** Where a print stopped: at a height, or after so long. */
export type StopPlace = { readonly heightMm: number } | { readonly minutes: number };

/** What the job asked of the strand where it stopped, against the rest of it. */
export interface AskedAtStop {
  readonly layer: number;
  readonly zMm: number;
  /** Minutes from the start of the file to this layer and to its end, by the model of `motion.ts`. */
  readonly fromMin: number;
  readonly toMin: number;
  /** Most flow over a second in this layer and the two below it, mm³/s; share of all layers that ask for less. */
  readonly peakFlow: number;
  readonly flowRank: number;
  /** Most often that one piece of strand went back in them; share of all layers with less. */
  readonly samePiece: number;
  readonly pieceRank: number;
  readonly retractions: number;
  readonly targetC: number;
}

/** The melt and the gears feel a layer late: the two layers below count with it (chosen). */
const BELOW = 2;

const layerAt = ({ layers, seconds }: PrintFile, stop: StopPlace): number => {
  if ('heightMm' in stop) {
    const above = layers.findIndex(({ zMm }) => zMm >= stop.heightMm - 1e-6);
    return above < 0 ? layers.length - 1 : above;
  }
  const at = Math.min(seconds, stop.minutes * 60);
  return layers.reduce((found, { startS }, i) => (startS <= at ? i : found), 0);
};

/** @throws RangeError when the file lays nothing */
export function askedAt(print: PrintFile, stop: StopPlace): AskedAtStop {
  const { layers } = print;
  const i = layerAt(print, stop);
  const layer = layers[i];
  if (!layer) throw new RangeError('Nothing is laid in this file: it has no move with strand on it.');
  const near = layers.slice(Math.max(0, i - BELOW), i + 1);
  const most = (of: (l: PrintLayer) => number, list: readonly PrintLayer[]): number => Math.max(...list.map(of));
  // Every layer is judged with those below it, as this one is.
  const windows = (of: (l: PrintLayer) => number): readonly number[] =>
    layers.map((_, k) => most(of, layers.slice(Math.max(0, k - BELOW), k + 1)));
  const rank = (value: number, all: readonly number[]): number =>
    all.filter((x) => x < value - 1e-9).length / all.length;
  const peakFlow = most((l) => l.peakFlow, near);
  const samePiece = most((l) => l.samePiece, near);
  return {
    layer: i,
    zMm: layer.zMm,
    fromMin: layer.startS / 60,
    toMin: (layer.startS + layer.seconds) / 60,
    peakFlow,
    flowRank: rank(
      peakFlow,
      windows((l) => l.peakFlow),
    ),
    samePiece,
    pieceRank: rank(
      samePiece,
      windows((l) => l.samePiece),
    ),
    retractions: near.reduce((sum, l) => sum + l.retractions, 0),
    targetC: layer.targetC,
  };
}

/**
 * What a stop that was told says at the taking-in. The other figure stays open: the file's minutes are reckoned, and a proof that
 * asked for more than them might ask for more than the machine needs for the whole job.
 */
export const toldStop = (stop: StopPlace): { readonly failedAtMm: number } | { readonly failedAfterMinutes: number } =>
  'heightMm' in stop ? { failedAtMm: stop.heightMm } : { failedAfterMinutes: stop.minutes };

/** So often back over the teeth, and a piece of strand is ground thin (common practice, no source: ten to twenty). */
export const GROUND_AFTER = 12;
/** Dense against the rest of the job (chosen). */
const DENSE_RANK = 0.75;

/** Values of the dimension `flow` of the catalogue; `ordinary`: none of them. */
export type StopVerdict = 'beyond' | 'retractions' | 'ordinary';

/**
 * What the file says of the stop: more flow than the hot end melts, retractions that grind one piece, or nothing unusual.
 *
 * @param meltsMm3PerS what this hot end melts, measured or by its data sheet; unknown: flow is not judged
 */
export function judgeStop(asked: AskedAtStop, meltsMm3PerS: number | undefined): StopVerdict {
  if (meltsMm3PerS !== undefined && asked.peakFlow > meltsMm3PerS) return 'beyond';
  if (asked.samePiece >= GROUND_AFTER && asked.pieceRank >= DENSE_RANK) return 'retractions';
  return asked.samePiece >= 2 * GROUND_AFTER ? 'retractions' : 'ordinary';
}

/** The result of a check that says so, and the number that it wants beside it. */
export function stopResult(
  check: Check,
  verdict: StopVerdict,
  asked: AskedAtStop,
): { readonly result: CheckResult; readonly value?: number } | undefined {
  const result = check.results.find(({ when }) => when?.['flow']?.includes(verdict)) ?? check.results.at(-1);
  if (!result) return undefined;
  if (result.measured === 'mm³/s') return { result, value: Number(asked.peakFlow.toFixed(1)) };
  return result.measured === 'times' ? { result, value: asked.samePiece } : { result };
}
