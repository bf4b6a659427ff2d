import type { Action, Deed, Hazard, Material, Place, Remedy, When } from '../catalogue/types';
import type { Machine, Station } from '../path/machine';
import type { Route, Stop } from '../path/route';
import { partsToRemove } from './closure';
import { benchMinutes, priceOf, serviceFor, type Need, type Price } from './price';
import { inTheWayOf, type Bench } from './state';
import { KeptWith } from '../quantities/keptWith';

/** Whether a condition holds at a station, or at some station of its kind; a parameter that is not stated keeps it open, so it holds. */
export function holds(when: When, route: Route, station: Station): boolean {
  if (when.kind === undefined) return holdsAt(when, station);
  return route.stops.some(({ station: one }) => one.kind === when.kind && holdsAt(when, one));
}

function holdsAt(when: When, { params }: Station): boolean {
  const value = params?.[when.param as keyof typeof params] as string | number | boolean | undefined;
  if (value === undefined) return true;
  if (when.is && !when.is.includes(value as string | boolean)) return false;
  if (when.atLeast !== undefined && !(Number(value) >= when.atLeast)) return false;
  return !(when.below !== undefined && !(Number(value) < when.below));
}

const allHold = (list: readonly When[] | undefined, route: Route, station: Station): boolean =>
  (list ?? []).every((when) => holds(when, route, station));

/** The actions of a remedy at a place, in their order: those whose conditions hold; without any of its own, the remedy itself. */
export function actionsOf(remedy: Remedy, route: Route, station: Station): readonly Action[] {
  const { actions } = remedy;
  if (!actions) return [{ ...remedy, id: 'do' }];
  return actions
    .filter((action) => allHold(action.when, route, station))
    .map((action) => ({ ...action, name: action.name ?? remedy.name }));
}

/** Nearest place at or ahead of a stop where a strand can be put in, that the heat and power wanted leave open. */
export function mouthFor(
  route: Route,
  index: number,
  allowed: (parts: readonly string[]) => boolean = () => true,
): Stop | undefined {
  for (let i = index; i >= 0; i--) {
    const stop = route.stops[i];
    if (stop?.station.access?.mouth && allowed(stop.station.access.mouth)) return stop;
  }
  return undefined;
}

/** Kinds of stations that come and go with the hot end. */
export const HOT_KINDS: readonly Station['kind'][] = ['heat-break', 'heat-block', 'nozzle'];

/** The parts of a route that carry its heater. */
export function hotEndOf(machine: Machine, route: Route): readonly string[] {
  const near = new Set(
    route.stops.flatMap(({ station }) => (HOT_KINDS.includes(station.kind) ? (station.access?.open ?? []) : [])),
  );
  return machine.parts.filter(({ id, heats }) => heats && near.has(id)).map(({ id }) => id);
}

/** Whether parts may be off while the machine is in a state, with all that must be off before them. */
export function mayBeOff(machine: Machine, parts: readonly string[], need: Pick<Need, 'heat' | 'power'>): boolean {
  const all = partsToRemove(machine, parts, new Set());
  const ways = Object.fromEntries(all.flatMap(({ id, way }) => (way === undefined ? [] : [[id, way]])));
  const off = new Set(all.map(({ id }) => id));
  return (
    inTheWayOf(machine, { off, ways, service: serviceFor(machine, { heat: need.heat, parts }) }, need).length === 0
  );
}

/** Parts that a place asks off, seen from a stop. Undefined when this path has no such place. */
function partsAt(
  machine: Machine,
  route: Route,
  stop: Stop,
  place: Place,
  need: Pick<Need, 'heat' | 'power'>,
): readonly string[] | undefined {
  const { stops } = route;
  switch (place) {
    case 'here':
      return stop.station.access?.open;
    case 'mouth':
      return mouthFor(route, stop.index, (parts) => mayBeOff(machine, parts, need))?.station.access?.mouth;
    case 'exit': {
      const next = stops.find(({ index, station }) => index > stop.index && station.access?.mouth);
      return next?.station.access?.mouth ?? nonEmpty(hotEndOf(machine, route));
    }
    case 'ends': {
      const near = [stop, stops[stop.index + 1], stops[stop.index - 1]];
      return near.find((candidate) => candidate?.station.kind === 'tube')?.station.access?.open;
    }
    case 'nozzle':
      return stops.find(({ index, station }) => index >= stop.index && station.kind === 'nozzle')?.station.access?.open;
    case 'hot-end':
      return nonEmpty(hotEndOf(machine, route));
    case 'ports':
      return nonEmpty(
        machine.runs.flatMap((run) =>
          run.stations.flatMap(({ kind, access }) => (kind === 'hub-port' ? (access?.open ?? []) : [])),
        ),
      );
  }
}

const nonEmpty = <T>(list: readonly T[]): readonly T[] | undefined => (list.length ? list : undefined);

/** Temperature at which a tube is pressed to the nozzle, °C (practice). */
const SEAT_C = 200;

/** The least of some limits that are said. */
const least = (...limits: readonly (number | undefined)[]): number =>
  Math.min(...limits.filter((limit): limit is number => limit !== undefined));

/** What the heated stretch of a path takes for long, and for minutes: the machine's limits, and each station's own. */
export function limitsOf(
  machine: Machine,
  route: Route,
): { readonly longC: number; readonly shortC: number; readonly minutes: number } {
  const { limitC, shortLimitC, shortMinutes = Infinity } = machine.heat;
  const stretch = route.stops
    .filter(({ station }) => HOT_KINDS.includes(station.kind))
    .map(({ station }) => station.params ?? {});
  const longC = least(limitC, ...stretch.map((params) => params.limitC));
  const shortC = least(shortLimitC ?? limitC, ...stretch.map((params) => params.shortLimitC ?? params.limitC));
  const minutes = least(shortMinutes, ...stretch.map((params) => params.shortMinutes));
  return { longC, shortC: Math.max(longC, shortC), minutes };
}

/** Whether PTFE lies on the heated stretch; a lining that is not known counts as one. */
export const ptfeHeated = (route: Route): boolean =>
  route.stops.some(
    ({ station: { kind, params } }) =>
      kind === 'heat-break' && params?.lining !== undefined && params.lining !== 'none',
  );

/** Minutes that reaching the short limit and leaving it take off its allowance (chosen). */
const ON_THE_WAY_MIN = 2;

/** The hazards that a deed brings on a path, whatever it is part of: heat, PTFE on the heated stretch, a push, solvent. */
export function hazardsOf(route: Route, { heat, push, does }: Pick<Deed, 'heat' | 'push' | 'does'>): readonly Hazard[] {
  const changes = new Set(does ?? []);
  return [
    ...(heat === 'hot' ? (['heat'] as const) : []),
    ...(heat === 'hot' && ptfeHeated(route) ? (['ptfe'] as const) : []),
    ...(push === 'head' ? (['push'] as const) : []),
    ...(changes.has('wets') || changes.has('test-piece') ? (['solvent'] as const) : []),
    ...(changes.has('dries') ? (['dry'] as const) : []),
  ];
}

/** The temperature of a hot action, °C: what the filament wants, within what the path takes for as long as it lasts. */
export function temperatureOf(
  machine: Machine,
  route: Route,
  material: Material,
  { target, minutes, does }: Pick<Action, 'target' | 'minutes' | 'does'>,
): number {
  const { longC, shortC, minutes: allowed } = limitsOf(machine, route);
  if (target === 'seat') return Math.min(SEAT_C, longC);
  if (target === 'pull') return Math.min(material.pullC, longC);
  if (target !== 'unclog') return Math.min(material.printC, longC);
  const brief = does?.includes('back-to-print') === true && minutes + ON_THE_WAY_MIN <= allowed;
  return Math.min(material.unclogC, brief ? shortC : longC);
}

/** What an action needs of heat, power and parts. Undefined when this path has not the place it asks for. */
export function needOfAction(
  machine: Machine,
  route: Route,
  stop: Stop,
  action: Action,
  material: Material,
): Need | undefined {
  const parts: string[] = [];
  for (const place of action.places ?? []) {
    const at = partsAt(machine, route, stop, place, action);
    if (!at) return undefined;
    parts.push(...at);
  }
  return {
    heat: action.heat,
    power: action.power,
    parts: [...new Set(parts)],
    hotC: action.heat === 'hot' ? Math.round(temperatureOf(machine, route, material, action)) : 0,
  };
}

/** An action at its place, with what it needs there. */
export interface PlacedAction {
  readonly action: Action;
  readonly need: Need;
}

const PLACED = new KeptWith<Machine, Remedy, Map<string, readonly PlacedAction[] | undefined>>();

/**
 * The actions of a remedy at a stop with their needs, or undefined when it cannot be done on this path: a place is missing, a
 * condition does not hold, or it would want open what its own heat or power wants closed. Kept: the tracer asks often.
 */
export function placedActions(
  machine: Machine,
  route: Route,
  stop: Stop,
  remedy: Remedy,
  material: Material,
): readonly PlacedAction[] | undefined {
  const known = PLACED.of(machine, remedy, () => new Map<string, readonly PlacedAction[] | undefined>());
  const key = `${route.lane}|${stop.index}|${material.id}|${material.printC}|${material.unclogC}|${material.pullC}`;
  if (!known.has(key)) known.set(key, place(machine, route, stop, remedy, material));
  return known.get(key);
}

function place(
  machine: Machine,
  route: Route,
  stop: Stop,
  remedy: Remedy,
  material: Material,
): readonly PlacedAction[] | undefined {
  const { station } = stop;
  if (remedy.kinds && !remedy.kinds.includes(station.kind)) return undefined;
  if (!allHold(remedy.when, route, station)) return undefined;
  const placed: PlacedAction[] = [];
  for (const action of actionsOf(remedy, route, station)) {
    const need = needOfAction(machine, route, stop, action, material);
    if (!need || !mayBeOff(machine, need.parts, need)) return undefined;
    // A part that stays on its cables is not laid into solvent, and one without a way to come off hot does not.
    const closure = partsToRemove(machine, need.parts, new Set());
    if (action.does?.includes('wets') && closure.some(({ heats, parked }) => heats && parked)) return undefined;
    if (action.does?.includes('takes-off') && !hotWayOf(machine, route)) return undefined;
    placed.push({ action, need });
  }
  return placed.length ? placed : undefined;
}

/** The hot end of a path with the way in which it comes off hot, in pliers. */
export function hotWayOf(machine: Machine, route: Route): { readonly part: string; readonly way: string } | undefined {
  for (const id of hotEndOf(machine, route)) {
    const way = machine.parts.find((part) => part.id === id)?.ways?.find(({ heat }) => heat === 'hot');
    if (way) return { part: id, way: way.id };
  }
  return undefined;
}

/** What a sequence of needs costs from a bench, one after the other. */
export function priceOfAll(
  machine: Machine,
  bench: Bench,
  needs: readonly Need[],
): Price & { readonly minutes: number } {
  let at = bench;
  let sum: Price | undefined;
  let minutes = 0;
  for (const need of needs) {
    const price = priceOf(machine, at, need);
    minutes += benchMinutes(price);
    sum = sum
      ? {
          heatingMin: sum.heatingMin + price.heatingMin,
          coolingMin: sum.coolingMin + price.coolingMin,
          openingMin: sum.openingMin + price.openingMin,
          closingMin: sum.closingMin + price.closingMin,
          powerMin: sum.powerMin + price.powerMin,
          clearMin: sum.clearMin + price.clearMin,
          raiseMin: sum.raiseMin + price.raiseMin,
          opened: [...new Set([...sum.opened, ...price.opened])],
          after: price.after,
          ...(sum.impossible || price.impossible ? { impossible: true } : {}),
        }
      : price;
    at = price.after;
  }
  return {
    ...(sum ?? {
      heatingMin: 0,
      coolingMin: 0,
      openingMin: 0,
      closingMin: 0,
      powerMin: 0,
      clearMin: 0,
      raiseMin: 0,
      opened: [],
      after: bench,
    }),
    minutes,
  };
}
