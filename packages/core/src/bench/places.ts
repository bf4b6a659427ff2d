import type { Catalogue, Check, Normal } from '../catalogue/types';
import { mayBeOff, mouthFor } from './action';
import { partsToRemove } from './closure';
import type { Need } from './price';
import { lanesThrough } from './state';
import type { Machine, Station, StationParams } from '../path/machine';
import { laneRuns, sharedRuns, routeOf, type Route, type Stop } from '../path/route';
import { predicted } from './predict';
import { KeptWith } from '../quantities/keptWith';

/** A check of the catalogue at one place of this machine. */
export interface CheckAtPlace {
  /** `check@station` or `check@from>to`. */
  readonly key: string;
  readonly check: Check;
  readonly name: string;
  /** Station that carries the flag on the drawing. */
  readonly station: string;
  /** Indices of the stops that it can see. */
  readonly reach: ReadonlySet<number>;
  /** Everything, including what is not on the path. */
  readonly wholePath: boolean;
  /** Parts that must be off for it. */
  readonly parts: readonly string[];
  /** Where a depth is measured from, mm on the route. */
  readonly entryMm?: number;
  /** What a sound machine would read here, where the machine's description tells. */
  readonly normal?: Normal;
  readonly reachMm?: readonly [number, number];
  /** Lanes whose strand must be settled before it: its own where it says so, and all that run through what parts a path. */
  readonly clear?: readonly string[];
  /** It would want open what its own heat or power wants closed: kept for older findings, never offered. */
  readonly cannot?: boolean;
}

/** Not sure, and could not do it, are answers too; they move nothing. */
export const NOT_SURE = 'not-sure';

const fill = (text: string, names: Record<string, string>): string =>
  text.replace(/\{(\w+)\}/g, (whole, key: string) => names[key] ?? whole);

function applies(check: Check, station: Station): boolean {
  if (check.kinds && !check.kinds.includes(station.kind)) return false;
  if (!check.only) return true;
  const value = station.params?.[check.only.param as keyof typeof station.params] as string | number | undefined;
  if (value === undefined) return true;
  if (check.only.is && !check.only.is.includes(String(value))) return false;
  return !(check.only.atLeast !== undefined && Number(value) < check.only.atLeast);
}

/** Last stop that a cold strand comes to: the heat break, where it should just stop. */
export function coldEnd(route: Route): number {
  const at = route.stops.findLastIndex((stop) => stop.station.kind === 'heat-break');
  return at >= 0 ? at : route.stops.findIndex((stop) => stop.station.kind === 'nozzle') - 1;
}

const range = (from: number, to: number): ReadonlySet<number> =>
  new Set(Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => from + i));

/** Where a tube goes through its coupler into a lined hot end, its own end is the liner or stands on it: the stop of that liner. */
function linerUnder(route: Route, coupler: number): readonly number[] {
  const { kind, params } = route.stops[coupler]?.station ?? {};
  if (kind !== 'coupler' || params?.side !== 'hot') return [];
  const at = route.stops.findIndex((stop) => stop.index > coupler && stop.station.kind === 'heat-break');
  return at < 0 || route.stops[at]?.station.params?.lining === 'none' ? [] : [at];
}

function reachOf(check: Check, machine: Machine, route: Route, index: number): ReadonlySet<number> {
  const last = route.stops.length - 1;
  const { reachWhere } = check;
  const value = reachWhere && route.stops[index]?.station.params?.[reachWhere.param as keyof StationParams];
  switch (reachWhere?.is.includes(String(value)) ? reachWhere.reach : check.reach) {
    case 'station':
    case 'span':
      return range(index, index);
    case 'near': {
      // What is joined to it by a tube: the tube’s end that comes out of it, or both seats of the tube.
      const tube = (i: number): boolean => route.stops[i]?.station.kind === 'tube';
      const seen = [index - 1, index, index + 1].filter(
        (i) => i === index || (i >= 0 && i <= last && (tube(i) || tube(index))),
      );
      return new Set([...seen, ...seen.flatMap((i) => linerUnder(route, i))]);
    }
    case 'downstream':
      return range(index, last);
    case 'upward': {
      // From below, through the nozzle up to the heat break.
      const top = route.stops.findLastIndex((stop) => stop.station.kind === 'heat-break' && stop.index <= index);
      return range(top < 0 ? index : top, index);
    }
    case 'after':
      return range(index + 1, last);
    case 'before':
      return range(0, index - 1);
    case 'lane': {
      const lanes = new Set(laneRuns(machine).map((run) => run.id));
      return new Set(route.stops.filter((stop) => lanes.has(stop.run)).map((stop) => stop.index));
    }
    case 'path':
      return range(0, last);
  }
}

function spans(check: Check, route: Route): CheckAtPlace[] {
  const end = coldEnd(route);
  const mouths = route.stops.filter((stop) => stop.station.access?.mouth && stop.index <= end);
  const places: CheckAtPlace[] = [];
  for (const [i, from] of mouths.entries()) {
    for (const to of [...mouths.slice(i + 1), undefined]) {
      const lastIndex = to ? to.index - 1 : end;
      const toName = to ? to.station.name : 'the hot end';
      places.push({
        key: `${check.id}@${from.station.id}>${to ? to.station.id : 'end'}`,
        check,
        name: fill(check.name, { from: from.station.name, to: toName }),
        station: from.station.id,
        reach: range(from.index, lastIndex),
        wholePath: false,
        parts: [...new Set([...(from.station.access?.mouth ?? []), ...(to?.station.access?.mouth ?? [])])],
        entryMm: from.fromMm,
        reachMm: [from.fromMm, route.stops[lastIndex]?.toMm ?? from.toMm],
      });
    }
  }
  return places;
}

/** Whether a result says that something named was seen which is not as it should be: it may be real and yet not the cause. */
export function isAbnormal({ results, quantity, swap, asks }: Check, result: string): boolean {
  const index = results.findIndex(({ id }) => id === result);
  return !quantity && !swap && !asks && index >= 0 && index < results.length - 1 && !results[index]?.depth;
}

const ON_LANES = new KeptWith<Catalogue, Machine, Map<string, readonly CheckAtPlace[]>>();

/** The checks along a lane, kept with the catalogue and the machine: every event of an order and every screen asks for them. */
export function checksOnLane(
  catalogue: Catalogue,
  machine: Machine,
  lane: string | undefined,
): readonly CheckAtPlace[] {
  const byLane = ON_LANES.of(catalogue, machine, () => new Map<string, readonly CheckAtPlace[]>());
  const known = byLane.get(lane ?? '') ?? checksFor(catalogue, machine, routeOf(machine, lane));
  byLane.set(lane ?? '', known);
  return known;
}

/** Something that can be seen at a station, in the words of a look there. */
export interface ItemAt {
  readonly id: string;
  readonly key: string;
  readonly result: string;
  readonly label: string;
}

/** What can be seen at a station, over all looks straight at it; each thing once. */
export function itemsAt(
  catalogue: Catalogue,
  machine: Machine,
  lane: string | undefined,
  station: string,
): readonly ItemAt[] {
  const said = new Set<string>();
  return checksOnLane(catalogue, machine, lane)
    .filter(({ check, station: at }) => at === station && check.items === true && !check.retired)
    .flatMap(({ key, check }) =>
      check.results.slice(0, -1).flatMap(({ id, label, when }): ItemAt[] => {
        const what = when ? JSON.stringify(when) : label;
        if (said.has(what)) return [];
        said.add(what);
        return [{ id: `${key}#${id}`, key, result: id, label }];
      }),
    );
}

/** Whether a check can be done at a place: it is not retired, and nothing that must come off has to stay on. */
export const canBeDone = ({ check, cannot }: CheckAtPlace): boolean => cannot !== true && check.retired !== true;

/** Every check that this machine allows, at every place where it can be done. */
export const checksFor = (catalogue: Catalogue, machine: Machine, route: Route): readonly CheckAtPlace[] =>
  checksAt(catalogue, machine, route).map((place) => {
    const clear = lanesToClear(machine, route, place);
    return {
      ...place,
      ...(clear.length ? { clear } : {}),
      ...(mayBeOff(machine, place.parts, place.check) ? {} : { cannot: true }),
    };
  });

function lanesToClear(machine: Machine, route: Route, { check, parts }: CheckAtPlace): readonly string[] {
  const severing = partsToRemove(machine, parts, new Set()).filter(({ severs }) => severs);
  return [
    ...new Set([
      ...(check.strand === 'clear' ? [route.lane] : []),
      ...severing.flatMap(({ id }) => lanesThrough(machine, id)),
    ]),
  ];
}

/** What a check needs of the bench at its place. */
export const needOfCheck = ({ check, parts, clear }: CheckAtPlace, hotC: number): Need => ({
  heat: check.heat,
  power: check.power,
  parts,
  hotC,
  ...(clear ? { clear } : {}),
  ...(check.push === 'head' ? { push: true } : {}),
  ...(looksAtHeat(check) ? { ofHeat: true } : {}),
});

/** Whether a check can tell that heater or reading is at fault: it is how that is found, and how it is seen to be mended. */
export const looksAtHeat = ({ results }: Check): boolean => results.some(({ spoilsHeat }) => spoilsHeat);

function checksAt(catalogue: Catalogue, machine: Machine, route: Route): readonly CheckAtPlace[] {
  const severalLanes = laneRuns(machine).length > 1;
  const shared = sharedRuns(machine);
  return catalogue.checks.flatMap((check): CheckAtPlace[] => {
    if ((check.severalLanes || check.amongLanes) && !severalLanes) return [];
    if (check.at === 'span') return spans(check, route);
    const stops =
      check.at === 'once'
        ? route.stops.slice(0, 1)
        : route.stops.filter((stop) => applies(check, stop.station) && (!check.severalLanes || shared.has(stop.run)));
    return stops.map((stop) => {
      const reach = reachOf(check, machine, route, stop.index);
      const mouth = check.needs === 'mouth' ? mouthFor(route, stop.index) : undefined;
      const normal = predicted(check, machine, route, stop.index);
      const reached = [...reach].map((i) => route.stops[i] as Stop);
      return {
        key: `${check.id}@${stop.station.id}`,
        check,
        name: fill(check.name, { station: stop.station.name }),
        station: stop.station.id,
        reach,
        wholePath: check.reach === 'path',
        parts: (check.needs === 'open' ? stop.station.access?.open : mouth?.station.access?.mouth) ?? [],
        entryMm: check.reach === 'upward' ? stop.toMm : stop.fromMm,
        ...(normal ? { normal } : {}),
        reachMm: [Math.min(...reached.map((s) => s.fromMm)), Math.max(...reached.map((s) => s.toMm))] as const,
      };
    });
  });
}

/** What the hands do for a check, as a drawing can show it. */
export type Gesture = 'ask' | 'swap' | 'push' | 'pull' | 'from-below' | 'measure' | 'look';

/** From what the check says of itself: what it asks, swaps and measures, whether something is put in, and which way it reaches. */
export function gestureOf({ asks, intake, tool, swap, reach, strand, push, quantity }: Check): Gesture {
  if (asks || intake || tool === 'print-file') return 'ask';
  if (swap) return 'swap';
  if (reach === 'before') return 'pull';
  if (strand === 'clear' || push) {
    if (reach === 'upward') return 'from-below';
    if (reach !== 'station' && reach !== 'near' && reach !== 'path') return 'push';
  }
  return quantity ? 'measure' : 'look';
}
