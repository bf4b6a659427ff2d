import 'reflect-metadata';
import { CONNECTOR_KINDS, LOSSES, STATION_KINDS, type Machine } from '@zealous/core';
import { Allow, ArrayUnique } from 'class-validator';
import { faultsOf, type Fault } from './catalogue/judge';
import { Flag, Id, Ids, Maybe, OneOf, Part, Quantity, Rows, Whole, Words } from './catalogue/rules';

/**
 * The pieces of a machine's description that a person fills in, one class each: the server judges by them, and so do the builder's
 * forms. The published schema says the same, which a test holds them to; what only the whole can say (an order of parts, a path with
 * an end), the core says.
 */
const Unique = (): PropertyDecorator => ArrayUnique({ message: 'must not hold anything twice' });

export class HeatFigures {
  @Quantity(-20, 60) ambientC!: number;
  @Quantity(10, 3600) coolTauS!: number;
  @Quantity(0.05, 50) heatUpCPerS!: number;
  @Quantity(100, 600) limitC!: number;
  @Maybe() @Quantity(100, 600) shortLimitC?: number;
  @Maybe() @Quantity(0.5, 120) shortMinutes?: number;
}

export class StationFigures {
  @Maybe() @Quantity(0, 10_000) lengthMm?: number;
  @Maybe() @Quantity(0.05, 20) boreMm?: number;
  @Maybe() @Quantity(0.5, 30) outerMm?: number;
  @Maybe() @Quantity(0, 60) bendRad?: number;
  @Maybe() @Words(40) material?: string;
  @Maybe() @Words(20) thread?: string;
  @Maybe() @OneOf(['to-nozzle', 'above', 'none', 'unknown']) lining?: string;
  @Maybe() @OneOf(['plastic', 'metal']) arm?: string;
  @Maybe() @OneOf(['plastic', 'metal', 'brass', 'steel', 'hardened']) teeth?: string;
  @Maybe() @OneOf(['lever', 'through-beam', 'reflective']) principle?: string;
  @Maybe() @OneOf(['always', 'by-temperature']) fan?: string;
  @Maybe() @OneOf(['one-piece', 'two-piece', 'quick-change', 'bolted']) nozzleKind?: string;
  @Maybe() @Quantity(1, 20_000) stepsPerMm?: number;
  @Maybe() @Quantity(0.1, 100) ratio?: number;
  @Maybe() @Quantity(1, 500) heaterW?: number;
  @Maybe() @Quantity(5, 240) heaterV?: number;
  @Maybe() @Quantity(0, 200_000) hours?: number;
  @Maybe() @Quantity(0, 600) ageMonths?: number;
  @Maybe() @Whole(1, 32) ports?: number;
  @Maybe() @Flag() mirrored?: boolean;
  @Maybe() @Quantity(0, 100) dragN?: number;
  @Maybe() @OneOf(['home', 'threads', 'turns']) springRule?: string;
  @Maybe() @OneOf(['hot', 'cold']) side?: string;
  @Maybe() @Quantity(2, 40) spannerMm?: number;
  @Maybe() @Quantity(50, 600) limitC?: number;
  @Maybe() @Quantity(50, 600) shortLimitC?: number;
  @Maybe() @Quantity(0.5, 120) shortMinutes?: number;
}

export class StationAccess {
  @Maybe() @Ids(20) @Unique() open?: string[];
  @Maybe() @Ids(20) @Unique() mouth?: string[];
}

export class StationPiece {
  @Id() id!: string;
  @OneOf(STATION_KINDS) kind!: string;
  @Words(60) name!: string;
  @Maybe() @Part(() => StationFigures) params?: StationFigures;
  @Maybe() @Part(() => StationAccess) access?: StationAccess;
}

export class FastenerPiece {
  @Whole(1, 50) count!: number;
  @Words(60) what!: string;
  @Maybe() @Words(40) drive?: string;
  @Maybe() @Quantity(1, 300) lengthMm?: number;
  @Maybe() @Words(80) hole?: string;
  @Maybe() @Words(60) mate?: string;
  @Maybe() @Flag() loosenOnly?: boolean;
  @Maybe() @Words(200, 0) note?: string;
  /** Places on the part, fractions of its width and height; the schema says what each is. */
  @Maybe() @Allow() at?: (readonly [number, number])[];
  @Maybe() @Flag() stays?: boolean;
  @Maybe() @Words(80) hidden?: string;
}

export class LosesPiece {
  @OneOf(LOSSES) what!: string;
  @Words(80) name!: string;
  @Maybe() @Words(200, 0) note?: string;
}

/** How something comes off and goes back. */
export class WayPiece {
  @Id() id!: string;
  @Words(80) name!: string;
  @Maybe() @Ids(20) @Unique() after?: string[];
  @Quantity(0, 600) minutesOff!: number;
  @Quantity(0, 600) minutesOn!: number;
  @OneOf(['any', 'cold', 'hot']) heat!: string;
  @OneOf(['any', 'off']) power!: string;
  @Maybe() @Words(60) tool?: string;
  @Maybe() @Rows(() => FastenerPiece, 30) fasteners?: FastenerPiece[];
  @Words(400) off!: string;
  @Words(400) on!: string;
  @Maybe() @Ids(10) cautions?: string[];
  @Maybe() @Ids(20) @Unique() unplug?: string[];
  @Maybe() @Flag() parked?: boolean;
  @Maybe() @Rows(() => LosesPiece, 10) loses?: LosesPiece[];
  @Maybe() @Words(200) aside?: string;
  @Maybe() @Words(300) trial?: string;
}

export class PartPiece extends WayPiece {
  @Maybe() @Words(40) side?: string;
  @Maybe() @Rows(() => WayPiece, 6) ways?: WayPiece[];
  @Maybe() @Flag() severs?: boolean;
  @Maybe() @Flag() heats?: boolean;
  @Maybe() @Flag() hot?: boolean;
  @Maybe() @Words(300) service?: string;
}

export class ConnectorPiece {
  @Id() id!: string;
  @Words(80) name!: string;
  @OneOf(CONNECTOR_KINDS) kind!: string;
  @Maybe() @Id() of?: string;
}

export class MachinePlugs {
  @Rows(() => ConnectorPiece, 60) connectors!: ConnectorPiece[];
}

/** The machine as a whole, without its stations, parts and plugs. */
export class AboutMachine {
  @Id() id!: string;
  @Words(60) name!: string;
  @Id() family!: string;
  @Words(500, 0) summary!: string;
  @Quantity(0.5, 5) strandMm!: number;
  @Part(() => HeatFigures) heat!: HeatFigures;
}

/** What the classes of its pieces say of a machine, by JSON pointer. */
export function faultsOfPieces({
  format: _format,
  version: _version,
  runs,
  parts,
  connectors,
  ...about
}: Machine): readonly Fault[] {
  const within = (at: string, faults: readonly Fault[]): readonly Fault[] =>
    faults.map(({ path, reason }) => ({ path: `${at}${path}`, reason }));
  return [
    ...faultsOf(AboutMachine, about),
    ...faultsOf(MachinePlugs, { connectors }),
    ...runs.flatMap(({ stations }, r) =>
      stations.flatMap((station, s) => within(`/runs/${r}/stations/${s}`, faultsOf(StationPiece, station))),
    ),
    ...parts.flatMap((part, p) => within(`/parts/${p}`, faultsOf(PartPiece, part))),
  ];
}
