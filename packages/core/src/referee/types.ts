/**
 * The checker of plans: it plays a list of steps on a simulated machine and reports the first accident. It is written from the
 * statement of the problem, not from the planner, and shares with it nothing but the description of the machine.
 */

/** What a step does, in the words in which it is handed over. */
export type Deed =
  | { readonly do: 'target'; readonly c: number }
  | { readonly do: 'reads'; readonly c: number; readonly atMost?: boolean }
  | { readonly do: 'power'; readonly to: 'on' | 'off' }
  | { readonly do: 'off' | 'on'; readonly part: string; readonly way?: string }
  | { readonly do: 'unplug' | 'plug'; readonly connectors: readonly string[] }
  | { readonly do: 'service'; readonly part: string }
  | { readonly do: 'raise' | 'lower' }
  | { readonly do: 'strand'; readonly lanes: readonly string[]; readonly to: string }
  | { readonly do: 'push'; readonly station: string; readonly exit: 'hot' | 'open' | 'none'; readonly inHand?: boolean }
  | { readonly do: 'wet' | 'dry'; readonly parts: readonly string[] }
  | { readonly do: 'touch'; readonly station: string; readonly with: 'bare' | 'tool' }
  | {
      readonly do: 'use';
      readonly tool: 'needle' | 'rod' | 'bit' | 'spanner';
      readonly mm: number;
      readonly station: string;
    }
  | { readonly do: 'prove'; readonly proof: string }
  | { readonly do: 'close'; readonly outcome: string; readonly asked: readonly string[] };

export interface PlayedStep {
  readonly id: string;
  readonly title: string;
  readonly how: string;
  readonly stop?: string;
  readonly cautions: readonly string[];
  readonly tools: readonly string[];
  readonly minutes: number;
  readonly waitMinutes: number;
  readonly need: { readonly heat: 'any' | 'cold' | 'hot'; readonly power: 'any' | 'off' | 'on'; readonly hotC: number };
  readonly fasteners: readonly { readonly count: number; readonly loosenOnly?: boolean; readonly stays?: boolean }[];
  readonly acts: readonly Deed[];
}

/** The machine as it stands when the first step begins. */
export interface Scene {
  readonly temperatureC: number;
  readonly targetC: number;
  readonly power: 'on' | 'off';
  /** Parts off, with the way each came off; empty for the usual one. */
  readonly off: Readonly<Record<string, string>>;
  readonly unplugged?: readonly string[];
  readonly strand: Readonly<Record<string, string>>;
  readonly supported: boolean;
  readonly wet: readonly string[];
  readonly service: readonly string[];
  /** Parts that stay off for a recorded reason; parts that the machine turned out not to have. */
  readonly leftOff?: readonly string[];
  readonly absent?: readonly string[];
  /** Heater or reading is at fault, until all of these steps are done. */
  readonly heatFault?: readonly string[];
}

export const ACCIDENTS = [
  'heat-unplugged',
  'power-loose',
  'heat-wet',
  'heat-unknown',
  'push-unsupported',
  'push-closed',
  'over-limit',
  'hot-hand',
  'off-hot',
  'open-held',
  'tube-full',
  'wrong-size',
  'nozzle-cold',
  'unmarked-hazard',
  'proof-open',
  'cured-unproved',
  'words-against-state',
  'state-unmet',
] as const;
export type AccidentId = (typeof ACCIDENTS)[number];

export interface Accident {
  readonly id: AccidentId;
  readonly step: string;
  readonly text: string;
}
