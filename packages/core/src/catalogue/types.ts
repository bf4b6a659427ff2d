import type { StationKind } from '../path/machine';
import type { Check } from './checkTypes';
import type { Deed, Place, When } from './deedTypes';

export * from './checkTypes';
export * from './deedTypes';
export type { Proved, Tried } from './outcomes';

/**
 * The catalogue: what can fail, what can be done to learn, what can be done to cure. Data only; the engine has no
 * knowledge of any single mode. Published schema: `docs/formats/catalogue.schema.json`.
 */

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

/** A step of a remedy. */
export interface Action extends Deed {
  readonly id: string;
  /** Absent: the remedy's name. */
  readonly name?: string;
  readonly stop?: string;
  readonly waitMinutes?: number;
  /** Named temperature from the material table when hot. */
  readonly target?: 'print' | 'unclog' | 'pull' | 'seat';
  readonly places?: readonly Place[];
  /** Only where all of these hold; an action whose conditions do not hold is left out of its remedy. */
  readonly when?: readonly When[];
  /** Done once, also when the remedy is tried again. */
  readonly once?: boolean;
}

export const PURPOSES = [
  'look',
  'unload-hot',
  'unload-cold',
  'unload-cut',
  'raise',
  'lower',
  'service',
  'dry',
  'spares',
  'keep',
  'ask',
] as const;

/** A step that every plan may need, found by its purpose. */
export interface StandingAction extends Action {
  readonly purpose: (typeof PURPOSES)[number];
}

export interface Remedy extends Omit<Action, 'name'> {
  readonly name: string;
  readonly cures: number;
  /** Only at stations of these kinds. */
  readonly kinds?: readonly StationKind[];
  readonly boreAtLeastMm?: number;
  readonly boreBelowMm?: number;
  readonly materials?: readonly string[];
  /** The filament need not come out for it. */
  readonly leavesFilament?: boolean;
  /** Only for plastics that a bench solvent takes. */
  readonly needsSolvent?: boolean;
  readonly replaces?: string;
  readonly price?: number;
  /** What can be fitted: part, kit, whole assembly, a better design or the machine's own spare; without, `price` and `minutes` say it. */
  readonly offers?: readonly Offer[];
  /** So often without progress, then the next rung. */
  readonly tries?: number;
  /** Price of the chance that it makes things worse, minutes. */
  readonly risk?: number;
  /** The depth by rod, before and after, says whether it went on. */
  readonly measures?: 'depth';
  /** What may come of it; without, the usual three. */
  readonly outcomes?: readonly RungOutcome[];
  /** What else it takes away: faults at both neighbours of its place, of the whole hot end or anywhere on the path, and how surely. */
  readonly takes?: readonly RemedyTakes[];
  /** It takes the thing out rather than pushing it on: where it costs no more than a push, it comes first. */
  readonly takesOut?: boolean;
  /** In this order; without, the remedy is one action of its own fields. */
  readonly actions?: readonly Action[];
  readonly origin: string;
  readonly retired?: boolean;
}

/** Faults beside its own that a remedy takes away: `modes` absent means all of that place. */
export interface RemedyTakes {
  readonly place: 'ends' | 'hot-end' | 'path';
  readonly modes?: readonly string[];
  readonly cures: number;
}

/** One thing that can be bought to renew a place of the path. */
export interface Offer {
  readonly id: string;
  readonly name: string;
  readonly kind: 'spare' | 'part' | 'kit' | 'assembly' | 'upgrade';
  /** Only for these kinds of hot end, extruder and so on. */
  readonly when?: readonly When[];
  readonly price: number;
  /** Minutes of work to fit it. */
  readonly minutes: number;
  /** Printing hours until half of them need renewing, before the shop's own record speaks; the second with abrasive filament. */
  readonly lifeHours: number;
  readonly lifeHoursAbrasive?: number;
  /** A flaw that is known of it: looked for before it is fitted. */
  readonly flaw?: string;
  readonly origin: string;
}

export type RungResult = 'cleared' | 'better' | 'no-change' | 'worse';

export interface RungOutcome {
  readonly id: string;
  readonly label: string;
  readonly means: RungResult;
  /** What it says as a check: it goes back to the tracer. */
  readonly finding?: { readonly check: string; readonly result: string };
}

export interface Material {
  readonly id: string;
  readonly name: string;
  readonly printC: number;
  readonly unclogC: number;
  readonly pullC: number;
  readonly glassC?: number;
  /** Young's modulus and yield stress of the cold strand, MPa. */
  readonly stiffnessMPa?: number;
  readonly yieldMPa?: number;
  /** Viscosity of the melt at print temperature and a shear rate of 100 1/s, Pa·s, and its power-law index. */
  readonly meltPaS?: number;
  readonly thinning?: number;
  readonly printRangeC?: readonly [number, number];
  readonly dryC?: number;
  readonly dryHours?: number;
  /** Ids of solvents that take it, the first to be tried first. */
  readonly solvents?: readonly string[];
  readonly traits: readonly string[];
  /** It stands for a filament that is not known. */
  readonly assumed?: boolean;
  readonly origin: string;
}

/** A liquid that softens some plastics. */
export interface Solvent {
  readonly id: string;
  readonly name: string;
  readonly flashC: number;
  /** Lower explosive limit, volume per cent. */
  readonly lowerLimitPct: number;
  /** Workplace exposure limit over a shift, ppm. */
  readonly exposurePpm: number;
  readonly soakHours: readonly [number, number];
  readonly care: string;
  readonly origin: string;
}

/** What the shop reckons with. */
export interface Terms {
  readonly id: string;
  readonly name: string;
  /** What an hour at the bench is worth, in the currency of the prices. */
  readonly hourlyRate: number;
  /** The currency of the prices; name and address of the shop: all three stand on what is printed. */
  readonly currency?: string;
  readonly shop?: string;
  readonly address?: string;
}

/** A tool or a consumable of the bench. */
export interface Tool {
  readonly id: string;
  /** With `{needle}`, `{rod}`, `{bit}`, `{spanner}` where its size is the path's. */
  readonly name: string;
  /** The caution that its use calls for. */
  readonly hazard?: string;
  /** What of the path its size is judged by. */
  readonly sized?: 'needle' | 'rod' | 'bit' | 'spanner';
  readonly consumable?: boolean;
}

/** A caution as it stands at its step: one line with its reason, and the standard sign by shape and word. */
export interface Caution {
  readonly id: string;
  readonly sign: string;
  readonly shape: 'triangle' | 'diamond' | 'circle';
  readonly line: string;
  readonly more: string;
  /** The hazards that it marks. */
  readonly marks?: readonly Hazard[];
}

export const HAZARDS = [
  'heat',
  'ptfe',
  'spring',
  'plugs',
  'cable',
  'push',
  'solvent',
  'dry',
  'small-parts',
  'homing',
] as const;
export type Hazard = (typeof HAZARDS)[number];

export interface Proof extends Deed {
  readonly id: string;
  readonly name: string;
  /** Only when one of these remedies was used, or a cause of these modes was under work. */
  readonly remedies?: readonly string[];
  readonly modes?: readonly string[];
  /** Only on paths with such a station. */
  readonly kinds?: readonly StationKind[];
  /** Only when a cause or a renewed part lay at such a station, such a station was laid open, or the fault began so. */
  readonly worked?: readonly StationKind[];
  readonly touched?: readonly StationKind[];
  readonly onsets?: readonly string[];
  /** Why it is asked for, in the words shown. */
  readonly why?: string;
  readonly form?: 'bed' | 'run';
  readonly quantity?: boolean;
  /** The check that asks the same: the two err together. */
  readonly like?: string;
  /** What it would fail at, and how often it passes all the same. */
  readonly fails?: Readonly<Record<string, readonly string[]>>;
  readonly miss?: number;
}

export interface Catalogue {
  readonly format: 'zealous-tracer/catalogue';
  readonly version: 2;
  readonly dimensions: readonly Dimension[];
  readonly onsets: readonly Onset[];
  readonly symptoms: readonly Symptom[];
  readonly before: readonly Before[];
  readonly modes: readonly FailureMode[];
  readonly checks: readonly Check[];
  readonly remedies: readonly Remedy[];
  readonly materials: readonly Material[];
  readonly solvents: readonly Solvent[];
  /** One entry, `shop`. */
  readonly terms: readonly Terms[];
  readonly proofs: readonly Proof[];
  readonly tools: readonly Tool[];
  readonly cautions: readonly Caution[];
  /** Steps that every plan may need: look whether filament is in the path, empty it, raise the head, … */
  readonly standing: readonly StandingAction[];
}
