import 'reflect-metadata';
import type { EventBodies } from '@zealous/core';
import type { ClassConstructor } from 'class-transformer';
import { ArrayUnique, IsISO8601, IsUUID } from 'class-validator';
import { faultsOf } from './catalogue/judge';
import { Flag, Id, Ids, Maybe, OneOf, Quantity, Rows, Words } from './catalogue/rules';

/**
 * Bodies of the entries that a person fills in, one class each: the server judges by them, and so do the forms. The published
 * schema says the same, which a test holds them to.
 */
const Unique = (): PropertyDecorator => ArrayUnique({ message: 'must not hold anything twice' });

class Tried {
  @Id() id!: string;
  @OneOf(['same', 'better', 'cured', 'worse']) result!: string;
}

export class IntakeCorrected {
  @Maybe() @Id() lane?: string;
  @Maybe() @Id() material?: string;
  @Maybe() @Words(40, 0) colour?: string;
  @Maybe() @Quantity(0, 1000) weeksLoaded?: number;
  @Maybe() @Flag() hotterBefore?: boolean;
  @Ids(60) @Unique() symptoms!: string[];
  @Maybe() @Id() onset?: string;
  @Ids(60) @Unique() before!: string[];
  @Maybe() @OneOf(['yes', 'no']) warranty?: string;
  @Maybe() @Words(1000, 0) note?: string;
  @Maybe() @Quantity(0, 100_000) failedAfterMinutes?: number;
  @Maybe() @Quantity(0, 5000) failedAtMm?: number;
  @Maybe() @Ids(20) @Unique() onsets?: string[];
  @Maybe() @Ids(60) @Unique() notLooked?: string[];
  @Maybe() @Rows(() => Tried, 60) tried?: Tried[];
  @Maybe() @Id() noticedAt?: string;
  @Maybe() @Ids(60) @Unique() converted?: string[];
}

export class TakenIn extends IntakeCorrected {
  @Words(30) number!: string;
  @Id() machineId!: string;
}

class Point {
  @Words(40) name!: string;
  @Quantity(-5, 5) first!: number;
  @Quantity(-5, 5) second!: number;
}

export class ProofRecorded {
  @Id() proof!: string;
  @Flag() passed!: boolean;
  @Maybe() @Quantity(1, 1000) askedMm?: number;
  @Maybe() @Quantity(0, 1500) fedMm?: number;
  @Maybe() @Quantity(1, 20_000) oldStepsPerMm?: number;
  @Maybe() @Quantity(0.01, 20) readingMm?: number;
  @Maybe() @Quantity(0, 100_000) ranMinutes?: number;
  @Maybe() @Rows(() => Point, 50, 1) points?: Point[];
  @Maybe() @Quantity(0, 5000) reachedMm?: number;
  @Maybe() @Flag() wholeJob?: boolean;
}

export class PartReplaced {
  @Id() station!: string;
  @Words(80) part!: string;
  @Maybe() @Words(80, 0) maker?: string;
  @Maybe() @Words(80, 0) batch?: string;
  @Maybe() @Quantity(0, 100_000) price?: number;
  @Maybe() @Quantity(0, 1_000_000) hours?: number;
  @Maybe() @OneOf(['yes', 'no', 'unknown']) genuine?: string;
  @Maybe() @Quantity(0, 1_000_000) oldHours?: number;
  @Maybe() @Id() offer?: string;
}

export class NoteAdded {
  @Words(2000) text!: string;
  @Maybe() @IsUUID('all', { message: 'must be the id of a finding' }) findingId?: string;
}

export class Closed {
  @OneOf(['cured', 'not-cured', 'given-back', 'scrapped', 'mistake']) outcome!: string;
  @Maybe() @Quantity(0, 100_000) minutes?: number;
  @Maybe() @Words(1000, 0) watch?: string;
  @Maybe() @Words(2000, 0) note?: string;
  @Maybe() @Quantity(0, 10_000) hourlyRate?: number;
  @Maybe() @IsISO8601({ strict: true }, { message: 'must be a day, as 2026-11-26' }) watchOn?: string;
}

class FedAtSpeed {
  @Quantity(0.01, 100) mmPerS!: number;
  @Quantity(1, 2000) askedMm!: number;
  @Quantity(0, 2000) fedMm!: number;
}

export class CurveMeasured {
  @Rows(() => FedAtSpeed, 40, 2) points!: FedAtSpeed[];
}

export class SolventTried {
  @Id() solvent!: string;
  @Flag() softened!: boolean;
}

/** Under which name entries are recorded: of every entry, and of the settings where it is chosen. */
export class Signed {
  @Words(60) by!: string;
}

/** The class of each kind of entry that has one. */
export const ENTRIES = {
  'taken-in': TakenIn,
  'intake-corrected': IntakeCorrected,
  'proof-recorded': ProofRecorded,
  'part-replaced': PartReplaced,
  'note-added': NoteAdded,
  closed: Closed,
  'solvent-tried': SolventTried,
  'curve-measured': CurveMeasured,
} as const satisfies { readonly [T in keyof EventBodies]?: ClassConstructor<object> };

export type EntryForm = keyof typeof ENTRIES;
export const hasForm = (type: string): type is EntryForm => Object.hasOwn(ENTRIES, type);

/** What is wrong with a name to record under; nothing when it fits. */
export const faultOfSigned = (by: unknown): string | undefined => faultsOf(Signed, { by })[0]?.reason;

/** What the server would refuse in the body of an entry, by path; nothing when it fits. */
export const faultsOfEntry = (type: EntryForm, body: object) => faultsOf(ENTRIES[type], body);
