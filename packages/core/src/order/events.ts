import type { Strand } from '../bench/state';
import type { RungResult, Tried } from '../catalogue/types';
import type { BedPoint } from '../physics/bed';
import type { FedAt } from '../physics/feedCurve';

/** A place on a picture, fractions of its width and height from the upper left. */
export interface PhotoMarker {
  readonly x: number;
  readonly y: number;
  readonly label: string;
}

/** What the owner says and shows when a machine comes in. */
export interface Intake {
  readonly lane?: string;
  readonly material?: string;
  readonly colour?: string;
  readonly weeksLoaded?: number;
  readonly hotterBefore?: boolean;
  readonly symptoms: readonly string[];
  readonly onset?: string;
  /** Further beginnings that apply at the same time. */
  readonly onsets?: readonly string[];
  /** Symptoms that nobody looked for; when it is there, all others that are not ticked were looked for and not seen. */
  readonly notLooked?: readonly string[];
  readonly before: readonly string[];
  /** What came of it, of those of which it is known. */
  readonly tried?: readonly Tried[];
  /** Station that a message on the machine names: the fault was noticed there. */
  readonly noticedAt?: string;
  /** Stations that are not as delivered. */
  readonly converted?: readonly string[];
  /** When in the print the fault showed: minutes from its start, height of the nozzle. */
  readonly failedAfterMinutes?: number;
  readonly failedAtMm?: number;
  readonly warranty?: 'yes' | 'no';
  readonly note?: string;
}

/** A work order is a list of these; nothing else about it is stored. Schema: `docs/formats/order.schema.json`. */
export interface EventBodies {
  'taken-in': Intake & { readonly number: string; readonly machineId: string };
  /** What was given at the taking-in, put right: the whole of it anew. */
  'intake-corrected': Intake;
  'finding-recorded': {
    readonly key: string;
    readonly result: string;
    readonly value?: number;
    /** Of a look that may show several things: the others that were there. */
    readonly also?: readonly string[];
    /** The look was finished: what it did not show is not there. */
    readonly finished?: boolean;
    /** Real, but not the cause. */
    readonly innocent?: boolean;
    readonly note?: string;
  };
  /** A finding is real, but not the cause; or it may be after all. */
  'finding-marked': { readonly findingId: string; readonly innocent: boolean };
  'check-not-done': { readonly key: string; readonly why: string };
  'event-withdrawn': { readonly eventId: string };
  'bench-changed': {
    readonly targetC?: number;
    readonly readingC?: number;
    /** The reading is a bound: it reads so much or less. */
    readonly atMost?: boolean;
    readonly power?: 'on' | 'off';
    /** By lane, what is known of its strand. */
    readonly strand?: Readonly<Record<string, Strand>>;
    /** The head is raised and supported. */
    readonly supported?: boolean;
    /** Parts laid into solvent, and those that are dry again. */
    readonly wet?: readonly string[];
    readonly dry?: readonly string[];
    /** Parts held in their service position. */
    readonly service?: readonly string[];
    /** Connectors pulled by themselves, and those back in their sockets. */
    readonly pulled?: readonly string[];
    readonly plugged?: readonly string[];
  };
  /** Time constant of cooling, fitted to a temperature log. */
  'cooling-measured': { readonly tauS: number; readonly tauSd: number; readonly readings: number };
  'parts-moved': {
    readonly off?: readonly string[];
    readonly on?: readonly string[];
    /** By part, the way in which it came off, when it was not the usual one. */
    readonly ways?: Readonly<Record<string, string>>;
  };
  /** Screws and clips of a part, by their number on its map. */
  'fasteners-moved': {
    readonly part: string;
    readonly way?: string;
    readonly out?: readonly number[];
    readonly in?: readonly number[];
    readonly left?: readonly { readonly index: number; readonly why: string }[];
  };
  'cause-chosen': { readonly station: string; readonly mode: string; readonly advised: boolean };
  /** A second thing to be done in the same opening. */
  'cause-added': { readonly station: string; readonly mode: string };
  'cause-dropped': { readonly why?: string };
  'step-done': { readonly stepId: string; readonly override?: string };
  'rung-tried': {
    readonly stepId: string;
    readonly remedy: string;
    readonly outcome: RungResult;
    readonly station?: string;
    readonly mode?: string;
    /** Id of what was seen, of the remedy's outcomes. */
    readonly shown?: string;
    /** Depth by rod afterwards. */
    readonly depthMm?: number;
  };
  'step-skipped': { readonly stepId: string; readonly why: string };
  'rung-picked': {
    readonly station: string;
    readonly mode: string;
    readonly remedy: string;
    /** What is to be fitted, of the remedy's offers. */
    readonly offer?: string;
  };
  /** The way in which a part is to come off; absent: its usual one. */
  'way-picked': { readonly part: string; readonly way?: string };
  /** A solvent on a piece of the same filament: it softened, or not. */
  'solvent-tried': { readonly solvent: string; readonly softened: boolean };
  'timer-started': { readonly timerId: string; readonly label: string; readonly minutes: number };
  'timer-stopped': { readonly timerId: string };
  'part-replaced': {
    readonly station: string;
    readonly part: string;
    /** Which of the remedy's offers was fitted. */
    readonly offer?: string;
    readonly maker?: string;
    readonly batch?: string;
    readonly price?: number;
    /** Hours on the part that was fitted, 0 when new, and on the one that came off. */
    readonly hours?: number;
    readonly oldHours?: number;
    readonly genuine?: 'yes' | 'no' | 'unknown';
  };
  'proof-recorded': {
    readonly proof: string;
    readonly passed: boolean;
    readonly askedMm?: number;
    readonly fedMm?: number;
    readonly oldStepsPerMm?: number;
    readonly readingMm?: number;
    readonly ranMinutes?: number;
    /** Height that the job reached, mm. */
    readonly reachedMm?: number;
    /** The job that had failed ran to its end, sound. */
    readonly wholeJob?: boolean;
    readonly points?: readonly BedPoint[];
  };
  /** Fed length at several speeds. */
  'curve-measured': { readonly points: readonly FedAt[] };
  'not-cured': { readonly proof?: string; readonly note?: string };
  /** `findingId`: it says of that finding what it was. */
  'note-added': { readonly text: string; readonly findingId?: string };
  /** The picture itself is kept beside the order, under its id. */
  'photo-added': {
    readonly photoId: string;
    /** Id of a step or a finding, `part:` and a part's id, or `order`. */
    readonly about: string;
    readonly caption?: string;
    readonly widthPx: number;
    readonly heightPx: number;
  };
  'photo-marked': { readonly photoId: string; readonly markers: readonly PhotoMarker[] };
  closed: {
    readonly outcome: 'cured' | 'not-cured' | 'given-back' | 'scrapped' | 'mistake';
    readonly minutes?: number;
    readonly watch?: string;
    /** Day on which it is to be looked at again, YYYY-MM-DD. */
    readonly watchOn?: string;
    readonly hourlyRate?: number;
    readonly note?: string;
  };
}

export type EventType = keyof EventBodies;

export type OrderEvent = {
  readonly [T in EventType]: {
    /** Made where the event was recorded; storing it twice stores it once. */
    readonly id: string;
    /** ISO 8601 with zone. */
    readonly at: string;
    /** Who recorded it, a role at the bench. */
    readonly by: string;
    readonly type: T;
    readonly body: EventBodies[T];
  };
}[EventType];

/** An order in its own file, with the machine as it was when it was taken in. */
export interface OrderFile {
  readonly format: 'zealous-tracer/order';
  readonly version: 1;
  readonly id: string;
  readonly machine: import('../path/machine').Machine;
  readonly events: readonly OrderEvent[];
}
