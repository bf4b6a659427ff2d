import type { Strand } from '../bench/state';
import type { Proved } from '../catalogue/types';
import type { FastenerRecord } from '../bench/fastenerMap';
import { fitCooling, timeToCool, type Cooling, type TimedReading, type TimeLeft } from '../physics/cooling';
import { cooledTo } from '../physics/heat';
import type { Machine } from '../path/machine';
import type { EventBodies } from './events';

/** Recorded heat: a temperature at a time, and where it is going. */
export interface HeatRecord {
  readonly temperatureC: number;
  readonly atMs: number;
  /** 0 when no heating is asked. */
  readonly targetC: number;
  /** A reading has said that it is safe to touch, and nothing has heated it since. The clock alone never says so; absent counts as sure. */
  readonly coldSure?: boolean;
  /** Readings since it last cooled with no target, and the constant fitted to them; absent while the machine's own stands. */
  readonly readings?: readonly TimedReading[];
  readonly cooling?: Cooling;
}

export interface ChosenCause {
  readonly eventId: string;
  readonly station: string;
  readonly mode: string;
  readonly advised: boolean;
}

export interface Failure {
  readonly id: string;
  readonly station: string;
  readonly mode: string;
  readonly remedies: readonly string[];
  readonly proof?: string;
  /** So many findings came before it. */
  readonly after?: number;
  /** What was proved after it, up to the proof that failed. */
  readonly proved?: readonly Proved[];
}

export interface Timer {
  readonly id: string;
  readonly label: string;
  readonly endsMs: number;
}

export interface RecordedFinding {
  readonly id: string;
  readonly at: string;
  readonly by: string;
  readonly key: string;
  readonly result: string;
  readonly value?: number;
  readonly also?: readonly string[];
  readonly finished?: boolean;
  readonly innocent?: boolean;
  readonly note?: string;
}

export interface RungTry {
  readonly stepId: string;
  readonly remedy: string;
  readonly outcome: EventBodies['rung-tried']['outcome'];
  readonly station: string;
  readonly mode: string;
  readonly shown?: string;
  readonly depthMm?: number;
  readonly at: string;
}

export interface OrderState {
  /** What was told; `askedAt` is when it was asked last, at the taking-in or as it was put right. */
  readonly intake?: EventBodies['taken-in'] & { readonly at: string; readonly by: string; readonly askedAt: string };
  readonly findings: readonly RecordedFinding[];
  readonly notDone: readonly { readonly id: string; readonly key: string; readonly why: string }[];
  readonly heat: HeatRecord;
  readonly power: 'on' | 'off';
  readonly off: readonly string[];
  /** Parts that this machine turned out not to have: neither taken off nor put back. */
  readonly absent: readonly string[];
  /** By lane; a lane that is not named is unknown. */
  readonly strand: Readonly<Record<string, Strand>>;
  readonly supported: boolean;
  readonly wet: readonly string[];
  readonly service: readonly string[];
  readonly pulled: readonly string[];
  /** Heater or reading is at fault, as far as is known: nothing is heated before it is mended. */
  readonly heatSpoiled: boolean;
  /** Parts that came off at any time, in tracing or in the work. */
  readonly opened: readonly string[];
  /** By part that is off, the way in which it came off, when it was not the usual one. */
  readonly ways: Readonly<Record<string, string>>;
  /** By part, or part/way. */
  readonly fasteners: Readonly<Record<string, FastenerRecord>>;
  readonly cause?: ChosenCause;
  /** Further causes that are taken on in the same opening. */
  readonly also: readonly ChosenCause[];
  readonly picked?: EventBodies['rung-picked'];
  /** By part, the way in which the technician wants it off; empty for its usual one. */
  readonly pickedWays: Readonly<Record<string, string>>;
  /** Whether a piece of this filament softened in a solvent. */
  readonly solvents: Readonly<Record<string, boolean>>;
  /** In the order in which they were done or skipped. */
  readonly steps: Readonly<
    Record<string, { readonly at: string; readonly by: string; readonly override?: string; readonly skipped?: string }>
  >;
  readonly tries: readonly RungTry[];
  readonly failures: readonly Failure[];
  /** Causes that were cleared in this visit before another one was taken on. */
  readonly cured: readonly Failure[];
  readonly timers: readonly Timer[];
  readonly parts: readonly (EventBodies['part-replaced'] & { readonly at: string })[];
  readonly proofs: Readonly<
    Record<string, EventBodies['proof-recorded'] & { readonly at: string; readonly eventId: string }>
  >;
  /** Fed length at several speeds, as last measured. */
  readonly curve?: EventBodies['curve-measured']['points'];
  readonly photos: readonly (EventBodies['photo-added'] & {
    readonly at: string;
    readonly by: string;
    readonly eventId: string;
    readonly markers: EventBodies['photo-marked']['markers'];
  })[];
  readonly notes: readonly (EventBodies['note-added'] & { readonly at: string; readonly by: string })[];
  readonly closed?: EventBodies['closed'] & { readonly eventId: string; readonly at: string; readonly by: string };
  /** Time of the last event, ms. */
  readonly lastMs: number;
}

export const emptyOrder = (machine: Machine): OrderState => ({
  findings: [],
  notDone: [],
  heat: { temperatureC: machine.heat.ambientC, atMs: 0, targetC: 0, coldSure: true },
  power: 'off',
  off: [],
  absent: [],
  strand: {},
  supported: false,
  wet: [],
  service: [],
  pulled: [],
  heatSpoiled: false,
  ways: {},
  opened: [],
  pickedWays: {},
  solvents: {},
  fasteners: {},
  also: [],
  steps: {},
  tries: [],
  failures: [],
  cured: [],
  timers: [],
  parts: [],
  proofs: {},
  photos: [],
  notes: [],
  lastMs: 0,
});

/**
 * What it cools towards: as this order's readings have it, else as the machine's description says. Never colder than that says, so that
 * nothing is called cool too soon.
 */
const roomOf = (machine: Pick<Machine, 'heat'>, heat: HeatRecord): number =>
  Math.max(machine.heat.ambientC, heat.cooling?.roomC ?? machine.heat.ambientC);

/** Temperature expected now from the last record: rising at the machine's rate, or falling by its time constant. */
export function temperatureAt(machine: Pick<Machine, 'heat'>, heat: HeatRecord, nowMs: number): number {
  const seconds = Math.max(0, (nowMs - heat.atMs) / 1000);
  const { coolTauS, heatUpCPerS } = machine.heat;
  const ambientC = roomOf(machine, heat);
  if (heat.targetC >= heat.temperatureC) return Math.min(heat.targetC, heat.temperatureC + heatUpCPerS * seconds);
  const tauS = heat.cooling?.tauS ?? coolTauS;
  return Math.max(heat.targetC, cooledTo(heat.temperatureC, Math.min(ambientC, heat.temperatureC), tauS, seconds));
}

/** Time until a threshold is passed, as the readings of this order and the machine's own constant have it. */
export const timeLeft = (machine: Pick<Machine, 'heat'>, heat: HeatRecord, nowMs: number, toC: number): TimeLeft =>
  timeToCool(
    temperatureAt(machine, heat, nowMs),
    toC,
    roomOf(machine, heat),
    heat.cooling ?? fitCooling(machine.heat, []),
  );

export type Phase = 'trace' | 'plan' | 'prove' | 'record';
