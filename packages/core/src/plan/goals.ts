import { hotWayOf, limitsOf, temperatureOf } from '../bench/action';
import { partsToRemove } from '../bench/closure';
import type { Goal } from '../bench/opening';
import { LOOK_MIN, RAISE_MIN, serviceFor, UNLOAD_MIN } from '../bench/price';
import { inTheWayOf, lanesThrough, strandSettled, type Bench } from '../bench/state';
import { isKeeping, materialOf, modeById } from '../catalogue/index';
import type { Catalogue } from '../catalogue/types';
import { triesAt } from '../order/causes';
import type { ChosenCause, OrderState } from '../order/state';
import type { Machine } from '../path/machine';
import type { Route, Stop } from '../path/route';
import type { Rung } from './ladder';
import { actionKey, keyOf } from '../bench/stepKeys';

/** How often a key stands among what was done or skipped. */
const timesDone = (state: OrderState, key: string): number =>
  Object.keys(state.steps).filter((id) => keyOf(id) === key).length;

/** A rung that is next for its cause. */
export interface Next {
  readonly cause: ChosenCause;
  readonly stop: Stop;
  readonly rung: Rung;
}

/** The actions of a rung that are left in this try, with their keys. An action done in an earlier try is done again unless it is done once. */
function actionsLeft(state: OrderState, { cause, rung }: Next) {
  const { remedy, offer, placed } = rung;
  const tries = triesAt(state, cause).filter((item) => item.remedy === remedy.id).length;
  const left = placed
    .map(({ action, need }, i) => ({
      action,
      need,
      key: actionKey(cause.station, cause.mode, remedy.id, offer?.id, action.id, i === placed.length - 1),
    }))
    .filter(({ action, key }, i) => {
      if (i === placed.length - 1 || action.does?.includes('dries')) return true;
      // A piece is tried until one has softened: before that no part is soaked.
      if (action.does?.includes('test-piece')) return !Object.values(state.solvents).includes(true);
      const done = timesDone(state, key);
      return action.once ? done === 0 : done <= tries;
    });
  // What is wet, or will be, is dried, whatever was said of drying before; what is dry needs none.
  const wet = state.wet.length > 0 || left.some(({ action }) => action.does?.includes('wets'));
  return left.filter(({ action }, i) => wet || i === left.length - 1 || !action.does?.includes('dries'));
}

/** What every plan of an order is made from. */
export interface Planning {
  readonly machine: Machine;
  readonly catalogue: Catalogue;
  readonly state: OrderState;
  readonly bench: Bench;
  readonly route: Route;
}

/** Goals of the rungs that are next, action after action. */
function rungGoals({ machine, catalogue, state, bench, route }: Planning, next: readonly Next[]) {
  const goals: Goal[] = [];
  const mendsHeat: string[] = [];
  const needs = { clear: false, push: false };
  const { longC } = limitsOf(machine, route);
  const material = materialOf(catalogue, state.intake?.material);
  for (const one of next) {
    const { rung } = one;
    const left = actionsLeft(state, one);
    // What a swap brought already is not fetched.
    if (rung.remedy.replaces && !isKeeping(catalogue, rung.remedy.id) && timesDone(state, SPARES) === 0)
      goals.push({
        id: SPARES,
        parts: [],
        minutes: SPARES_MIN,
        heat: 'any',
        power: 'any',
        hotC: 0,
        first: true,
        soon: true,
      });
    let before: string | undefined;
    left.forEach(({ action, need, key }, i) => {
      const { heat, power, hotC, parts } = need;
      const does = new Set(action.does ?? []);
      const share = i === left.length - 1 && rung.placed.length === 1 ? rung.remedy.minutes : action.minutes;
      if (action.strand === 'clear') needs.clear = true;
      if (action.push === 'head') needs.push = true;
      const waits = [
        ...(before === undefined ? [] : [before]),
        ...(action.push === 'head' && !bench.supported ? ['raise'] : []),
      ];
      const served = [...serviceFor(machine, need)].filter((id) => !bench.service?.has(id));
      for (const part of served) {
        goals.push({
          id: `service:${part}`,
          parts,
          minutes: 1,
          heat: 'cold',
          power: 'any',
          hotC: 0,
          serves: part,
          ...(before === undefined ? {} : { after: [before] }),
        });
        waits.push(`service:${part}`);
      }
      const takesOff = does.has('takes-off') ? hotWayOf(machine, route) : undefined;
      const cuts = does.has('empties');
      goals.push({
        id: key,
        parts,
        minutes: share,
        heat,
        power,
        hotC: Math.round(hotC),
        ...(waits.length ? { after: waits } : {}),
        ...(takesOff ? { takesOff } : {}),
        ...(cuts ? { first: true, empties: true } : {}),
        ...(does.has('wets') ? { wets: true } : {}),
        ...(does.has('dries') ? { dries: true } : {}),
        ...(heat === 'hot' && hotC > longC ? { brief: true } : {}),
        ...(does.has('back-to-print')
          ? { thenC: Math.round(temperatureOf(machine, route, material, { minutes: 0, target: 'print' })) }
          : {}),
      });
      before = key;
    });
    if (before !== undefined && bench.heatSpoiled && modeById(catalogue, one.cause.mode)?.spoilsHeat)
      mendsHeat.push(before);
    if (rung.remedy.replaces)
      goals.push({
        id: `keep:${one.cause.station}`,
        parts: [],
        minutes: KEEP_MIN,
        heat: 'any',
        power: 'any',
        hotC: 0,
        soon: true,
        ...(before === undefined ? {} : { after: [before] }),
      });
  }
  return { goals: goals.map((goal) => heatedAfter(goal, mendsHeat)), needs };
}

/** What is done at heat waits until heater and reading are mended. */
const heatedAfter = (goal: Goal, mendsHeat: readonly string[]): Goal =>
  mendsHeat.length > 0 && (goal.heat === 'hot' || goal.thenC !== undefined) && !mendsHeat.includes(goal.id)
    ? { ...goal, after: [...new Set([...(goal.after ?? []), ...mendsHeat])] }
    : goal;

const SPARES = 'spares';
const SPARES_MIN = 1;
const KEEP_MIN = 0.5;
const DRY_MIN = 2;

/** Lanes whose strand must be settled: the order's own when the work wants it clear, and all that run through what parts the path. */
function lanesToSettle(
  { machine, bench, route, state }: Planning,
  goals: readonly Goal[],
  clear: boolean,
  causes: number,
): readonly string[] {
  const taken = goals.flatMap(({ takesOff }) => takesOff?.part ?? []);
  const parts = goals.flatMap((goal) => [...goal.parts]).filter((id) => !taken.includes(id));
  const off = parts.length ? partsToRemove(machine, parts, bench.off, state.pickedWays) : [];
  const severing = off.filter((part) => part.severs);
  const lanes = new Set(clear ? [route.lane] : []);
  for (const part of [...severing.map(({ id }) => id), ...taken])
    for (const lane of lanesThrough(machine, part)) lanes.add(lane);
  // An action that cuts the strand and accounts for it settles its own lane, where nothing else parts the path before it.
  const cuts = goals.some((goal) => goal.takesOff ?? goal.empties);
  if (cuts && causes === 1 && (severing.length === 0 || !taken.length)) lanes.delete(route.lane);
  return [...lanes].filter((lane) => !strandSettled(bench, lane)).sort();
}

/** How a strand comes out: at heat when it may reach the head and the head can be heated, cut when it cannot, else drawn back. */
function unloadGoal(
  { machine, catalogue, state, bench, route }: Planning,
  lanes: readonly string[],
  next: readonly Next[],
): Goal {
  const material = materialOf(catalogue, state.intake?.material);
  const gears = route.stops.findIndex(({ station }) => station.kind === 'extruder');
  const known = lanes.map((lane) => bench.strand?.[lane]);
  const loaded = known.includes('in');
  const reaches = loaded || (!known.every((is) => is === 'tube') && next.some(({ stop }) => stop.index >= gears));
  const heatable = !bench.heatSpoiled && inTheWayOf(machine, bench, { heat: 'hot', power: 'on' }).length === 0;
  const hotC = reaches && heatable ? Math.min(material.printC, limitsOf(machine, route).longC) : 0;
  const how = hotC > 0 ? `${hotC}` : loaded ? 'cut' : '';
  return {
    id: `unload:${how}@${lanes.join('+')}`,
    parts: [],
    minutes: UNLOAD_MIN,
    heat: hotC > 0 ? 'hot' : 'any',
    power: hotC > 0 ? 'on' : 'any',
    hotC,
    first: true,
  };
}

/** The goals of what is left: the strand known and out of the way, the head supported, the next rung of each cause. */
export function goalsOf(planning: Planning, next: readonly Next[]): readonly Goal[] {
  const { state, bench } = planning;
  const { goals, needs } = rungGoals(planning, next);
  const plain = { parts: [], heat: 'any', power: 'any', hotC: 0, soon: true } as const;
  const lanes = lanesToSettle(planning, goals, needs.clear, next.length);
  const unknown = lanes.filter((lane) => bench.strand?.[lane] === undefined);
  const made: Goal[] = [];
  const look = `look:${unknown.join('+')}`;
  if (unknown.length > 0) made.push({ id: look, ...plain, minutes: LOOK_MIN, first: true, ahead: true });
  if (lanes.length > 0)
    made.push({ ...unloadGoal(planning, lanes, next), ...(unknown.length > 0 ? { after: [look] } : {}) });
  const wet = [...(bench.wet ?? [])];
  // What stands on its mount wet cannot be reached by the remedy's own drying: to take it off, the machine may have to be heated.
  if (wet.length > 0 && (!goals.some(({ dries }) => dries) || wet.some((part) => !bench.off.has(part))))
    made.push({
      id: `dry:${wet.join('+')}`,
      parts: [],
      minutes: DRY_MIN,
      heat: 'cold',
      power: 'off',
      hotC: 0,
      dries: true,
      first: true,
    });
  if (needs.push && !bench.supported) made.push({ id: 'raise', ...plain, minutes: RAISE_MIN });
  if ((needs.push || bench.supported) && state.cause) made.push({ id: 'lower', ...plain, minutes: 0.5, last: true });
  for (const { station } of state.parts)
    if (timesDone(state, `keep:${station}`) === 0 && !goals.some(({ id }) => id === `keep:${station}`))
      made.push({ id: `keep:${station}`, ...plain, minutes: KEEP_MIN });
  return [...new Map([...made, ...goals].map((goal) => [goal.id, goal])).values()];
}
