import 'reflect-metadata';
import type { Before, Dimension, Onset, Symptom } from '@zealous/core';
import { COMPLAINED_ABOUT } from '@zealous/core/kinds';
import { FindingContract } from './parts';
import { Day, Flag, Id, Ids, idsEntry, MapOf, Maybe, OneOf, Part, Says, Share, Words } from './rules';

export class SymptomContract implements Symptom {
  @Id() id!: string;
  @Words(80) label!: string;
  @Maybe() @OneOf(COMPLAINED_ABOUT) @Says('what it is a complaint about; absent: the print') about?: Symptom['about'];
  @MapOf(idsEntry(20)) when!: Record<string, string[]>;
  @Share() miss!: number;
  @Share() falseAlarm!: number;
  @Maybe() @Day() @Says('asked from this day on: of orders taken in before, nothing is known of it') since?: string;
  @Maybe()
  @Ids(10)
  @Says('before every check that wants power or heat, until something has been mended')
  cautions?: string[];
}

export class OnsetContract implements Onset {
  @Id() id!: string;
  @Words(80) label!: string;
  @Maybe() @Flag() @Says('in the middle of a print: height and minutes are asked') inPrint?: boolean;
  @Maybe()
  @Flag()
  @Says('it began after something, or in the course of time; absent: where and when it shows')
  after?: boolean;
}

export class DimensionContract implements Dimension {
  @Id() id!: string;
  @Words(60) name!: string;
  @Ids(80, 2) values!: string[];
  @Maybe() @Flag() @Says('what an eye sees once a place is open') byEye?: boolean;
}

export class BeforeContract implements Before {
  @Id() id!: string;
  @Words(80) label!: string;
  @Maybe() @Flag() @Says('tried against the fault; absent: it happened to the machine') asCure?: boolean;
  @Maybe() @Part(() => FindingContract) finding?: FindingContract;
  @Maybe() @Ids(20) tried?: string[];
}
