/**
 * A machine as it stands on the bench: runs of stations from spool to nozzle, and what must come off to reach them.
 * Everything the tracer, the planner and the drawing know about a machine comes from this record; the published
 * schema is `docs/formats/machine.schema.json`.
 */

export const STATION_KINDS = [
  'spool',
  'guide',
  'gate',
  'buffer',
  'sensor',
  'tube',
  'coupler',
  'hub-port',
  'hub',
  'cutter',
  'extruder',
  'guide-tube',
  'heat-sink',
  'heat-break',
  'heat-block',
  'nozzle',
  'job',
] as const;
export type StationKind = (typeof STATION_KINDS)[number];

/** Numbers carry their unit in the name. All are optional: what is not known is not used. */
export interface StationParams {
  readonly lengthMm?: number;
  readonly boreMm?: number;
  readonly outerMm?: number;
  readonly bendRad?: number;
  readonly material?: string;
  /** Pull that turns the spool, N. */
  readonly dragN?: number;
  readonly thread?: string;
  readonly lining?: 'to-nozzle' | 'above' | 'none' | 'unknown';
  readonly arm?: 'plastic' | 'metal';
  readonly teeth?: 'plastic' | 'metal' | 'brass' | 'steel' | 'hardened';
  /** How far the spring screw goes: home, until three to four threads show, or by counted turns. */
  readonly springRule?: 'home' | 'threads' | 'turns';
  readonly principle?: 'lever' | 'through-beam' | 'reflective';
  readonly fan?: 'always' | 'by-temperature';
  readonly nozzleKind?: 'one-piece' | 'two-piece' | 'quick-change' | 'bolted';
  readonly stepsPerMm?: number;
  readonly ratio?: number;
  readonly heaterW?: number;
  readonly heaterV?: number;
  readonly hours?: number;
  readonly ageMonths?: number;
  readonly ports?: number;
  readonly mirrored?: boolean;
  /** Of a coupler: whether the tube in it ends at the hot end, where it is seated at heat. */
  readonly side?: 'hot' | 'cold';
  /** Width across flats, mm, where a spanner is used. */
  readonly spannerMm?: number;
  /** Hottest that this station takes for long, for `shortMinutes` at most, °C; the machine's own limits hold where these are not said. */
  readonly limitC?: number;
  readonly shortLimitC?: number;
  readonly shortMinutes?: number;
}

export interface StationAccess {
  /** Parts that must be off before the inside of the station can be seen or worked on. */
  readonly open?: readonly string[];
  /** Parts that must be off before a strand can be put in, or seen arriving, at the station's entry. Absent: no mouth here. */
  readonly mouth?: readonly string[];
}

export interface Station {
  readonly id: string;
  readonly kind: StationKind;
  readonly name: string;
  readonly params?: StationParams;
  readonly access?: StationAccess;
}

/** A stretch of stations in path order. A lane merges `into` a station of another run. */
export interface Run {
  readonly id: string;
  readonly name: string;
  readonly into?: string;
  readonly stations: readonly Station[];
}

export interface Fastener {
  readonly count: number;
  readonly what: string;
  readonly drive?: string;
  readonly lengthMm?: number;
  readonly hole?: string;
  /** What it goes into, which may drop out at the back: square nut, hex nut, plastic. */
  readonly mate?: string;
  readonly loosenOnly?: boolean;
  /** It looks as if it had to come out, and need not. */
  readonly stays?: boolean;
  /** What hides it: a connector's tang, a cap. */
  readonly hidden?: string;
  readonly note?: string;
  /** Where each sits on the part as one looks at it, fractions of its width and height from the upper left. */
  readonly at?: readonly (readonly [number, number])[];
}

export const CONNECTOR_KINDS = [
  'heater',
  'thermistor',
  'hot-end-fan',
  'part-fan',
  'motor',
  'sensor',
  'data',
  'power',
] as const;
export type ConnectorKind = (typeof CONNECTOR_KINDS)[number];

/** A plug in its socket. */
export interface Connector {
  readonly id: string;
  readonly name: string;
  readonly kind: ConnectorKind;
  /** The part that hangs on its cable; absent: it stays with the machine whatever comes off. */
  readonly of?: string;
}

export const LOSSES = ['spring', 'bearing', 'nut', 'clip', 'falling'] as const;

/** Something small that is lost when a part comes off, named before that. */
export interface Loss {
  readonly what: (typeof LOSSES)[number];
  readonly name: string;
  readonly note?: string;
}

/** How a part comes off. */
export interface Removal {
  /** Other parts that must be off first. */
  readonly after?: readonly string[];
  readonly minutesOff: number;
  readonly minutesOn: number;
  /** Hottest the machine may be while this is done: `cold` is safe to touch. */
  readonly heat: 'any' | 'cold' | 'hot';
  readonly power: 'any' | 'off';
  readonly tool?: string;
  readonly fasteners?: readonly Fastener[];
  readonly off: string;
  readonly on: string;
  readonly cautions?: readonly string[];
  /** Connectors that must be off for it; without, the part stays on its cables. */
  readonly unplug?: readonly string[];
  /** It hangs on its cable and is supported, not left on it. */
  readonly parked?: boolean;
  readonly loses?: readonly Loss[];
  /** What is swung aside before the last screw. */
  readonly aside?: string;
  /** How the strand is tried with the part half assembled, before it is closed. */
  readonly trial?: string;
}

export interface AccessPart extends Removal {
  readonly id: string;
  readonly name: string;
  /** Off, it parts the path: no strand of unknown state may run through it. */
  readonly severs?: boolean;
  /** The heater sits in it or works on it: with it off nothing is heated, except in its service position. */
  readonly heats?: boolean;
  /** It lies against the heat block: touched with a tool unless it is cold. */
  readonly hot?: boolean;
  /** How it is held where it may be heated off its mount; absent: nowhere. */
  readonly service?: string;
  /** Mirror-image sides are finished one after the other. */
  readonly side?: string;
  /** Other ways in which it comes off: from below, from the side. */
  readonly ways?: readonly (Removal & { readonly id: string; readonly name: string })[];
}

export const MACHINE_VERSION = 3;

export interface MachineHeat {
  readonly ambientC: number;
  /** Time constant of cooling with fans running, seconds. */
  readonly coolTauS: number;
  readonly heatUpCPerS: number;
  /** Highest temperature that the path allows for long. */
  readonly limitC: number;
  /** Highest temperature allowed for minutes only; absent when there is no such allowance. */
  readonly shortLimitC?: number;
  /** How many minutes that may last. */
  readonly shortMinutes?: number;
}

export interface Machine {
  readonly format: 'zealous-tracer/machine';
  readonly version: 3;
  readonly id: string;
  readonly name: string;
  /** Id of a family template, or `other`. */
  readonly family: string;
  readonly summary: string;
  readonly strandMm: number;
  readonly heat: MachineHeat;
  readonly runs: readonly Run[];
  readonly parts: readonly AccessPart[];
  readonly connectors: readonly Connector[];
}

export const allStations = (machine: Machine): readonly Station[] => machine.runs.flatMap((run) => run.stations);

export const stationById = (machine: Machine, id: string): Station | undefined =>
  allStations(machine).find((station) => station.id === id);
