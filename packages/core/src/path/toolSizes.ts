import type { Station } from './machine';
import type { Route } from './route';

/** Needles and rods as they are sold, mm. */
const NEEDLES = [0.3, 0.35, 0.4, 0.5, 0.6, 0.7, 0.8, 1];
const RODS = [1, 1.5, 2, 2.5, 3];
/** Practice takes a 0.3 mm needle for a bore of 0.4, and a 1.5 mm rod for one of 2 mm; other bores in the same measure. */
const NEEDLE_SHARE = 0.75;
const ROD_SHARE = 0.8;
/** The least clearance of a needle, mm (chosen). */
const NEEDLE_CLEARANCE = 0.05;
/** A bit for the edge of a mouth is so much smaller than the tube that sits in it: 3 to 3.5 mm for a tube of 4 (practice). */
const BIT_BELOW = [1, 0.5] as const;

const largest = (sizes: readonly number[], most: number): number | undefined =>
  sizes.findLast((size) => size <= most + 1e-9);

/** The needle for a nozzle's bore, mm; undefined when none fits. */
export function needleFor(boreMm: number): number | undefined {
  const usual = largest(NEEDLES, boreMm * NEEDLE_SHARE);
  const least = NEEDLES[0] as number;
  return usual ?? (boreMm >= least + NEEDLE_CLEARANCE ? least : undefined);
}

/** The rod for the bore of a heat break, mm; undefined when none fits. */
export const rodFor = (boreMm: number): number | undefined => largest(RODS, boreMm * ROD_SHARE);

const firstOf = (route: Route, kind: Station['kind']) =>
  route.stops.find(({ station }) => station.kind === kind)?.station.params;

/** Usual bores and tube, where the machine does not say (practice). */
const USUAL = { nozzle: 0.4, heatBreak: 2, tube: 4 };

/** A tool whose size the path decides. */
export type SizedTool = 'needle' | 'rod' | 'bit' | 'spanner';

/** The size of such a tool for a path, mm; of a drill bit the largest. Undefined when nothing fits, or the machine does not say. */
export function toolSize(tool: SizedTool, route: Route, station?: Station): number | undefined {
  const tube = firstOf(route, 'tube')?.outerMm ?? USUAL.tube;
  switch (tool) {
    case 'needle':
      return needleFor(firstOf(route, 'nozzle')?.boreMm ?? USUAL.nozzle);
    case 'rod':
      return rodFor(firstOf(route, 'heat-break')?.boreMm ?? USUAL.heatBreak);
    case 'bit':
      return tube - BIT_BELOW[1];
    case 'spanner':
      return station?.params?.spannerMm;
  }
}

/** Text with the sizes of the tools that this path takes: `{needle}`, `{rod}`, `{bit}`, `{spanner}`. */
export function withSizes(text: string, route: Route, station?: Station): string {
  if (!text.includes('{')) return text;
  const needle = toolSize('needle', route);
  const rod = toolSize('rod', route);
  const spanner = toolSize('spanner', route, station);
  const tube = firstOf(route, 'tube')?.outerMm ?? USUAL.tube;
  return text
    .replaceAll('{needle}', needle === undefined ? 'the thinnest needle there is' : `${needle} mm needle`)
    .replaceAll('{rod}', rod === undefined ? 'rod thinner than the bore' : `${rod} mm rod`)
    .replaceAll('{spanner}', spanner === undefined ? 'spanner that fits' : `${spanner} mm spanner`)
    .replaceAll(
      '{bit}',
      BIT_BELOW.map((below) => `${Number((tube - below).toFixed(2))}`).join(' to ') + ' mm drill bit',
    );
}
