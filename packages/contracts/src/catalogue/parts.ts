import 'reflect-metadata';
import type {
  Action,
  DeedEffect,
  CheckResult,
  Deed,
  Offer,
  Place,
  Quantity as CheckQuantity,
  Raise,
  RemedyTakes,
  RungOutcome,
  StationKind,
  When,
} from '@zealous/core';
import { DEED_EFFECTS, LINE_SIGNS, PLACES, STATION_KINDS } from '@zealous/core/kinds';
import {
  Flag,
  Id,
  Ids,
  idsEntry,
  MapOf,
  Maybe,
  Numbers,
  OneOf,
  Part,
  Quantity,
  Rows,
  Says,
  Share,
  SomeOf,
  Values,
  Words,
} from './rules';
import type { Same } from './same';

/** Parts of which the records of the catalogue are made. */

export class WhenContract implements When {
  @Maybe() @OneOf(STATION_KINDS) kind?: StationKind;
  @Id() param!: string;
  @Maybe() @Values(20) is?: (string | boolean)[];
  @Maybe() @Quantity(-100000, 100000) atLeast?: number;
  @Maybe() @Quantity(-100000, 100000) below?: number;
}

/** Only at stations whose parameter fits. */
export class OnlyContract {
  @Id() param!: string;
  @Values(20) is!: (string | boolean)[];
}

export class OnlyAtLeastContract {
  @Id() param!: string;
  @Maybe() @Values(20) is?: (string | boolean)[];
  @Maybe() @Quantity(-100000, 100000) atLeast?: number;
}

export class NormalContract {
  @Quantity(-10000, 1000000) mean!: number;
  @Quantity(0.0001, 1000000) sd!: number;
}

export class RaiseContract implements Raise {
  @Quantity(0.01, 100) by!: number;
  @Words(120) why!: string;
  @Maybe() @Quantity(0, 1000) weeksLoadedMin?: number;
  @Maybe() @Ids(20) material?: string[];
  @Maybe() @Ids(20) trait?: string[];
  @Maybe() @Flag() hotterBefore?: boolean;
  @Maybe() @Ids(20) history?: string[];
  @Maybe() @Id() param?: string;
  @Maybe() @Values(20) is?: (string | boolean)[];
  @Maybe() @Quantity(-100000, 100000) atLeast?: number;
  @Maybe() @Quantity(-100000, 100000) below?: number;
}

export class CheckResultContract implements CheckResult {
  @Id() id!: string;
  @Words(80) label!: string;
  @Maybe() @MapOf(idsEntry(20)) when?: Record<string, string[]>;
  @Maybe() @Flag() depth?: boolean;
  @Maybe()
  @Quantity(0, 0.9)
  @Says('share of machines with some other fault that show this too')
  innocent?: number;
  @Maybe()
  @OneOf(['mm', 'degrees', 'mm³/s', 'times'])
  @Says('a number that is noted with it')
  measured?: CheckResult['measured'];
  @Maybe() @Flag() @Says('a piece of the strand stays behind in the path') leaves?: boolean;
  @Maybe()
  @Flag()
  @Says('the hot end cannot be brought to a temperature that is known')
  spoilsHeat?: boolean;
  @Maybe() @Flag() @Says('the plug is pulled at it, however hot it is') pullsPlug?: boolean;
  @Maybe() @Flag() @Says('what it is, the technician says in his own words') ownWords?: boolean;
  @Maybe()
  @OneOf(LINE_SIGNS)
  @Says('what a machine on its line would report when it is so')
  sign?: CheckResult['sign'];
}

export class QuantityContract implements CheckQuantity {
  @Id() reads!: string;
  @Words(12) unit!: string;
  @Part(() => NormalContract) normal!: NormalContract;
  @Maybe() @OneOf(['pull-force', 'thermistor-ohms', 'heater-ohms']) predict?: CheckQuantity['predict'];
  @Quantity(-10000, 1000000) min!: number;
  @Quantity(-10000, 1000000) max!: number;
  @Numbers(0, 20, -10000, 1000000) bands!: number[];
}

export class FindingContract {
  @Id() check!: string;
  @Id() result!: string;
}

/** What is done at the bench: a step of a remedy, a standing step, a check, a proof. */
export abstract class DeedContract implements Deed {
  @Words(600) how!: string;
  @Quantity(0, 600) minutes!: number;
  @OneOf(['any', 'cold', 'hot']) heat!: Deed['heat'];
  @OneOf(['any', 'off', 'on']) power!: Deed['power'];
  @Maybe() @OneOf(['clear']) @Says('what the strand of the lane must be') strand?: Deed['strand'];
  @Maybe()
  @OneOf(['head', 'hand'])
  @Says('a push or press from above, in the head or with the part in the hand')
  push?: Deed['push'];
  @Maybe() @OneOf(['hot', 'open', 'none']) @Says('where a push expects something to leave') exit?: Deed['exit'];
  @Maybe() @OneOf(['bare', 'tool']) hands?: Deed['hands'];
  @Maybe() @SomeOf(DEED_EFFECTS) does?: DeedEffect[];
  @Maybe() @Ids(20) tools?: string[];
  @Maybe() @Ids(10) cautions?: string[];
}

export abstract class ActionFields extends DeedContract {
  @Maybe() @Words(200, 0) stop?: string;
  @Maybe() @Quantity(0, 10000) waitMinutes?: number;
  @Maybe() @OneOf(['print', 'unclog', 'pull', 'seat']) target?: Action['target'];
  @Maybe()
  @SomeOf(PLACES)
  @Says(
    'parts that are off for it: what covers this station, the mouth ahead of it, the next opening after it, both ends of its tube, the hot end, every port of the hub',
  )
  places?: Place[];
  @Maybe() @Rows(() => WhenContract, 6, 1) @Says('only where all of these hold on the path') when?: WhenContract[];
  @Maybe() @Flag() once?: boolean;
}

export class ActionContract extends ActionFields implements Action {
  @Id() id!: string;
  @Maybe() @Words(100) name?: string;
}

export class OfferContract implements Offer {
  @Id() id!: string;
  @Words(80) name!: string;
  @OneOf(['spare', 'part', 'kit', 'assembly', 'upgrade']) kind!: Offer['kind'];
  @Maybe() @Rows(() => WhenContract, 6, 1) @Says('only where all of these hold on the path') when?: WhenContract[];
  @Quantity(0, 100000) price!: number;
  @Quantity(0, 600) minutes!: number;
  @Quantity(1, 1000000) @Says('printing hours until half of them need renewing') lifeHours!: number;
  @Maybe() @Quantity(1, 1000000) @Says('the same with abrasive filament') lifeHoursAbrasive?: number;
  @Maybe() @Words(200) flaw?: string;
  @Words(200) origin!: string;
}

export class OutcomeContract implements RungOutcome {
  @Id() id!: string;
  @Words(80) label!: string;
  @OneOf(['cleared', 'better', 'no-change', 'worse']) means!: RungOutcome['means'];
  @Maybe() @Part(() => FindingContract) @Says('what it says as a check') finding?: FindingContract;
}

export class TakesContract implements RemedyTakes {
  @OneOf(['ends', 'hot-end', 'path'])
  @Says('both neighbours of its place, the whole hot end, or anywhere on the path')
  place!: RemedyTakes['place'];
  @Maybe() @Ids(40) @Says('only these failure modes') modes?: string[];
  @Share() cures!: number;
}

/** Each class has the fields of its type in the core, no more and no fewer. */
export const SAME_PARTS: readonly [
  Same<WhenContract, When>,
  Same<RaiseContract, Raise>,
  Same<CheckResultContract, CheckResult>,
  Same<QuantityContract, CheckQuantity>,
  Same<ActionContract, Action>,
  Same<OfferContract, Offer>,
  Same<OutcomeContract, RungOutcome>,
  Same<TakesContract, RemedyTakes>,
] = [true, true, true, true, true, true, true, true];
