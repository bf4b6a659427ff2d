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
  /** Least height of a line, px, where each is tapped by a finger. */
  readonly row?: number;
  /** How many times as high as designed the words beside it are. */
  readonly scale?: number;
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

interface Fact {
  readonly suspicion: number;
  readonly clearedBy: string | undefined;
  readonly quiet: boolean;
}
const factsOf = (
  route: Route,
  stations: readonly StationSuspicion[],
  suspicions: readonly number[],
): readonly (Fact & { readonly station: Route['stops'][number]['station'] })[] =>
  route.stops.map(({ station }, i) => {
    const suspicion = suspicions[i] ?? 0;
    const clearedBy = stations[i]?.clearedBy;
    return { station, suspicion, clearedBy, quiet: clearedBy !== undefined || suspicion < QUIET };
  });

/** Least height in which a drawing with names shows the whole path, px. */
export const leastHeight = (route: Route, stations: readonly StationSuspicion[]): number =>
  factsOf(
    route,
    stations,
    stations.map(({ suspicion }) => suspicion),
  ).reduce((sum, { quiet }) => sum + (quiet ? QUIET_ROW : SMALL_ROW), 2 * PAD);

/** Least length of a station of the strip, px, and how much wider one is that the next check sees. */
const STRIP_ROW = 9;
const STRIP_FLAGGED = 2;

/** The path on its side in a given length, spool first; `top` is then the way from its beginning. Suspicion and flag take the room. */
export function layoutStrip(
  route: Route,
  stations: readonly StationSuspicion[],
  suspicions: readonly number[],
  length: number,
  flagged: (id: string) => boolean = () => false,
): readonly Row[] {
  const facts = factsOf(route, stations, suspicions);
  const pull = facts.map(
    ({ suspicion, quiet, station }) =>
      (quiet ? 0.15 : 0.4 + Math.sqrt(suspicion)) * (flagged(station.id) ? STRIP_FLAGGED : 1),
  );
  const each = Math.min(STRIP_ROW, length / Math.max(1, facts.length));
  const rest = length - each * facts.length;
  const wish = pull.reduce((sum, x) => sum + x, 0);
  let top = 0;
  return facts.map(({ station, suspicion, clearedBy, quiet }, i) => {
    const height = each + (rest * (pull[i] ?? 0)) / Math.max(wish, 0.1);
    const row = rowOf(station, suspicion, clearedBy, quiet, top, height);
    top += height;
    return row;
  });
}

const rowOf = (
  { id, name, kind }: Route['stops'][number]['station'],
  suspicion: number,
  clearedBy: string | undefined,
  quiet: boolean,
  top: number,
  height: number,
): Row => ({
  id,
  name,
  kind,
  top,
  height,
  middle: top + height / 2,
  swell: swellOf(suspicion, clearedBy !== undefined),
  suspicion,
  quiet,
  ...(clearedBy === undefined ? {} : { clearedBy }),
});

/** Rows from top to bottom; `suspicions` may lie between two assessments while the strand moves. */
export function layoutStrand(
  route: Route,
  stations: readonly StationSuspicion[],
  suspicions: readonly number[],
  { fit, scale = 1, row = 0 }: LayoutOptions = {},
): StrandLayout {
  const small = fit !== undefined;
  const least = Math.max(row, ROW * scale);
  const facts = factsOf(route, stations, suspicions);
  const base = facts.map(({ quiet }) => (!small ? least : scale * (quiet ? QUIET_ROW : SMALL_ROW)));
  const pull = facts.map(({ suspicion, quiet }) => (quiet ? 0 : Math.sqrt(suspicion)));
  const used = base.reduce((sum, h) => sum + h, 2 * PAD);
  const wish = pull.reduce((sum, x) => sum + x, 0);
  const stretch = small ? Math.max(0, Math.min(90, (fit - used) / Math.max(wish, 0.1))) : STRETCH;
  let top = PAD;
  const rows = facts.map(({ station, suspicion, clearedBy, quiet }, i): Row => {
    const height = (base[i] ?? least) + stretch * (pull[i] ?? 0);
    const row = rowOf(station, suspicion, clearedBy, quiet, top, height);
    top += height;
    return row;
  });
  return { rows, labels: labelsOf(rows, small), height: top + PAD };
}

/** Three and more quiet neighbours are named by the first and the last, so that nothing is cut off. */
const textOf = (group: readonly Row[]): string => {
  const names = group.map((row) => row.name);
  const last = names.at(-1) ?? '';
  return names.length < 3 ? names.join(' · ') : `${names[0] ?? ''} to ${last.charAt(0).toLowerCase()}${last.slice(1)}`;
};

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
    text: textOf(group),
  }));
}
