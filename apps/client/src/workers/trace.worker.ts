import {
  airFactorFrom,
  assess,
  benchAt,
  heatQuestions,
  keptMachine,
  machineOfFamily,
  reduceOrder,
  learnedCatalogue,
  deliveredCatalogue,
  planTube,
  previewChange,
  quickWorking,
  sightOf,
  stationCase,
  soundCatalogue,
  type Bench,
  type Catalogue,
  type HeatTask,
  type Learned,
  type Machine,
  type OrderEvent,
  type OrderState,
  type ShopCatalogue,
  type ShopChange,
  type TubeTask,
} from '@zealous/core';
import { expose } from 'comlink';

/** The full look-ahead stops here at the latest; the best so far is given then. */
const LONGEST_MS = 900;

let shop: { readonly catalogue: Catalogue; readonly learned?: Learned } = { catalogue: deliveredCatalogue };
/** What is believed of each machine, kept: what is worked out for it lies beside the catalogue's object. */
let beliefs = new Map<string, Catalogue>();

function belief(machine: Machine): Catalogue {
  const known =
    beliefs.get(machine.id) ??
    (shop.learned ? learnedCatalogue(shop.catalogue, shop.learned, machine) : shop.catalogue);
  beliefs.set(machine.id, known);
  return known;
}

interface Weighed {
  readonly machine: Machine;
  readonly state: string;
  readonly working: ReturnType<typeof quickWorking>;
}
/** As many orders are made ready for, and the one that is open. */
const MOST_WEIGHED = 4;
/** The posteriors last worked out, the latest first: what to do next is asked for a moment after what is believed. */
let weighed: readonly Weighed[] = [];

function quickly(machine: Machine, state: OrderState): Weighed['working'] {
  const told = JSON.stringify(state);
  const known = weighed.find((one) => one.machine === machine && one.state === told);
  const latest = known ?? { machine, state: told, working: quickWorking(machine, belief(machine), state) };
  weighed = [latest, ...weighed.filter((one) => one !== known)].slice(0, MOST_WEIGHED);
  return latest.working;
}

/** A machine and an order to practise on: a phone's first answers would otherwise take several times as long. */
const PRACTICE = machineOfFamily('hub-head', 'practice', 'Practice');
const COLD: Bench = { temperatureC: PRACTICE.heat.ambientC, power: 'off', off: new Set() };
const practiceEvent = (n: number, type: string, body: object): OrderEvent =>
  ({ id: `practice-${n}`, at: new Date(0).toISOString(), by: 'practice', type, body }) as unknown as OrderEvent;
const PRACTICE_ORDER = practiceEvent(0, 'taken-in', {
  number: 'practice',
  machineId: PRACTICE.id,
  symptoms: ['not-reach'],
  before: [],
  material: deliveredCatalogue.materials[0]?.id,
});
const practiceFinding = (n: number, key: string): OrderEvent =>
  practiceEvent(n + 1, 'finding-recorded', { key, result: 'not-sure' });
const WARM_STEPS = 12;
/** Of these, so many also look further ahead, for so long. */
const WARM_DEEPER = 4;
const WARM_DEEPER_MS = 150;
const WARM_PAUSE_MS = 40;
/** When somebody has asked for something, nothing is practised for so long. */
const QUIET_MS = 20_000;
let lastAsked = -Infinity;

/** An order that may be opened next. */
export interface Ahead {
  readonly machine: Machine;
  readonly events: readonly OrderEvent[];
}

/** What is done while nobody waits for an answer, one piece at a time. */
const idle: (() => void)[] = [];
let waiting = false;

function whenIdle(work: () => void): void {
  idle.push(work);
  if (waiting) return;
  waiting = true;
  const go = (): void => {
    const quietIn = lastAsked + QUIET_MS - performance.now();
    if (quietIn > 0) {
      setTimeout(go, quietIn);
      return;
    }
    try {
      idle.shift()?.();
    } catch {
      // What cannot be worked out says so when it is opened.
    }
    waiting = idle.length > 0;
    if (waiting) setTimeout(go, WARM_PAUSE_MS);
  };
  setTimeout(go, WARM_PAUSE_MS);
}

const until = (ms: number): (() => boolean) => {
  const end = performance.now() + ms;
  return () => performance.now() > end;
};

const service = {
  /** Makes the tracer's own code warm on a template, a little at a time, while nobody waits. */
  warmUp(): void {
    const step = (n: number, notSure: readonly OrderEvent[]): void => {
      const state = reduceOrder(PRACTICE, deliveredCatalogue, [PRACTICE_ORDER, ...notSure]);
      const { checks } = assess(PRACTICE, deliveredCatalogue, state, COLD, { depth: 1, quick: true });
      if (n >= WARM_STEPS - WARM_DEEPER)
        assess(PRACTICE, deliveredCatalogue, state, COLD, { depth: 2, expired: until(WARM_DEEPER_MS) });
      const next = checks.find((check) => !check.done);
      if (next && n + 1 < WARM_STEPS) whenIdle(() => step(n + 1, [...notSure, practiceFinding(n, next.key)]));
    };
    whenIdle(() => step(0, []));
  },
  /** Works out, while nobody waits, what does not change while this machine is traced, and what is believed of this order. */
  makeReady({ machine, events }: Ahead): void {
    whenIdle(() => {
      const kept = keptMachine(machine);
      const state = reduceOrder(kept, belief(kept), events);
      const bench = benchAt(kept, state, state.lastMs);
      assess(kept, belief(kept), state, bench, { depth: 1, quick: true }, quickly(kept, state));
    });
  },
  setShop(document: { readonly catalogue: ShopCatalogue; readonly learned: Learned }, useLearned: boolean): void {
    shop = {
      catalogue: soundCatalogue(deliveredCatalogue, document.catalogue).catalogue,
      ...(useLearned ? { learned: document.learned } : {}),
    };
    beliefs = new Map();
    weighed = [];
  },
  /** What is believed as the findings stand, before anything is decided: the strand moves by it. */
  sight: (machine: Machine, state: OrderState) => {
    lastAsked = performance.now();
    return sightOf(quickly(keptMachine(machine), state));
  },
  /** A first answer, one check ahead; what each result of the checks in `also` would do comes with it. */
  assess: (machine: Machine, state: OrderState, bench: Bench, also: readonly string[]) => {
    const kept = keptMachine(machine);
    return assess(kept, belief(kept), state, bench, { depth: 1, quick: true, also }, quickly(kept, state));
  },
  /** Two checks ahead, within a time limit; `also` are checks to be compared as far ahead. */
  assessDeeper: (machine: Machine, state: OrderState, bench: Bench, also: readonly string[]) => {
    const kept = keptMachine(machine);
    lastAsked = performance.now();
    return assess(kept, belief(kept), state, bench, { depth: 2, also, expired: until(LONGEST_MS) });
  },
  stationCase: (machine: Machine, state: OrderState, station: string) => {
    const kept = keptMachine(machine);
    return stationCase(kept, belief(kept), state, station);
  },
  planTube: (task: TubeTask) => planTube(task),
  /** A sink that was felt or measured says how much heat this one gives to the air. */
  heatQuestions: (base: Omit<HeatTask, 'phases'>, glassC: number, sinkC?: number) =>
    heatQuestions(sinkC === undefined ? base : { ...base, airFactor: airFactorFrom(base, sinkC) }, glassC),
  previewChange: (machine: Machine, change: ShopChange) => previewChange(keptMachine(machine), shop.catalogue, change),
};

export type TraceService = typeof service;

expose(service);
