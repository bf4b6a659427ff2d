import type { AccessPart, Machine, Removal, Station } from '../path/machine';
import { laneRuns, routeOf } from '../path/route';
import type { AccidentId } from './types';

/** Bare metal above this burns within minutes (ISO 13732-1: 48 °C for 10 min; from memory). */
export const BURNS_C = 48;
/** Never switched off above this (practice). */
export const OFF_BELOW_C = 100;
/** Below this nothing leaves a nozzle as melt (chosen: well under the lowest print temperature). */
export const MELT_C = 150;
/** Readings are good to this. */
export const SLACK_C = 3;

const HOT_KINDS: readonly string[] = ['heat-break', 'heat-block', 'nozzle'];

export interface Sim {
  c: number;
  target: number;
  power: 'on' | 'off';
  off: Map<string, string>;
  loose: Set<string>;
  strand: Map<string, string>;
  held: boolean;
  wet: Set<string>;
  service: Set<string>;
  mat: Map<string, number>;
  left: Set<string>;
  shortMinutes: number;
  proved: Set<string>;
  heatFault: Set<string>;
}

export interface World {
  readonly machine: Machine;
  readonly part: (id: string) => AccessPart | undefined;
  readonly removal: (id: string, way?: string) => Removal | undefined;
  /** Stations of the stretch that is heated on the lane in hand. */
  readonly stretch: readonly Station[];
  readonly lane: string;
  readonly longC: number;
  readonly shortC: number;
  readonly shortFor: number;
  readonly lined: boolean;
  readonly lanesOf: (part: string) => readonly string[];
}

export function worldOf(machine: Machine, lane: string): World {
  const part = (id: string) => machine.parts.find((one) => one.id === id);
  const stops = routeOf(machine, lane).stops.map((stop) => stop.station);
  const stretch = stops.filter(({ kind }) => HOT_KINDS.includes(kind));
  const lowest = (of: (station: Station) => number | undefined, machineLimit: number): number =>
    stretch.reduce((limit, station) => Math.min(limit, of(station) ?? Infinity), machineLimit);
  const longC = lowest((s) => s.params?.limitC, machine.heat.limitC);
  const shortC = lowest(
    (s) => s.params?.shortLimitC ?? s.params?.limitC,
    machine.heat.shortLimitC ?? machine.heat.limitC,
  );
  return {
    machine,
    part,
    removal: (id, way) => (way ? (part(id)?.ways?.find((one) => one.id === way) ?? part(id)) : part(id)),
    stretch,
    lane: routeOf(machine, lane).lane,
    longC,
    shortC: Math.max(longC, shortC),
    shortFor: lowest((s) => s.params?.shortMinutes, machine.heat.shortMinutes ?? Infinity),
    lined: stretch.some(
      ({ kind, params }) => kind === 'heat-break' && params?.lining !== undefined && params.lining !== 'none',
    ),
    lanesOf: (id) =>
      laneRuns(machine)
        .filter((run) =>
          routeOf(machine, run.id).stops.some(({ station }) =>
            [station.access?.open, station.access?.mouth].some((list) => list?.includes(id)),
          ),
        )
        .map((run) => run.id),
  };
}

export class Stop extends Error {
  constructor(
    readonly accident: AccidentId,
    text: string,
  ) {
    super(text);
  }
}
export const accident = (id: AccidentId, text: string): never => {
  throw new Stop(id, text);
};
