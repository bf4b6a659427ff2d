import 'reflect-metadata';
import { Equals, IsISO8601 } from 'class-validator';
import type { RoundRecord } from '@zealous/core/practice';
import { faultsOf } from './catalogue/judge';
import { Id, Ids, Maybe, Only, OneOf, Quantity, Rows, Words } from './catalogue/rules';

/** A finished round of practice, as it stands in a person's record. */
export class PracticeRound implements RoundRecord {
  @Words(60) id!: string;
  @Words(60) person!: string;
  @IsISO8601({ strict: true }, { message: 'must be a time such as 2026-11-27T09:30:00Z' }) at!: string;
  @OneOf(['signs', 'several', 'hands']) level!: 'signs' | 'several' | 'hands';
  @Words(120) hidden!: string;
  @Id() family!: string;
  @OneOf(['cured', 'gave-up', 'called']) outcome!: 'cured' | 'gave-up' | 'called';
  @Quantity(0, 100_000) minutes!: number;
  @Maybe() @Quantity(0, 100_000) tracerMinutes?: number;
  @Quantity(0, 10_000) looks!: number;
  @Quantity(0, 10_000) repairs!: number;
  @Quantity(0, 10_000) soundRenewed!: number;
  @Ids(1000) accidents!: string[];
}

/** A person's record as a file; `docs/formats/practice-record.schema.json`. */
export class PracticeRecord {
  @Only('zealous-tracer/practice-record') format!: string;
  @Equals(1, { message: 'must be 1; this program knows no other version' }) version!: number;
  @Words(60) person!: string;
  @Rows(() => PracticeRound, 5000) rounds!: PracticeRound[];
}

/** Reads a record from the text of a file. @throws Error that says what is wrong and where */
export function readPracticeRecord(text: string): PracticeRecord {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new Error('This file is no JSON. Choose one that was saved on the practice bench.');
  }
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    throw new Error('This file is no record of practice.');
  const [fault] = faultsOf(PracticeRecord, value);
  if (fault) throw new Error(`This file is no record of practice. ${fault.path}: ${fault.reason}`);
  return value as PracticeRecord;
}
