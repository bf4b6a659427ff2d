import type { StationKind } from '../path/machine';
import type { Check } from './checkTypes';
import type { Deed, Place, When } from './deedTypes';
import type { Before, Dimension, FailureMode, Onset, Symptom } from './faultTypes';

export * from './checkTypes';
export * from './deedTypes';
export * from './faultTypes';
export type { Proved, Tried } from './outcomes';

/**
 * The catalogue: what can fail, what can be done to learn, what can be done to cure. Data only; the engine has no
 * knowledge of any single mode. Published schema: `docs/formats/catalogue.schema.json`.
 */

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
