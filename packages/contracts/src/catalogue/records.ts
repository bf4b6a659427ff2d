import 'reflect-metadata';
import type {
  Before,
  Caution,
  ChangeKind,
  Check,
  Dimension,
  EarlierResult,
  FailureMode,
  Hazard,
  Material,
  Onset,
  Proof,
  ReachWhere,
  Reading,
  RecordOf,
  Remedy,
  Shows,
  Solvent,
  StandingAction,
  StationKind,
  Symptom,
  Terms,
  Tool,
} from '@zealous/core';
import { HAZARDS, PURPOSES, STATION_KINDS } from '@zealous/core/kinds';
import type { ClassConstructor } from 'class-transformer';
import { contractEntry } from './nested';
import {
  ActionContract,
  ActionFields,
  CheckResultContract,
  DeedContract,
  NormalContract,
  OfferContract,
  OnlyAtLeastContract,
  OnlyContract,
  OutcomeContract,
  QuantityContract,
  RaiseContract,
  TakesContract,
} from './parts';
import {
  Flag,
  Id,
  Ids,
  idsEntry,
  mapEntry,
  MapOf,
  Maybe,
  numberEntry,
  Numbers,
  OneOf,
  Only,
  Part,
  Quantity,
  Rows,
  Says,
  Share,
  SomeOf,
  Whole,
  Words,
} from './rules';
import type { Same } from './same';
import { BeforeContract, DimensionContract, OnsetContract, SymptomContract } from './told';

/** The records of the catalogue: one class a kind, from which its published schema and the limits of its form are derived. */

export class ReadingContract extends NormalContract implements Reading {
  @Share() p!: number;
  @Maybe() @Flag() @Says('mean and sd are multiples of what a sound machine would read') relative?: boolean;
  @Maybe() @Flag() @Says('sooner or later with how soon the strand softens in this hot end') creeps?: boolean;
}

export class ModeContract implements FailureMode {
  @Id() id!: string;
  @Words(100) name!: string;
  @MapOf(numberEntry(0, 100), { keys: STATION_KINDS, least: 1 }) where!: Partial<Record<StationKind, number>>;
  @Quantity(0, 10) weight!: number;
  @Maybe() @Part(() => OnlyContract) only?: OnlyContract;
  @Maybe() @Rows(() => RaiseContract, 20) raised?: RaiseContract[];
  @Maybe() @MapOf(numberEntry(0.01, 100)) onset?: Record<string, number>;
  @MapOf(mapEntry(numberEntry(0, 1))) shows!: Record<string, Shows>;
  @Maybe() @MapOf(contractEntry(ReadingContract)) reads?: Record<string, ReadingContract>;
  @Maybe() @Numbers(2, 2, 0, 1) sits?: [number, number];
  @Ids(12, 1) remedies!: string[];
  @Maybe()
  @OneOf(['half', 'dead', 'off'])
  @Says('the strand softens in the cold zone so: fan at half, fan dead, or switched off hot')
  creep?: FailureMode['creep'];
  @Maybe() @Words(300, 0) watch?: string;
  @Maybe()
  @MapOf(numberEntry(0.01, 100))
  @Says('modes often found together, with how many times likelier than chance')
  together?: Record<string, number>;
  @Maybe()
  @Ids(12, 1)
  @Says('swaps that cure it although it does not lie within what they reach')
  curedBySwap?: string[];
  @Maybe()
  @Flag()
  @Says('while it is there the hot end cannot be brought to a temperature that is known')
  spoilsHeat?: boolean;
  @Maybe() @Flag() @Says('with it the plug is out, however hot it is') pullsPlug?: boolean;
  @Maybe()
  @SomeOf(STATION_KINDS, 1)
  @Says('only on paths with a station of one of these kinds')
  pathWith?: StationKind[];
  @Maybe() @Flag() @Says('only where several lanes lead into the station') severalLanes?: boolean;
  @Maybe() @Flag() @Says('only on machines with several lanes') amongLanes?: boolean;
  @Maybe() @Flag() retired?: boolean;
}

const REACHES = ['station', 'near', 'span', 'downstream', 'upward', 'after', 'before', 'lane', 'path'] as const;

export class ReachWhereContract implements ReachWhere {
  @Id() param!: string;
  @Ids(20, 1) is!: string[];
  @OneOf(REACHES) reach!: ReachWhere['reach'];
}

export class EarlierResultContract implements EarlierResult {
  @Id() id!: string;
  @Words(80) label!: string;
  @Ids(24, 1) @Says('the results of today of which it meant one') stands!: string[];
}

export class CheckContract extends DeedContract implements Check {
  @Id() id!: string;
  @Words(120) name!: string;
  @OneOf(['each', 'span', 'once']) at!: Check['at'];
  @Maybe() @SomeOf(STATION_KINDS, 1) kinds?: StationKind[];
  @Maybe() @Part(() => OnlyAtLeastContract) only?: OnlyAtLeastContract;
  @OneOf(REACHES) reach!: Check['reach'];
  @Maybe()
  @Part(() => ReachWhereContract)
  @Says('what it reaches instead where the station is so')
  reachWhere?: ReachWhereContract;
  @OneOf(['nothing', 'open', 'mouth']) needs!: Check['needs'];
  @Maybe() @Flag() swap?: boolean;
  @Maybe() @Id() @Says('the remedy that leaves in place what a swap brought, once it cured') keeps?: string;
  @Maybe() @Flag() severalLanes?: boolean;
  @Maybe() @Flag() @Says('only on machines with several lanes') amongLanes?: boolean;
  @Maybe() @OneOf(['onset']) asks?: 'onset';
  @Maybe()
  @Ids(20)
  @Says('only where one of these was done before, or a part was renewed there in this visit')
  history?: string[];
  @Maybe()
  @OneOf(['failedAfterMinutes', 'failedAtMm'])
  @Says('answered by the taking-in, where that number was given')
  intake?: Check['intake'];
  @Maybe()
  @OneOf(['print-file', 'path-forces', 'meter'])
  @Says('a tool of the application that works it out')
  tool?: Check['tool'];
  @Maybe()
  @OneOf(['feed', 'sensor', 'temperature', 'steps'])
  @Says('what a machine on its line can do of it, or say')
  byLine?: Check['byLine'];
  @Maybe() @Id() @Says('the check that asks the same by other means') like?: string;
  @Maybe() @Flag() @Says('one look that may show several things at once') items?: boolean;
  @Rows(() => CheckResultContract, 24) results!: CheckResultContract[];
  @Maybe()
  @Rows(() => EarlierResultContract, 6)
  @Says('answers that the check gives no more, still read in orders that have them')
  earlier?: EarlierResultContract[];
  @Maybe() @Part(() => QuantityContract) quantity?: QuantityContract;
  @Share() miss!: number;
  @Share() falseAlarm!: number;
  @Maybe() @Quantity(0, 60) risk?: number;
  @Maybe()
  @Words(60)
  @Says('what its errors come from; checks that share it are not independent witnesses')
  source?: string;
  @Maybe() @Flag() retired?: boolean;
}

export class RemedyContract extends ActionFields implements Remedy {
  @Id() id!: string;
  @Words(100) name!: string;
  @Share() cures!: number;
  @Maybe() @SomeOf(STATION_KINDS, 1) kinds?: StationKind[];
  @Maybe() @Quantity(0, 20) boreAtLeastMm?: number;
  @Maybe() @Quantity(0, 20) boreBelowMm?: number;
  @Maybe() @Ids(40) materials?: string[];
  @Maybe() @Flag() leavesFilament?: boolean;
  @Maybe() @Flag() needsSolvent?: boolean;
  @Maybe() @Words(60) replaces?: string;
  @Maybe() @Quantity(0, 100000) price?: number;
  @Maybe() @Rows(() => OfferContract, 12, 1) @Says('what can be fitted') offers?: OfferContract[];
  @Maybe() @Whole(1, 20) @Says('so often without progress, then the next remedy') tries?: number;
  @Maybe() @Quantity(0, 600) @Says('price of the chance that it makes things worse, minutes') risk?: number;
  @Maybe()
  @OneOf(['depth'])
  @Says('the depth by rod, before and after, says whether it went on')
  measures?: Remedy['measures'];
  @Maybe()
  @Rows(() => OutcomeContract, 8, 2)
  @Says('what may come of it; without, the usual three')
  outcomes?: OutcomeContract[];
  @Maybe() @Rows(() => TakesContract, 6, 1) @Says('what else it takes away') takes?: TakesContract[];
  @Maybe() @Flag() @Says('takes the thing out rather than pushing it on') takesOut?: boolean;
  @Maybe()
  @Rows(() => ActionContract, 12, 1)
  @Says('in this order; without, the remedy is one action of its own fields')
  actions?: ActionContract[];
  @Words(200) origin!: string;
  @Maybe() @Flag() retired?: boolean;
}

export class MaterialContract implements Material {
  @Id() id!: string;
  @Words(60) name!: string;
  @Quantity(100, 500) printC!: number;
  @Quantity(100, 500) unclogC!: number;
  @Quantity(20, 400) pullC!: number;
  @Maybe() @Quantity(-100, 400) glassC?: number;
  @Maybe() @Quantity(1, 50000) @Says('stiffness of the cold strand, MPa') stiffnessMPa?: number;
  @Maybe() @Quantity(1, 500) @Says('stress at which the cold strand yields, MPa') yieldMPa?: number;
  @Maybe() @Quantity(1, 100000) @Says('viscosity of the melt at print temperature and 100 1/s, Pa·s') meltPaS?: number;
  @Maybe() @Quantity(0.1, 1) @Says('power-law index of the melt; 1 does not thin') thinning?: number;
  @Maybe() @Numbers(2, 2, 100, 500) printRangeC?: [number, number];
  @Maybe() @Quantity(20, 200) dryC?: number;
  @Maybe() @Quantity(0, 100) dryHours?: number;
  @Maybe() @Ids(10) @Says('ids of solvents that take it, the first to be tried first') solvents?: string[];
  @Ids(20) traits!: string[];
  @Maybe() @Flag() @Says('stands for a filament that is not known') assumed?: boolean;
  @Words(300) origin!: string;
}

export class SolventContract implements Solvent {
  @Id() id!: string;
  @Words(60) name!: string;
  @Quantity(-100, 400) flashC!: number;
  @Quantity(0, 100) @Says('lower explosive limit, volume per cent') lowerLimitPct!: number;
  @Quantity(0, 100000) @Says('workplace exposure limit over a shift') exposurePpm!: number;
  @Numbers(2, 2, 0, 1000) soakHours!: [number, number];
  @Words(400) care!: string;
  @Words(300) origin!: string;
}

export class TermsContract implements Terms {
  @Only('shop') id!: string;
  @Words(60) name!: string;
  @Quantity(0.01, 100000)
  @Says('what an hour at the bench is worth, in the currency of the prices')
  hourlyRate!: number;
  @Maybe() @Words(12) @Says('the currency of the prices, on what is printed') currency?: string;
  @Maybe() @Words(80) @Says('name of the shop, on what is printed') shop?: string;
  @Maybe() @Words(200) @Says('address of the shop, on what is printed') address?: string;
}

export class ToolContract implements Tool {
  @Id() id!: string;
  @Words(80) name!: string;
  @Maybe() @Id() @Says('the caution that its use calls for') hazard?: string;
  @Maybe() @OneOf(['needle', 'rod', 'bit', 'spanner']) @Says('its size is the path’s') sized?: Tool['sized'];
  @Maybe() @Flag() consumable?: boolean;
}

export class CautionContract implements Caution {
  @Id() id!: string;
  @Words(60) sign!: string;
  @OneOf(['triangle', 'diamond', 'circle']) shape!: Caution['shape'];
  @Words(200) line!: string;
  @Words(400) more!: string;
  @Maybe() @SomeOf(HAZARDS) @Says('the hazards that it marks') marks?: Hazard[];
}

export class ProofContract extends DeedContract implements Proof {
  @Id() id!: string;
  @Words(100) name!: string;
  @Maybe() @Ids(40) remedies?: string[];
  @Maybe() @Ids(80) modes?: string[];
  @Maybe() @SomeOf(STATION_KINDS, 1) kinds?: StationKind[];
  @Maybe()
  @SomeOf(STATION_KINDS, 1)
  @Says('asked for when a cause or a renewed part lay at such a station')
  worked?: StationKind[];
  @Maybe() @SomeOf(STATION_KINDS, 1) @Says('asked for when such a station was laid open') touched?: StationKind[];
  @Maybe() @Ids(40) @Says('asked for when the fault began so') onsets?: string[];
  @Maybe() @Words(160) why?: string;
  @Maybe() @OneOf(['bed', 'run']) form?: Proof['form'];
  @Maybe() @Id() @Says('the check that asks the same') like?: string;
  @Maybe() @Flag() quantity?: boolean;
  @Maybe()
  @MapOf(idsEntry(20))
  @Says('the dimensions and values in which it would show that something is still wrong')
  fails?: Record<string, string[]>;
  @Maybe() @Share() miss?: number;
}

export class StandingContract extends ActionFields implements StandingAction {
  @Id() id!: string;
  @Maybe() @Words(100) name?: string;
  @OneOf(PURPOSES) @Says('what the planner asks it for') purpose!: StandingAction['purpose'];
}

/** The class of each kind of record; a kind without one does not compile. */
export const RECORDS: { readonly [K in ChangeKind]: ClassConstructor<RecordOf<K>> } = {
  modes: ModeContract,
  checks: CheckContract,
  remedies: RemedyContract,
  materials: MaterialContract,
  solvents: SolventContract,
  terms: TermsContract,
  tools: ToolContract,
  cautions: CautionContract,
  proofs: ProofContract,
  standing: StandingContract,
  symptoms: SymptomContract,
  onsets: OnsetContract,
  dimensions: DimensionContract,
  before: BeforeContract,
};

/** Each class has the fields of its type in the core, no more and no fewer: a field on one side only does not compile. */
export const SAME_RECORDS: readonly [
  Same<ModeContract, FailureMode>,
  Same<CheckContract, Check>,
  Same<ReachWhereContract, ReachWhere>,
  Same<RemedyContract, Remedy>,
  Same<MaterialContract, Material>,
  Same<SolventContract, Solvent>,
  Same<TermsContract, Terms>,
  Same<ToolContract, Tool>,
  Same<CautionContract, Caution>,
  Same<ProofContract, Proof>,
  Same<StandingContract, StandingAction>,
  Same<SymptomContract, Symptom>,
  Same<OnsetContract, Onset>,
  Same<DimensionContract, Dimension>,
  Same<BeforeContract, Before>,
] = [true, true, true, true, true, true, true, true, true, true, true, true, true, true, true];
