import type { StationKind } from '../path/machine';

/** A dimension in which a failure shows. Values run from normal to worst. */
export interface Dimension {
  readonly id: string;
  readonly name: string;
  readonly values: readonly string[];
  /** It is what an eye sees once a place is open. */
  readonly byEye?: boolean;
}

/** Probability of each abnormal value; what is left over is the normal one. */
export type Shows = Readonly<Record<string, number>>;

/** A measured quantity under a failure: with probability `p` it shows, around `mean` with spread `sd`. */
export interface Reading {
  readonly p: number;
  readonly mean: number;
  readonly sd: number;
  /** `mean` and `sd` are multiples of what a sound machine would read here. */
  readonly relative?: boolean;
  /** Sooner or later with how soon the strand softens in this hot end (`creep` of its mode). */
  readonly creeps?: boolean;
}

export interface Raise {
  /** Multiplies the prior when every stated condition holds. */
  readonly by: number;
  readonly why: string;
  readonly weeksLoadedMin?: number;
  readonly material?: readonly string[];
  readonly trait?: readonly string[];
  readonly hotterBefore?: boolean;
  readonly history?: readonly string[];
  readonly param?: string;
  readonly is?: readonly (string | boolean)[];
  readonly atLeast?: number;
  readonly below?: number;
}

export interface FailureMode {
  readonly id: string;
  readonly name: string;
  /** Share of the weight by kind of station. */
  readonly where: Readonly<Partial<Record<StationKind, number>>>;
  /** 1 rare to 10 common, before any history. */
  readonly weight: number;
  /** Only stations whose parameter has one of these values; stations that do not state it stay in play. */
  readonly only?: { readonly param: string; readonly is: readonly (string | boolean)[] };
  readonly raised?: readonly Raise[];
  /** How many times likelier an onset is under this mode than an onset that is not named. */
  readonly onset?: Readonly<Record<string, number>>;
  readonly shows: Readonly<Record<string, Shows>>;
  readonly reads?: Readonly<Record<string, Reading>>;
  /** Where in the station it sits, as fractions of its length. */
  readonly sits?: readonly [number, number];
  readonly remedies: readonly string[];
  readonly watch?: string;
  /** The strand softens in the cold zone: with the fan at half, dead, or after a hot switch-off. How easily is worked out for hot end and filament. */
  readonly creep?: 'half' | 'dead' | 'off';
  /** Only on paths with a station of one of these kinds. */
  readonly pathWith?: readonly StationKind[];
  /** Only where several lanes lead into the station. */
  readonly severalLanes?: boolean;
  /** Only on machines with several lanes. */
  readonly amongLanes?: boolean;
  /** Modes often found together with this one, with how many times likelier than chance. */
  readonly together?: Readonly<Record<string, number>>;
  /** Swaps that cure it although it does not lie within what they reach: with another filament the fault does not show. */
  readonly curedBySwap?: readonly string[];
  /** While it is there the hot end cannot be brought to a temperature that is known: nothing is heated before it is mended. */
  readonly spoilsHeat?: boolean;
  /** With it the plug is out, however hot it is: nothing else stops the heater. */
  readonly pullsPlug?: boolean;
  /** No longer believed in here: kept for old orders, weighs nothing in new ones. */
  readonly retired?: boolean;
}

/** What an owner complains about: asked one after the other. */
export const COMPLAINED_ABOUT = ['print', 'filament', 'machine'] as const;

export interface Symptom {
  readonly id: string;
  readonly label: string;
  readonly when: Readonly<Record<string, readonly string[]>>;
  readonly miss: number;
  readonly falseAlarm: number;
  /** What it is a complaint about; absent: the print. */
  readonly about?: (typeof COMPLAINED_ABOUT)[number];
  /** Asked at the taking-in from this day on (ISO 8601): of an order taken in before, nothing is known of it. */
  readonly since?: string;
  /** Said before every check that wants power or heat, until something has been mended. */
  readonly cautions?: readonly string[];
}

export interface Onset {
  readonly id: string;
  readonly label: string;
  /** In the middle of a print: the height and the minutes are asked. */
  readonly inPrint?: boolean;
  /** It began after something, or in the course of time; absent: where and when it shows. Asked one after the other. */
  readonly after?: boolean;
}

/** Something that was done before the machine came in: what it says about the past, and a finding it amounts to. */
export interface Before {
  readonly id: string;
  readonly label: string;
  /** Tried against the fault; absent: it happened to the machine. Asked one after the other. */
  readonly asCure?: boolean;
  readonly finding?: { readonly check: string; readonly result: string };
  /** Remedies that this was, in vain: their rungs count as tried. */
  readonly tried?: readonly string[];
}
