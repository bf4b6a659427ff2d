import { AGAIN, openingFor } from '../bench/opening';
import { openAgainst, unmet, type Need } from '../bench/price';
import { schedule, type Schedule, type Turn } from '../bench/schedule';
import { heaterOff, lanesThrough, looseConnectors, removalOf, strandSettled, type Bench } from '../bench/state';
import { modeById } from '../catalogue/index';
import type { Catalogue } from '../catalogue/types';
import { leftOffOf } from '../order/leftOff';
import type { OrderState } from '../order/state';
import type { Machine, Station } from '../path/machine';
import { routeOf } from '../path/route';
import { SWITCH_OFF_BELOW_C } from '../physics/heat';
import { cautionsTold } from '../catalogue/cautions';
import { SAFETY_NOTE } from './cautions';
import { goalsOf, type Next, type Planning } from './goals';
import { laddersFor, type Ladder } from './ladder';
import { sharedRungs } from './sharedRung';
import { stepId, stepOf, type PlanStep, type StepPhase, type Writing } from './steps';

export interface Plan {
  readonly station: Station;
  readonly mode: string;
  readonly modeName: string;
  /** What was done or skipped, in that order; then what is left, in the order that takes the least time from now. */
  readonly steps: readonly PlanStep[];
  /** How many of the steps are behind. */
  readonly done: number;
  readonly ladders: readonly Ladder[];
  readonly tools: readonly string[];
  /** Of what is left. */
  readonly handsOnMinutes: number;
  readonly waitingMinutes: number;
  readonly safety: string;
  /** No rung is left that fits, for a cause that is not cleared. */
  readonly exhausted: boolean;
  /** Parts that stay off, with the recorded reason. */
  readonly leftOff: Readonly<Record<string, string>>;
  /** False when the order of what is left is good but perhaps not the quickest. */
  readonly exact: boolean;
}

/** The keys of the steps of one turn: what is done to heat and power, what is waited for, then the task. */
function keysOf({
  task,
  target,
  switched,
  waitMinutes,
  waitForC,
  before,
}: Turn): readonly (readonly [string, number])[] {
  const keys: (readonly [string, number])[] = [];
  const wait = waitMinutes > 0 ? Math.round(waitForC ?? 0) : undefined;
  if (switched === 'on') keys.push(['on', 0]);
  if (target !== undefined && target > 0) {
    // What is pulled at is cooled down to: that is a wait of its own, with its reading.
    const cools = wait !== undefined && before.temperatureC > target;
    keys.push([`heat:${target}`, cools ? 0 : waitMinutes]);
    if (cools || wait !== undefined) keys.push([`warm:${target}`, cools ? waitMinutes : 0]);
  } else if (target === 0 && wait === undefined) keys.push(['cool', 0]);
  else if (target === 0) keys.push([`cool:${wait}`, waitMinutes]);
  else if (wait !== undefined) keys.push([`${task.heat === 'hot' ? 'warm' : 'wait'}:${wait}`, waitMinutes]);
  if (switched === 'off') keys.push(['off', 0]);
  keys.push([task.id.endsWith(AGAIN) ? task.id.slice(0, -AGAIN.length) : task.id, 0]);
  return keys;
}

/** What waits by itself: a soak, a drying. Waiting for heat is counted by the schedule. */
const WAITS_ITSELF: ReadonlySet<PlanStep['kind']> = new Set(['rung', 'act', 'dry']);

const PHASES: Readonly<Partial<Record<PlanStep['kind'], true>>> = {
  heat: true,
  cool: true,
  wait: true,
  power: true,
  raise: true,
};

/** Heat and power stand under the phase of what they are for. */
function phased(steps: readonly PlanStep[]): readonly PlanStep[] {
  let phase: StepPhase = 'Close';
  return [...steps]
    .reverse()
    .map((step) => {
      if (!PHASES[step.kind]) phase = step.phase;
      return PHASES[step.kind] ? { ...step, phase } : step;
    })
    .reverse();
}

/** The machine as it cools by this order's own readings, when there are any. */
const refitted = (machine: Machine, { heat: { cooling } }: OrderState): Machine =>
  cooling ? { ...machine, heat: { ...machine.heat, coolTauS: cooling.tauS } } : machine;

/**
 * The work plan of an order: what was done, then what is left, worked out anew from the bench as it stands, so that it
 * follows when something was done in another order, skipped, took longer, or a rung brought nothing. Written from the
 * machine's access data and the catalogue's remedies; several causes share one opening.
 *
 * @throws RangeError when no cause is chosen or it is not of this machine.
 */
export function planFor(machine: Machine, catalogue: Catalogue, state: OrderState, bench: Bench): Plan {
  const { cause } = state;
  if (!cause) throw new RangeError('No cause is chosen.');
  const route = routeOf(machine, state.intake?.lane);
  const ladders = laddersFor(machine, catalogue, state, bench, route);
  const main = ladders[0] as Ladder;
  const material = state.intake?.material;
  const told = cautionsTold(catalogue, state.intake?.symptoms ?? []);
  const writing: Writing = { machine, catalogue, route, told, ...(material === undefined ? {} : { material }) };
  const history = Object.keys(state.steps);
  const behind = history.map((id) => stepOf(id, writing));

  const leftOff = leftOffOf(state);
  const { next, covers } = sharedRungs(
    catalogue,
    state,
    ladders,
    ladders.flatMap(({ cause: own, stop, cleared, next: rung }): readonly Next[] =>
      cleared || !rung ? [] : [{ cause: own, stop, rung }],
    ),
  );
  // With heater or reading at fault it is not left heating while anything else is done.
  const runsHot = bench.heatSpoiled === true && (bench.targetC ?? 0) > 0;
  const planning: Planning = { machine, catalogue, state, bench: runsHot ? { ...bench, targetC: 0 } : bench, route };
  const { turns, handsOnMinutes, waitingMinutes, exact } = scheduled(planning, next, leftOff);
  const ahead: PlanStep[] = [];
  const used = [...history];
  if (runsHot) {
    used.push(stepId('cool', used));
    ahead.push(stepOf(used.at(-1) ?? '', writing));
  }
  // A target that was set is read before anything is done at it.
  let unread = false;
  for (const turn of turns) {
    const keys = keysOf(turn);
    const at = keys.findIndex(([key]) => key === turn.task.id);
    const read = keys.some(([key]) => key.startsWith('warm:'));
    unread = (unread || keys.some(([key]) => key.startsWith('heat:'))) && !read;
    const all =
      turn.task.heat === 'hot' && unread
        ? [...keys.slice(0, at), [`warm:${turn.task.hotC}`, 0] as const, ...keys.slice(at)]
        : keys;
    if (turn.task.heat === 'hot' || turn.task.thenC !== undefined) unread = turn.task.thenC !== undefined;
    for (const [key, waitMinutes] of all) {
      const id = stepId(key, used);
      used.push(id);
      const step = stepOf(id, writing);
      const also = step.kind === 'rung' ? covers.get(`${step.station}/${step.mode}`) : undefined;
      ahead.push({
        ...step,
        waitMinutes: Math.max(step.waitMinutes, waitMinutes),
        ...(also ? { covers: also } : {}),
      });
    }
  }
  const left = phased(ahead);
  return {
    station: main.stop.station,
    mode: cause.mode,
    modeName: modeById(catalogue, cause.mode)?.name ?? cause.mode,
    steps: [...phased(behind), ...left],
    done: behind.length,
    ladders,
    tools: [...new Set(left.flatMap((step) => step.tools))],
    handsOnMinutes,
    waitingMinutes:
      waitingMinutes + left.reduce((sum, step) => sum + (WAITS_ITSELF.has(step.kind) ? step.waitMinutes : 0), 0),
    safety: SAFETY_NOTE,
    exhausted: ladders.some((ladder) => !ladder.cleared && !ladder.next),
    leftOff,
    exact,
  };
}

/** Tasks in their turns for the rungs that are next; for the first cause alone where they cannot all be done in one opening. */
function scheduled(planning: Planning, next: readonly Next[], leftOff: Readonly<Record<string, string>>): Schedule {
  const { machine, state, bench } = planning;
  const goals = goalsOf(planning, next);
  const off = new Set(
    [...bench.off].filter((id) => leftOff[id] === undefined || goals.some((goal) => goal.parts.includes(id))),
  );
  const loose = [...off].filter(
    (id) => !state.absent.includes(id) && removalOf(machine, id, state.ways[id])?.unplug?.length,
  );
  const unheats = heaterOff(machine, { ...bench, off }).map(({ id }) => id);
  const { temperatureC, targetC = 0, power, coldSure = true } = bench;
  try {
    const all = openingFor(machine, { ...bench, off }, goals, state.ways, state.pickedWays).tasks;
    const tasks = all.filter(({ kind, part = '' }) => kind !== 'close' || !state.absent.includes(part));
    return schedule(refitted(machine, state), { temperatureC, targetC, power, coldSure }, tasks, {
      loosens: loose,
      unheats,
      wet: (bench.wet?.size ?? 0) > 0,
    });
  } catch (error) {
    if (!(error instanceof RangeError) || next.length < 2) throw error;
    return scheduled(planning, next.slice(0, 1), leftOff);
  }
}

/** Whether nothing is left to be done: every cause cleared, and what is off back on or left off for a reason. */
export function workDone(state: OrderState, cleared: boolean): boolean {
  const leftOff = leftOffOf(state);
  return cleared && !state.supported && state.wet.length === 0 && state.off.every((id) => leftOff[id] !== undefined);
}

/** Whether a hold may be passed under one's own name: not with plugs loose, the heating at fault or off its mount, or solvent about when heat or power is wanted. */
export function mayOverride(step: PlanStep, bench: Bench, machine: Machine): boolean {
  const heats = step.need.heat === 'hot' || (step.sets?.targetC ?? 0) > 0;
  if (heats && bench.heatSpoiled) return false;
  if (!heats && step.need.power !== 'on' && step.sets?.power !== 'on') return true;
  return (
    looseConnectors(machine, bench).length === 0 &&
    heaterOff(machine, bench).length === 0 &&
    (bench.wet?.size ?? 0) === 0
  );
}

/** Lanes that a step would part while their strand is not known to be out or accounted for. */
export const lanesInTheWay = (step: PlanStep, bench: Bench, machine: Machine): readonly string[] =>
  step.kind === 'open' && machine.parts.some(({ id, severs }) => id === step.opens && severs)
    ? lanesThrough(machine, step.opens ?? '').filter((lane) => !strandSettled(bench, lane))
    : [];

/** Why a step must wait in the recorded state; undefined when it may begin. */
export function heldBecause(step: PlanStep, bench: Bench, machine?: Machine): string | undefined {
  const sets: Pick<Need, 'heat' | 'power'> = {
    heat: (step.sets?.targetC ?? 0) > 0 ? 'hot' : 'any',
    power: step.sets?.power ?? 'any',
  };
  const open = machine && openAgainst(sets, bench, machine);
  if (open !== undefined) return open;
  if (step.kind === 'power' && step.sets?.power === 'off' && bench.temperatureC > SWITCH_OFF_BELOW_C)
    return `must cool below ${SWITCH_OFF_BELOW_C} °C before it is switched off: recorded ${Math.round(bench.temperatureC)} °C`;
  const still = step.wants?.find((id) => !bench.off.has(id));
  if (machine && still !== undefined) {
    const name = machine.parts.find((item) => item.id === still)?.name ?? still;
    return `comes after another part: ${name} must be off first`;
  }
  if (step.opens !== undefined && machine) {
    const part = machine.parts.find((item) => item.id === step.opens);
    const removal = step.way === undefined ? part : part?.ways?.find((way) => way.id === step.way);
    const first = removal?.after?.find((id) => !bench.off.has(id));
    const name = machine.parts.find((item) => item.id === first)?.name;
    if (name !== undefined) return `comes after another part: ${name} must be off first`;
  }
  if (step.acts.some((act) => act.do === 'push' && !act.inHand) && !bench.supported)
    return 'needs the head raised and supported before anything is pushed by hand';
  if (machine && lanesInTheWay(step, bench, machine).length > 0)
    return 'parts the path, and whether filament runs through it is not known: look, and empty it first';
  return unmet(step.need, bench, machine);
}
