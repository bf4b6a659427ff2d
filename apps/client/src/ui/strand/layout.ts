import type { Route, StationSuspicion } from '@zealous/core';

/** One station of the drawing, px. */
export interface Row {
  readonly id: string;
  readonly name: string;
  readonly kind: string;
  readonly top: number;
  readonly height: number;
  readonly middle: number;
  /** Half of the strand's width here. */
  readonly swell: number;
  readonly suspicion: number;
  readonly clearedBy?: string;
}

export interface StrandLayout {
  readonly rows: readonly Row[];
  readonly height: number;
}

/** Half-width of a strand proved clear, of one not yet looked at, and of one certainly stuck, px. */
const CLEAR = 1.75;
const PLAIN = 4;
const STUCK = 25;
/** A row is as high as its name needs; suspicion stretches it, so that the eye falls there. */
const ROW = 25;
const STRETCH = 44;
const PAD = 10;

export const swellOf = (suspicion: number, cleared: boolean): number => (cleared ? CLEAR : PLAIN + (STUCK - PLAIN) * Math.sqrt(Math.min(1, suspicion)));

/** Rows from top to bottom; `suspicions` may lie between two assessments while the strand moves. */
export function layoutStrand(route: Route, stations: readonly StationSuspicion[], suspicions: readonly number[], row = ROW): StrandLayout {
  let top = PAD;
  const rows = route.stops.map(({ station }, i): Row => {
    const known = stations[i];
    const suspicion = suspicions[i] ?? 0;
    const cleared = known?.clearedBy !== undefined;
    const height = row + (suspicion < 0.02 ? 0 : STRETCH * Math.sqrt(suspicion));
    const place = { top, height, middle: top + height / 2 };
    top += height;
    return {
      id: station.id,
      name: station.name,
      kind: station.kind,
      ...place,
      swell: swellOf(suspicion, cleared),
      suspicion,
      ...(known?.clearedBy === undefined ? {} : { clearedBy: known.clearedBy }),
    };
  });
  return { rows, height: top + PAD };
}
