import {
  airFactorFrom,
  assess,
  benchKey,
  benchToDecide,
  heatQuestions,
  keptMachine,
  machineOfFamily,
  reduceOrder,
  learnedCatalogue,
  deliveredCatalogue,
  answersAhead,
  planTube,
  previewChange,
  quickWorking,
  sightOf,
  stationCase,
  soundCatalogue,
  tellingOf,
  type Assessment,
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

/** As many answers are kept: for the orders that are made ready, and for what the check that stands may answer. */
const MOST_KEPT = 12;

/** Answers last worked out, by machine and by all that they depend on. */
class Answers<T> {
  /** The latest first. */
  private kept: readonly { readonly machine: Machine; readonly of: string; readonly answer: T }[] = [];

  of(machine: Machine, of: string, work: () => T): T {
    const latest = this.kept.find((one) => one.machine === machine && one.of === of) ?? { machine, of, answer: work() };
    this.kept = [latest, ...this.kept.filter((one) => one !== latest)].slice(0, MOST_KEPT);
    return latest.answer;
  }

  forget(): void {
    this.kept = [];
  }
}

/** What is believed of an order, and what is first said to do: asked for one after the other, and worked out ahead. */
const believed = new Answers<ReturnType<typeof quickWorking>>();
const advised = new Answers<Assessment>();

const quickly = (machine: Machine, state: OrderState): ReturnType<typeof quickWorking> =>
  believed.of(machine, tellingOf(machine, belief(machine), state), () => quickWorking(machine, belief(machine), state));

const firstAnswer = (machine: Machine, state: OrderState, bench: Bench, also: readonly string[]): Assessment =>
  advised.of(machine, JSON.stringify([tellingOf(machine, belief(machine), state), benchKey(bench), also]), () =>
    assess(machine, belief(machine), state, bench, { depth: 1, quick: true, also }, quickly(machine, state)),
  );

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

/** Once a check stands, nobody asks for so long: the technician does it. */
const DOING_MS = 300;
/** Told apart by their number: what was foreseen of a check that is answered, or stands no more, is not worked out any further. */
let foresight = 0;

/** While a check is being done, what each of its answers would mean: the strand and the next check then come at the tap. */
function foresee(machine: Machine, state: OrderState, { checks }: Assessment, standing?: string): void {
  const check = checks.find(({ key }) => key === standing) ?? checks.find(({ done }) => !done);
  const mine = ++foresight;
  if (!check) return;
  let steps: readonly (() => void)[] | undefined;
  const go = (): void => {
    if (mine !== foresight) return;
    try {
      steps ??= answersAhead(machine, belief(machine), state, Date.now(), check).flatMap((next) => [
        () => void quickly(machine, next.state),
        () => void firstAnswer(machine, next.state, next.bench, []),
      ]);
      const [step, ...rest] = steps;
      step?.();
      steps = rest;
      if (rest.length > 0) setTimeout(go, WARM_PAUSE_MS);
    } catch {
      // What cannot be worked out ahead says so when it is asked for.
    }
  };
  setTimeout(go, DOING_MS);
}

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
  makeReady({ machine: told, events }: Ahead): void {
    whenIdle(() => {
      const machine = keptMachine(told);
      const state = reduceOrder(machine, belief(machine), events);
      const bench = benchToDecide(machine, state, Date.now());
      firstAnswer(machine, state, bench, []);
    });
  },
  setShop(document: { readonly catalogue: ShopCatalogue; readonly learned: Learned }, useLearned: boolean): void {
    shop = {
      catalogue: soundCatalogue(deliveredCatalogue, document.catalogue).catalogue,
      ...(useLearned ? { learned: document.learned } : {}),
    };
    beliefs = new Map();
    believed.forget();
    advised.forget();
  },
  /** What is believed as the findings stand, before anything is decided: the strand moves by it. */
  sight: (machine: Machine, state: OrderState) => {
    lastAsked = performance.now();
    foresight++;
    return sightOf(quickly(keptMachine(machine), state));
  },
  /** A first answer, one check ahead; what each result of the checks in `also` would do comes with it. */
  assess: (machine: Machine, state: OrderState, bench: Bench, also: readonly string[]) => {
    return firstAnswer(keptMachine(machine), state, bench, also);
  },
  /** Two checks ahead, within a time limit; `also` are checks to be compared as far ahead. */
  assessDeeper: (machine: Machine, state: OrderState, bench: Bench, also: readonly string[]) => {
    const own = keptMachine(machine);
    lastAsked = performance.now();
    const answer = assess(own, belief(own), state, bench, { depth: 2, also, expired: until(LONGEST_MS) });
    foresee(own, state, answer, also.at(-1));
    return answer;
  },
  stationCase: (machine: Machine, state: OrderState, station: string) => {
    const own = keptMachine(machine);
    return stationCase(own, belief(own), state, station);
  },
  planTube: (task: TubeTask) => planTube(task),
  /** A sink that was felt or measured says how much heat this one gives to the air. */
  heatQuestions: (base: Omit<HeatTask, 'phases'>, glassC: number, sinkC?: number) =>
    heatQuestions(sinkC === undefined ? base : { ...base, airFactor: airFactorFrom(base, sinkC) }, glassC),
  previewChange: (machine: Machine, change: ShopChange) => previewChange(keptMachine(machine), shop.catalogue, change),
};

export type TraceService = typeof service;

expose(service);
