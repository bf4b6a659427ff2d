import type { StationKind } from '../path/machine';
import type { Deed } from './deedTypes';
import type { LineSign } from './lineSigns';

export interface CheckResult {
  readonly id: string;
  readonly label: string;
  /** The result is given when any of these dimensions shows one of these values. The last result is the normal one. */
  readonly when?: Readonly<Record<string, readonly string[]>>;
  /** This result comes with the depth in mm from the entry at which the strand stopped. */
  readonly depth?: boolean;
  /** Share of machines with some other fault that show this too: real, but not the cause. */
  readonly innocent?: number;
  /** A number that is noted with it: how much, not which. */
  readonly measured?: 'mm' | 'degrees' | 'mm³/s' | 'times';
  /** A piece of the strand stays behind in the path. */
  readonly leaves?: boolean;
  /** The hot end cannot be brought to a temperature that is known. */
  readonly spoilsHeat?: boolean;
  /** The plug is pulled at it, however hot it is: nothing else stops the heater. */
  readonly pullsPlug?: boolean;
  /** What it is has no word yet: the technician says it in his own. */
  readonly ownWords?: boolean;
  /** What a machine on its line would report when it is so. */
  readonly sign?: LineSign;
}

/** An answer that a check once gave and gives no more: it is still read in orders that have it. */
export interface EarlierResult {
  readonly id: string;
  readonly label: string;
  /** The results of today of which it meant one, without saying which. */
  readonly stands: readonly string[];
}

export interface Normal {
  readonly mean: number;
  readonly sd: number;
}

/** Physical models by which a reading is predicted from the machine's own description. */
export type Prediction = 'pull-force' | 'thermistor-ohms' | 'heater-ohms';

export interface Quantity {
  readonly reads: string;
  readonly unit: string;
  readonly normal: Normal;
  /** What a sound machine reads is worked out from its path; `normal` serves where its data do not suffice. */
  readonly predict?: Prediction;
  readonly min: number;
  readonly max: number;
  /** Upper edges of the bands in which look-ahead thinks about the answer. */
  readonly bands: readonly number[];
}

/** What a check reaches at stations whose parameter has one of these values. */
export interface ReachWhere {
  readonly param: string;
  readonly is: readonly string[];
  readonly reach: Check['reach'];
}

export interface Check extends Deed {
  readonly id: string;
  /** `{from}`, `{to}` and `{station}` are filled from the machine. */
  readonly name: string;
  /** Where it is done: once at each station of these kinds, over each span between mouths, or once for the machine. */
  readonly at: 'each' | 'span' | 'once';
  readonly kinds?: readonly StationKind[];
  readonly only?: { readonly param: string; readonly is?: readonly (string | boolean)[]; readonly atLeast?: number };
  /** What it can see from there. */
  /** `near`: the station and what is joined to it by a tube. */
  readonly reach: 'station' | 'near' | 'span' | 'downstream' | 'upward' | 'after' | 'before' | 'lane' | 'path';
  /** At a station of such a kind it reaches this instead: a nozzle in one piece takes its heat break along. */
  readonly reachWhere?: ReachWhere;
  readonly needs: 'nothing' | 'open' | 'mouth';
  /** A swap takes what it reaches out of play: a fault there is cured, another stays. */
  readonly swap?: boolean;
  /** The remedy that leaves what a swap brought where it is, once the swap cured. */
  readonly keeps?: string;
  /** Only where more than one lane leads to the head. */
  readonly severalLanes?: boolean;
  /** Only on machines with several lanes. */
  readonly amongLanes?: boolean;
  readonly asks?: 'onset';
  /** Only where one of these was done before, or a part was renewed at the place in this visit. */
  readonly history?: readonly string[];
  /** Answered by the taking-in already, where that number was given. */
  readonly intake?: 'failedAfterMinutes' | 'failedAtMm';
  /** What can work it out: a tool of the application, reached from the check. */
  readonly tool?: 'print-file' | 'path-forces' | 'meter';
  /** What a machine on its line can do of it, or say. */
  readonly byLine?: 'feed' | 'sensor' | 'temperature' | 'steps';
  /** The check that asks the same by other means: of the two, the better one is offered. */
  readonly like?: string;
  /** One look that may show several things at once: each is ticked by itself. */
  readonly items?: boolean;
  readonly results: readonly CheckResult[];
  readonly earlier?: readonly EarlierResult[];
  readonly quantity?: Quantity;
  /** Chance to miss an effect that is there, and to report one that is not. */
  readonly miss: number;
  readonly falseAlarm: number;
  readonly risk?: number;
  /** What its errors come from, shared with other checks: they fail together, so they are not independent witnesses. */
  readonly source?: string;
  readonly retired?: boolean;
}
