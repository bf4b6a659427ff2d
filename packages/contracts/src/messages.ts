import type { Catalogue, Learned, Machine, MachineHeat, OrderEvent, Phase, ShopCatalogue } from '@zealous/core';

/** Answers of the server; plain shapes, no classes, so that a screen can import them for nothing. */

export interface OrderSummary {
  readonly id: string;
  readonly number: string;
  readonly machineId: string;
  readonly machineName: string;
  readonly status: 'open' | 'closed';
  readonly openedAt: string;
  readonly closedAt?: string;
  readonly lastEventAt: string;
  readonly phase: Phase;
  /** What is to be done next, in a few words. */
  readonly next: string;
  readonly material?: string;
  readonly colour?: string;
  /** The leading suspicion, or the cause once it is chosen. */
  readonly lead?: { readonly name: string; readonly share?: number };
  readonly timers: readonly { readonly id: string; readonly label: string; readonly endsMs: number }[];
  readonly heat: { readonly temperatureC: number; readonly atMs: number; readonly targetC: number };
  readonly power: 'on' | 'off';
  /** How this machine heats and cools, for the countdown. */
  readonly machineHeat: MachineHeat;
  readonly outcome?: string;
}

export interface StoredEvent {
  readonly seq: number;
  readonly event: OrderEvent;
}

export interface OrderDocument {
  readonly id: string;
  readonly machine: Machine;
  readonly events: readonly StoredEvent[];
  /** Of a closed order: the catalogue that it was closed with, where the present one is another. */
  readonly catalogue?: Catalogue;
}

export interface EventStored {
  readonly seq: number;
  readonly already: boolean;
}

export interface Paged<T> {
  readonly items: readonly T[];
  readonly page: number;
  readonly total: number;
}

export interface MachineSummary {
  readonly id: string;
  readonly name: string;
  readonly family: string;
  readonly summary: string;
  readonly openOrders: number;
  readonly orders: number;
  /** When it left the shop, ISO 8601. */
  readonly retiredAt?: string;
}

/** What the shop has made of the catalogue: its own changes, and what its orders taught. */
export interface ShopDocument {
  readonly catalogue: ShopCatalogue;
  readonly learned: Learned;
  /** Files of counts that were brought in. */
  readonly imports: number;
}

/** RFC 9457. `path` names the field at fault. */
export interface Problem {
  readonly type: string;
  readonly title: string;
  readonly status: number;
  readonly detail: string;
  readonly path?: string;
}

/** What the shop's own orders say of remedies and parts. */
export interface ShopHistory {
  /** By remedy and filament: tries, and those that cleared it. */
  readonly tried: readonly {
    readonly remedy: string;
    readonly material: string;
    readonly tried: number;
    readonly cleared: number;
  }[];
  /** Pieces of a filament in a solvent: tries, and those that softened. */
  readonly solvents: readonly {
    readonly solvent: string;
    readonly material: string;
    readonly tried: number;
    readonly softened: number;
  }[];
  /** Printing hours that parts had when they were renewed. */
  readonly lives: readonly {
    readonly part: string;
    /** Of the part that ended: what it was, and whose, where its fitting is on record. */
    readonly offer?: string;
    readonly maker?: string;
    readonly hours: number;
    readonly ended: boolean;
  }[];
  /** Parts that were fitted, the latest first. */
  readonly parts: readonly {
    readonly part: string;
    readonly maker: string;
    readonly batch: string;
    readonly machine: string;
    readonly at: string;
    /** The same station of the same machine had its part renewed again later. */
    readonly again: boolean;
  }[];
}

/** A machine on the line, as it was heard last. */
export interface LinkStatus {
  readonly address: string;
  readonly standIn: boolean;
  readonly state: 'connecting' | 'up' | 'lost' | 'halted';
  /** Why it is not up, in words. */
  readonly problem?: string;
  readonly temperatureC?: number;
  readonly targetC?: number;
  /** When the temperature was heard, ISO 8601. */
  readonly heardAt?: string;
  /** The firmware sets its target to zero by itself after so many seconds without feeding; absent: it cannot. */
  readonly idleOffS?: number;
  /** What it was heating to when the line was lost. */
  readonly lostAtTargetC?: number;
  /** Something is being done now. */
  readonly busy: boolean;
  readonly holder?: { readonly phone: string; readonly by: string };
}

/** What came back when a machine was asked for something. */
export interface LinkResult {
  readonly temperatureC?: number;
  readonly filament?: boolean;
  readonly switches?: readonly { readonly name: string; readonly closed: boolean }[];
  readonly positionMm?: number;
  readonly stepsPerMm?: number;
  /** Of a simulated printer: what a person would have seen at its bench. */
  readonly atTheBench?: string;
  /** Words of the firmware that are none of the above. */
  readonly said: readonly string[];
}
