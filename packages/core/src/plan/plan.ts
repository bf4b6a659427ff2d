import { unmet, type Bench } from '../bench/price';
import { openingFor, type Goal } from '../bench/opening';
import { schedule, type Schedule, type Turn } from '../bench/schedule';
import { materialOf, modeById } from '../catalogue/index';
import type { Catalogue } from '../catalogue/types';
import type { Machine, Station } from '../path/machine';
import { routeOf, type Route } from '../path/route';
import { SWITCH_OFF_BELOW_C } from '../physics/heat';
import type { OrderState } from '../order/state';
import { SAFETY_NOTE } from './cautions';
import { laddersFor, type Ladder } from './ladder';
import { keyOf, RAISE_MIN, stepId, stepOf, UNLOAD_MIN, type PlanStep, type StepPhase, type Writing } from './steps';

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

/** Parts whose closing was skipped, with the reason. */
export const leftOffOf = (state: OrderState): Readonly<Record<string, string>> =>
  Object.fromEntries(
    Object.entries(state.steps).flatMap(([id, { skipped }]) => {
      const key = keyOf(id);
      const part = key.startsWith('close:') ? key.slice('close:'.length).split('/')[0] : undefined;
      return part !== undefined && skipped !== undefined && state.off.includes(part) ? [[part, skipped]] : [];
    }),
  );

const settled = (state: OrderState, kind: string): boolean =>
  Object.keys(state.steps).some((id) => keyOf(id).split(':')[0] === kind);

/** The goals of what is left: the path emptied, the head raised, the next rung of each cause. */
function goalsOf(machine: Machine, catalogue: Catalogue, state: OrderState, ladders: readonly Ladder[], route: Route) {
  const material = materialOf(catalogue, state.intake?.material);
  const next = ladders.flatMap(({ cause, stop, cleared, next: rung }) =>
    cleared || !rung ? [] : [{ cause, stop, rung }],
  );
  const goals: Goal[] = [];
  const gears = route.stops.findIndex((candidate) => candidate.station.kind === 'extruder');
  const emptied = next.filter(({ rung }) => !rung.remedy.leavesFilament);
  if (emptied.length > 0 && !settled(state, 'unload')) {
    const hot = emptied.some(({ stop }) => stop.index >= gears);
    const hotC = hot ? Math.min(material.printC, machine.heat.limitC) : 0;
    goals.push({
      id: hot ? `unload:${hotC}` : 'unload',
      parts: [],
      minutes: UNLOAD_MIN,
      heat: hot ? 'hot' : 'any',
      power: hot ? 'on' : 'any',
      hotC,
      first: true,
    });
  }
  const raised = next.some(({ rung }) => rung.remedy.cautions?.includes('support-head')) && !settled(state, 'raise');
  if (raised) goals.push({ id: 'raise', parts: [], minutes: RAISE_MIN, heat: 'any', power: 'any', hotC: 0 });
  for (const { cause, rung } of next) {
    const { heat, power, hotC, parts } = rung.need;
    const byHand = rung.remedy.cautions?.includes('support-head');
    goals.push({
      id: `rung:${cause.station}:${cause.mode}:${rung.remedy.id}${rung.offer ? `/${rung.offer.id}` : ''}`,
      parts,
      minutes: rung.remedy.minutes,
      heat,
      power,
      hotC: Math.round(hotC),
      ...(byHand && raised ? { after: ['raise'] } : {}),
    });
  }
  return goals;
}

/** The keys of the steps of one turn: what is done to heat and power, what is waited for, then the task. */
function keysOf({ task, target, switched, waitMinutes, waitForC }: Turn): readonly (readonly [string, number])[] {
  const keys: (readonly [string, number])[] = [];
  const wait = waitMinutes > 0 ? Math.round(waitForC ?? 0) : undefined;
  if (switched === 'on') keys.push(['on', 0]);
  if (target !== undefined && target > 0) keys.push([`heat:${target}`, waitMinutes]);
  else if (target === 0 && wait === undefined) keys.push(['cool', 0]);
  else if (target === 0) keys.push([`cool:${wait}`, waitMinutes]);
  else if (wait !== undefined) keys.push([`wait:${wait}`, waitMinutes]);
  if (switched === 'off') keys.push(['off', 0]);
  keys.push([task.id, 0]);
  return keys;
}

const PHASES: Readonly<Partial<Record<PlanStep['kind'], true>>> = { heat: true, cool: true, wait: true, power: true };

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
  const writing: Writing = { machine, catalogue, route, ...(material === undefined ? {} : { material }) };
  const history = Object.keys(state.steps);
  const behind = history.map((id) => stepOf(id, writing));

  const leftOff = leftOffOf(state);
  const goals = goalsOf(machine, catalogue, state, ladders, route);
  const off = new Set(
    [...bench.off].filter((id) => leftOff[id] === undefined || goals.some((g) => g.parts.includes(id))),
  );
  const { tasks } = openingFor(machine, { off }, goals, state.ways, state.pickedWays);
  const { temperatureC, targetC = 0, power, coldSure = true } = bench;
  const start = { temperatureC, targetC, power, coldSure };
  const { turns, handsOnMinutes, waitingMinutes, exact }: Schedule = schedule(refitted(machine, state), start, tasks);
  const ahead: PlanStep[] = [];
  const used = [...history];
  for (const turn of turns)
    for (const [key, waitMinutes] of keysOf(turn)) {
      const id = stepId(key, used);
      used.push(id);
      const step = stepOf(id, writing);
      ahead.push({ ...step, waitMinutes: Math.max(step.waitMinutes, waitMinutes) });
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
    waitingMinutes: waitingMinutes + left.reduce((sum, step) => sum + (step.kind === 'rung' ? step.waitMinutes : 0), 0),
    safety: SAFETY_NOTE,
    exhausted: ladders.some((ladder) => !ladder.cleared && !ladder.next),
    leftOff,
    exact,
  };
}

/** Whether nothing is left to be done: every cause cleared, and what is off back on or left off for a reason. */
export function workDone(state: OrderState, cleared: boolean): boolean {
  const leftOff = leftOffOf(state);
  return cleared && state.off.every((id) => leftOff[id] !== undefined);
}

/** Why a step must wait in the recorded state; undefined when it may begin. */
export function heldBecause(step: PlanStep, bench: Bench, machine?: Machine): string | undefined {
  if (step.kind === 'power' && step.sets?.power === 'off' && bench.temperatureC > SWITCH_OFF_BELOW_C)
    return `must cool below ${SWITCH_OFF_BELOW_C} °C before it is switched off: recorded ${Math.round(bench.temperatureC)} °C`;
  if (step.opens !== undefined && machine) {
    const part = machine.parts.find((item) => item.id === step.opens);
    const removal = step.way === undefined ? part : part?.ways?.find((way) => way.id === step.way);
    const first = removal?.after?.find((id) => !bench.off.has(id));
    const name = machine.parts.find((item) => item.id === first)?.name;
    if (name !== undefined) return `comes after another part: ${name} must be off first`;
  }
  return unmet(step.need, bench);
}
