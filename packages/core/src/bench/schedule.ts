import type { Machine } from '../path/machine';
import { cooledTo, SAFE_TO_TOUCH_C, secondsToCool, SWITCH_OFF_BELOW_C } from '../physics/heat';
import { NEAR_C, POWER_MIN, WAITING_RATE } from './price';

/** Something to be done by hand that wants the machine in a state. */
export interface Task {
  readonly id: string;
  readonly kind: 'open' | 'work' | 'close';
  readonly minutes: number;
  readonly heat: 'any' | 'cold' | 'hot';
  readonly power: 'any' | 'off' | 'on';
  /** Temperature wanted when hot. */
  readonly hotC: number;
  /** Ids of tasks that come before it. */
  readonly after: readonly string[];
  /** The side of a mirrored machine that it opens or closes. */
  readonly side?: string;
  /** The part that it takes off or puts back. */
  readonly part?: string;
  /** With that part off, plugs hang loose: no power. */
  readonly loosens?: boolean;
  /** With that part off, nothing is heated. */
  readonly unheats?: boolean;
  /** A part that it brings into its service position: it may be heated there. */
  readonly serves?: string;
  /** It leaves a part wet with solvent, or dry again: between the two there is no power. */
  readonly wets?: boolean;
  readonly dries?: boolean;
  /** Done as soon as it may be: it takes no state of the machine, and what waiting it could fill is not worth the search. */
  readonly soon?: boolean;
  /** What the target goes to at once when it is done, °C. */
  readonly thenC?: number;
  /** Its temperature is allowed for minutes only: it is set for this alone. */
  readonly brief?: boolean;
}

/** Parts that are off when the plan begins, by what their absence forbids. */
export interface OffAtFirst {
  /** With it off, plugs hang loose. */
  readonly loosens: readonly string[];
  /** With it off, and not in its service position, nothing is heated. */
  readonly unheats: readonly string[];
  /** A part is wet with solvent. */
  readonly wet?: boolean;
}

/** Heat and power at a moment of a plan. */
export interface Moment {
  readonly temperatureC: number;
  /** 0 when no heating is asked. */
  readonly targetC: number;
  readonly power: 'on' | 'off';
  /** False since it was heated, until a reading has said that it is cold; the clock alone does not. */
  readonly coldSure?: boolean;
}

/** A task in its turn, with what is done to the machine before it. */
export interface Turn {
  readonly task: Task;
  /** Target set before the task, when it changes. */
  readonly target?: number;
  readonly switched?: 'on' | 'off';
  /** Minutes waited before the task, after all that was done meanwhile, and the temperature waited for. */
  readonly waitMinutes: number;
  readonly waitForC?: number;
  readonly before: Moment;
}

export interface Schedule {
  readonly turns: readonly Turn[];
  readonly handsOnMinutes: number;
  readonly waitingMinutes: number;
  /** False when the search was cut short and the order is good but perhaps not the best. */
  readonly exact: boolean;
}

/** Minutes to take a reading (chosen). */
const READING_MIN = 0.1;
/** Minutes to set a target and look at it (chosen). */
const TARGET_MIN = 0.5;
/** States looked at before the search is cut short and goes on with the likeliest next task only (chosen). */
const MOST_STATES = 20_000;
/** Temperatures closer than this are one state of the search. */
const GRAIN_C = 8;

const minutesTo = (machine: Machine, from: Moment, toC: number): number => {
  const { ambientC, coolTauS, heatUpCPerS } = machine.heat;
  return toC >= from.temperatureC
    ? (toC - from.temperatureC) / heatUpCPerS / 60
    : secondsToCool(from.temperatureC, toC, Math.min(ambientC, toC - 1), coolTauS) / 60;
};

/** What the machine does by itself while minutes pass. */
export function later(machine: Machine, moment: Moment, minutes: number): Moment {
  const { ambientC, coolTauS, heatUpCPerS } = machine.heat;
  const { temperatureC: t, targetC } = moment;
  const next =
    targetC >= t
      ? Math.min(targetC, t + heatUpCPerS * 60 * minutes)
      : Math.max(targetC, cooledTo(t, Math.min(ambientC, t), coolTauS, minutes * 60));
  return { ...moment, temperatureC: next };
}

interface Done extends Turn {
  readonly cost: number;
  readonly handsOn: number;
  readonly next: Moment;
}

/** What the open machine forbids. */
interface Forbids {
  readonly power: boolean;
  readonly heat: boolean;
}

/** A task with a target set before it; undefined when it cannot be done that way. */
function doing(
  machine: Machine,
  now: Moment,
  task: Task,
  target: number,
  forbids: Forbids = { power: false, heat: false },
): Done | undefined {
  if (target > 0 && (forbids.heat || forbids.power)) return undefined;
  if ((task.power === 'on' || task.heat === 'hot') && forbids.power) return undefined;
  if (task.heat === 'hot' && forbids.heat) return undefined;
  let moment = now;
  let handsOn = task.minutes;
  let wait = 0;
  let waitForC: number | undefined;
  let switched: 'on' | 'off' | undefined;
  const flip = (power: 'on' | 'off'): void => {
    switched = power;
    handsOn += POWER_MIN;
    moment = later(machine, { ...moment, power }, POWER_MIN);
  };
  const waitFor = (toC: number): void => {
    const minutes = Math.abs(moment.temperatureC - toC) < 1e-9 ? 0 : minutesTo(machine, moment, toC);
    wait += minutes;
    waitForC = toC;
    moment = { ...moment, temperatureC: toC };
  };
  if (task.heat === 'hot' && Math.abs(target - task.hotC) > NEAR_C) return undefined;
  if ((task.heat === 'cold' || task.power === 'off') && target > 0) return undefined;
  if (target > 0 && moment.power === 'off') flip('on');
  if (target !== moment.targetC) {
    handsOn += TARGET_MIN;
    moment = later(
      machine,
      { ...moment, targetC: target, coldSure: target === 0 && moment.coldSure !== false },
      TARGET_MIN,
    );
  }
  if (task.heat === 'hot' && Math.abs(moment.temperatureC - target) > NEAR_C) waitFor(target);
  if (task.heat === 'cold' && (moment.temperatureC > SAFE_TO_TOUCH_C || moment.coldSure === false)) {
    if (moment.temperatureC > SAFE_TO_TOUCH_C) waitFor(SAFE_TO_TOUCH_C);
    else {
      wait += READING_MIN;
      waitForC = SAFE_TO_TOUCH_C;
    }
    moment = { ...moment, coldSure: true };
  }
  if ((task.power === 'off' || forbids.power) && moment.power === 'on') {
    if (moment.temperatureC > SWITCH_OFF_BELOW_C) waitFor(SWITCH_OFF_BELOW_C);
    flip('off');
  } else if (task.power === 'on' && moment.power === 'off') flip('on');
  return {
    task,
    ...(target === now.targetC ? {} : { target }),
    ...(switched ? { switched } : {}),
    waitMinutes: wait,
    ...(waitForC === undefined ? {} : { waitForC }),
    before: now,
    cost: handsOn + WAITING_RATE * wait,
    handsOn,
    next: later(
      machine,
      task.thenC === undefined
        ? task.kind === 'work' && task.unheats
          ? { ...moment, targetC: 0, coldSure: false }
          : moment
        : { ...moment, targetC: task.thenC },
      task.minutes,
    ),
  };
}

/** Sides that are open, as far as tasks have opened and closed them. */
const sideClash = (task: Task, done: ReadonlySet<string>, tasks: readonly Task[]): boolean =>
  task.kind === 'open' &&
  task.side !== undefined &&
  tasks.some(
    (other) =>
      other.kind === 'close' &&
      other.side !== undefined &&
      other.side !== task.side &&
      !done.has(other.id) &&
      done.has(other.id.replace('close:', 'open:')),
  );

/** Whether time may pass without changing what the machine is ready for: at its target, or cold and known to be. */
const steady = ({ temperatureC, targetC, coldSure }: Moment): boolean =>
  targetC > 0 ? Math.abs(temperatureC - targetC) < 1e-6 : temperatureC <= SAFE_TO_TOUCH_C && coldSure !== false;

/**
 * A task that wants just the heat there is, and costs nothing but itself, is done at once when the machine is steady: put off
 * it could only cost more, and what comes after it finds the machine the same. Not one that would open a side
 * while another is still to be opened, which it would keep shut; nor one that any heat suits, which can fill a wait.
 */
const atOnce = (now: Moment, choices: readonly Done[], left: readonly Task[]): Done | undefined =>
  choices.find(
    ({ task, target, switched, waitMinutes }) =>
      task.soon && target === undefined && switched === undefined && waitMinutes === 0,
  ) ??
  (steady(now)
    ? choices.find(
        ({ task, target, switched, waitMinutes }) =>
          task.heat !== 'any' &&
          !(
            task.kind === 'open' &&
            left.some(({ kind, side }) => kind === 'open' && side !== undefined && side !== (task.side ?? side))
          ) &&
          target === undefined &&
          switched === undefined &&
          waitMinutes === 0,
      )
    : undefined);

/**
 * The order of tasks with the fewest bench minutes (work in full, waiting at half), each after what comes before it, with
 * heat and power changed on the way: what can be done while the machine heats or cools is done then. One side of a mirrored
 * machine is closed before another is opened. By dynamic programming over sets of tasks done and states of the machine.
 *
 * @throws RangeError when tasks wait for each other in a circle.
 */
export function schedule(
  machine: Machine,
  start: Moment,
  tasks: readonly Task[],
  offAtFirst: OffAtFirst = { loosens: [], unheats: [] },
): Schedule {
  const bit = new Map(tasks.map((task, i) => [task.id, 1n << BigInt(i)]));
  const needs = tasks.map((task) => task.after.reduce((mask, id) => mask | (bit.get(id) ?? 0n), 0n));
  const whole = (1n << BigInt(tasks.length)) - 1n;
  const kept = new Map<string, { readonly cost: number; readonly turn?: Done }>();
  let states = 0;
  let exact = true;

  /** What is forbidden with these tasks done: by parts that were off at first or came off, and are not back. */
  const forbidden = (mask: bigint): Forbids => {
    // How often a part came off less how often it went back.
    const loose = new Map(offAtFirst.loosens.map((id) => [id, 1]));
    const heatless = new Map(offAtFirst.unheats.map((id) => [id, 1]));
    const move = (of: Map<string, number>, id: string, by: number): void => void of.set(id, (of.get(id) ?? 0) + by);
    let wet = offAtFirst.wet ? 1 : 0;
    tasks.forEach(({ kind, part, loosens, unheats, serves, wets, dries }, i) => {
      if (!(mask & (1n << BigInt(i)))) return;
      if (wets) wet++;
      if (dries) wet = 0;
      if (serves !== undefined) move(heatless, serves, -1);
      if (part === undefined) return;
      const by = kind === 'close' ? -1 : 1;
      if (loosens) move(loose, part, by);
      if (unheats) move(heatless, part, by);
    });
    return {
      power: wet > 0 || [...loose.values()].some((n) => n > 0),
      heat: [...heatless.values()].some((n) => n > 0),
    };
  };
  const guarded =
    tasks.some(({ loosens, unheats, wets }) => loosens || unheats || wets) ||
    offAtFirst.loosens.length + offAtFirst.unheats.length > 0 ||
    offAtFirst.wet === true;
  const FREE: Forbids = { power: false, heat: false };

  const choices = (mask: bigint, now: Moment): readonly Done[] => {
    const forbids = guarded ? forbidden(mask) : FREE;
    const left = tasks.filter((_, i) => !(mask & (1n << BigInt(i))));
    const done = new Set(tasks.filter((_, i) => mask & (1n << BigInt(i))).map((task) => task.id));
    const targets = [
      ...new Set([now.targetC, 0, ...left.filter(({ heat }) => heat === 'hot').map(({ hotC }) => Math.round(hotC))]),
    ];
    const free = left.filter((task) => ((needs[tasks.indexOf(task)] ?? 0n) & ~mask) === 0n);
    const apart = free.filter((task) => !sideClash(task, done, tasks));
    // Where a job needs both sides at once the rule cannot be kept.
    const able = apart.length > 0 ? apart : free;
    return able.flatMap((task) =>
      targets.flatMap((target) =>
        target !== now.targetC && briefs.has(target) && !(task.brief && task.hotC === target)
          ? []
          : (doing(machine, now, task, target, forbids) ?? []),
      ),
    );
  };
  /** Targets that are allowed for minutes only. */
  const briefs = new Set(tasks.flatMap(({ brief, hotC }) => (brief ? [hotC] : [])));

  const best = (mask: bigint, now: Moment): { readonly cost: number; readonly turn?: Done } => {
    if (mask === whole) return { cost: 0 };
    const key = `${mask}|${Math.round(now.temperatureC / GRAIN_C)}|${now.targetC}|${now.power}|${now.coldSure !== false}`;
    const known = kept.get(key);
    if (known) return known;
    const all = choices(mask, now);
    if (all.length === 0) return { cost: Infinity };
    states++;
    const free = atOnce(
      now,
      all,
      tasks.filter((_, i) => !(mask & (1n << BigInt(i)))),
    );
    let list = free ? [free] : all;
    if (states > MOST_STATES) {
      exact = false;
      // What fits the machine as it stands, first; then in the order given.
      list = [all.reduce((a, b) => (b.cost - b.task.minutes < a.cost - a.task.minutes - 1e-9 ? b : a))];
    }
    let found: { cost: number; turn?: Done } = { cost: Infinity };
    for (const turn of list) {
      if (turn.cost >= found.cost) continue;
      const cost = turn.cost + best(mask | (bit.get(turn.task.id) ?? 0n), turn.next).cost;
      if (cost < found.cost - 1e-9) found = { cost, turn };
    }
    kept.set(key, found);
    return found;
  };

  const turns: Done[] = [];
  let mask = 0n;
  let now = start;
  while (mask !== whole) {
    // Kept choices stand for temperatures nearby: the turn is worked out again for this one.
    const { turn } = best(mask, now);
    const again = turn && doing(machine, now, turn.task, turn.target ?? now.targetC, guarded ? forbidden(mask) : FREE);
    if (!again) throw new RangeError('Some steps wait for each other in a circle.');
    turns.push(again);
    mask |= bit.get(again.task.id) ?? 0n;
    now = again.next;
  }
  return {
    turns,
    handsOnMinutes: turns.reduce((sum, turn) => sum + turn.handsOn, 0),
    waitingMinutes: turns.reduce((sum, turn) => sum + turn.waitMinutes, 0),
    exact,
  };
}
