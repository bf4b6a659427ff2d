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
  /** Nothing much is suspected here, or it is cleared. */
  readonly quiet: boolean;
}

/** What is written beside the strand: one station, or on a small screen several quiet neighbours in one line. */
export interface Label {
  readonly rows: readonly Row[];
  readonly top: number;
  readonly height: number;
  readonly text: string;
}

export interface StrandLayout {
  readonly rows: readonly Row[];
  readonly labels: readonly Label[];
  readonly height: number;
}

export interface LayoutOptions {
  /** Height to fit into, px; without it every station has a line of its own. */
  readonly fit?: number;
}

/** Half-width of a strand proved clear, of one not yet looked at, and of one certainly stuck, px. */
const CLEAR = 1.75;
const PLAIN = 4;
const STUCK = 25;
/** A row is as high as its name needs; suspicion stretches it, so that the eye falls there. */
const ROW = 27;
const STRETCH = 48;
/** On a small screen the quiet stations are drawn close together. */
const SMALL_ROW = 24;
const QUIET_ROW = 12;
const PAD = 6;
/** Below this a station is quiet. */
const QUIET = 0.03;

export const swellOf = (suspicion: number, cleared: boolean): number =>
  cleared ? CLEAR : PLAIN + (STUCK - PLAIN) * Math.sqrt(Math.min(1, suspicion));

/** Rows from top to bottom; `suspicions` may lie between two assessments while the strand moves. */
export function layoutStrand(
  route: Route,
  stations: readonly StationSuspicion[],
  suspicions: readonly number[],
  { fit }: LayoutOptions = {},
): StrandLayout {
  const small = fit !== undefined;
  const facts = route.stops.map(({ station }, i) => {
    const suspicion = suspicions[i] ?? 0;
    const clearedBy = stations[i]?.clearedBy;
    return { station, suspicion, clearedBy, quiet: clearedBy !== undefined || suspicion < QUIET };
  });
  const base = facts.map(({ quiet }) => (!small ? ROW : quiet ? QUIET_ROW : SMALL_ROW));
  const pull = facts.map(({ suspicion, quiet }) => (quiet ? 0 : Math.sqrt(suspicion)));
  const used = base.reduce((sum, h) => sum + h, 2 * PAD);
  const wish = pull.reduce((sum, x) => sum + x, 0);
  const stretch = small ? Math.max(0, Math.min(90, (fit - used) / Math.max(wish, 0.1))) : STRETCH;
  let top = PAD;
  const rows = facts.map(({ station, suspicion, clearedBy, quiet }, i): Row => {
    const height = (base[i] ?? ROW) + stretch * (pull[i] ?? 0);
    const place = { top, height, middle: top + height / 2 };
    top += height;
    return {
      id: station.id,
      name: station.name,
      kind: station.kind,
      ...place,
      swell: swellOf(suspicion, clearedBy !== undefined),
      suspicion,
      quiet,
      ...(clearedBy === undefined ? {} : { clearedBy }),
    };
  });
  return { rows, labels: labelsOf(rows, small), height: top + PAD };
}

function labelsOf(rows: readonly Row[], join: boolean): readonly Label[] {
  const groups: Row[][] = [];
  for (const row of rows) {
    const last = groups.at(-1);
    const mate = last?.at(-1);
    const fits = join && mate?.quiet && row.quiet && (mate.clearedBy === undefined) === (row.clearedBy === undefined);
    if (fits) last?.push(row);
    else groups.push([row]);
  }
  return groups.map((group) => ({
    rows: group,
    top: group[0]?.top ?? 0,
    height: group.reduce((sum, row) => sum + row.height, 0),
    text: group.map((row) => row.name).join(' · '),
  }));
}
