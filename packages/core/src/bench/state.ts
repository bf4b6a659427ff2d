import type { AccessPart, Connector, Machine, Removal } from '../path/machine';
import { laneRuns, routeOf } from '../path/route';

/**
 * The state of the machine on the bench: one record, changed by actions only, shared by tracer, planner, heat band and
 * record. What is not said is unknown, and unknown is never taken for safe.
 */

/** The strand of a lane: loaded into the head, in the tube only, out, or a remnant that is accounted for (cut, held, its place noted). */
export type Strand = 'in' | 'tube' | 'out' | 'remnant';

export interface Bench {
  readonly temperatureC: number;
  readonly power: 'on' | 'off';
  /** Ids of the parts that are off. */
  readonly off: ReadonlySet<string>;
  /** Where it is heating to, 0 when it is not. */
  readonly targetC?: number;
  /** False when only the clock says that it is cold. */
  readonly coldSure?: boolean;
  /** By part that is off, the way in which it came off, when it was not the usual one. */
  readonly ways?: Readonly<Record<string, string>>;
  /** Connectors that were pulled by themselves; those that came off with a part are known from it. */
  readonly pulled?: ReadonlySet<string>;
  /** By lane; a lane that is not named is unknown. */
  readonly strand?: Readonly<Record<string, Strand>>;
  /** The head stands well clear of the bed, with something firm under it. */
  readonly supported?: boolean;
  /** Parts that are wet with solvent. */
  readonly wet?: ReadonlySet<string>;
  /** Parts that this machine has not, or that need not come off: off for what is behind them, and nothing else. */
  readonly absent?: ReadonlySet<string>;
  /** Parts off their mount that are held in their service position. */
  readonly service?: ReadonlySet<string>;
  /** Parts that are on, with screws of theirs out or loose. */
  readonly loosened?: ReadonlySet<string>;
  /** Heater or reading is at fault: the hot end cannot be brought to a temperature that is known. */
  readonly heatSpoiled?: boolean;
}

/** The lift axis: its motor holds it while the power is on; without, it rests on the support, or is free to sink. */
export const liftAxis = ({ power, supported }: Pick<Bench, 'power' | 'supported'>): 'held' | 'supported' | 'free' =>
  power === 'on' ? 'held' : supported ? 'supported' : 'free';

/** Parts that carry the heater and are on without being tight: what is heated so may drop or leak. */
export const looseHeaters = (machine: Machine, { loosened }: Pick<Bench, 'loosened'>): readonly AccessPart[] =>
  loosened?.size ? machine.parts.filter(({ id, heats }) => heats && loosened.has(id)) : [];

const partMaps = new WeakMap<Machine, ReadonlyMap<string, AccessPart>>();
const partsById = (machine: Machine): ReadonlyMap<string, AccessPart> => {
  const known = partMaps.get(machine) ?? new Map(machine.parts.map((part) => [part.id, part]));
  partMaps.set(machine, known);
  return known;
};

/** How a part comes off, by the way in which it did or will. */
export const removalOf = (machine: Machine, partId: string, way?: string): Removal | undefined => {
  const part = partsById(machine).get(partId);
  return way === undefined || way === '' ? part : (part?.ways?.find(({ id }) => id === way) ?? part);
};

type Loosened = Pick<Bench, 'off' | 'ways' | 'pulled' | 'absent'>;

/** Parts that are off, leaving out those that are only not there. */
const trulyOff = ({ off, absent }: Pick<Bench, 'off' | 'absent'>): readonly string[] =>
  [...off].filter((id) => !absent?.has(id));

/** Connectors that are out of their sockets. */
export function looseConnectors(machine: Machine, bench: Loosened): readonly Connector[] {
  const loose = new Set(bench.pulled ?? []);
  for (const id of trulyOff(bench))
    for (const plug of removalOf(machine, id, bench.ways?.[id])?.unplug ?? []) loose.add(plug);
  return machine.connectors.filter(({ id }) => loose.has(id));
}

/** Parts without which nothing is heated, that are off and not in their service position. */
export const heaterOff = (machine: Machine, bench: Pick<Bench, 'off' | 'service' | 'absent'>): readonly AccessPart[] =>
  bench.off.size === 0
    ? []
    : machine.parts.filter(
        ({ id, heats }) => heats && bench.off.has(id) && !bench.absent?.has(id) && !bench.service?.has(id),
      );

/** Parts that are off and keep a need for heat or power from being met: they go back first. */
export function inTheWayOf(
  machine: Machine,
  bench: Loosened & Pick<Bench, 'service'>,
  need: { readonly heat: 'any' | 'cold' | 'hot'; readonly power: 'any' | 'off' | 'on' },
): readonly string[] {
  if (bench.off.size === 0 || (need.heat !== 'hot' && need.power !== 'on')) return [];
  const loose = trulyOff(bench).filter((id) => removalOf(machine, id, bench.ways?.[id])?.unplug?.length);
  const cold = need.heat === 'hot' ? heaterOff(machine, bench).map(({ id }) => id) : [];
  return [...new Set([...loose, ...cold])];
}

/** Lanes whose strand runs through what a part holds: those with a station that the part opens. */
export function lanesThrough(machine: Machine, partId: string): readonly string[] {
  return laneRuns(machine).flatMap((lane) =>
    routeOf(machine, lane.id).stops.some(({ station: { access } }) =>
      [...(access?.open ?? []), ...(access?.mouth ?? [])].includes(partId),
    )
      ? [lane.id]
      : [],
  );
}

/** Whether a lane is known to hold no strand that a joint could trap. */
export const strandSettled = (bench: Pick<Bench, 'strand'>, lane: string): boolean =>
  bench.strand?.[lane] === 'out' || bench.strand?.[lane] === 'remnant';

/** One change of the state, in the order in which a step makes them. The screen records them; the checker of plans plays them. */
export type Act =
  | { readonly do: 'target'; readonly c: number }
  | { readonly do: 'reads'; readonly c: number; readonly atMost?: boolean }
  | { readonly do: 'power'; readonly to: 'on' | 'off' }
  | { readonly do: 'off' | 'on'; readonly part: string; readonly way?: string }
  | { readonly do: 'unplug' | 'plug'; readonly connectors: readonly string[] }
  | { readonly do: 'service'; readonly part: string }
  | { readonly do: 'raise' | 'lower' }
  | { readonly do: 'strand'; readonly lanes: readonly string[]; readonly to: Strand }
  | { readonly do: 'push'; readonly station: string; readonly exit: 'hot' | 'open' | 'none'; readonly inHand?: boolean }
  | { readonly do: 'wet' | 'dry'; readonly parts: readonly string[] }
  | { readonly do: 'touch'; readonly station: string; readonly with: 'bare' | 'tool' }
  | {
      readonly do: 'use';
      readonly tool: 'needle' | 'rod' | 'bit' | 'spanner';
      readonly mm: number;
      readonly station: string;
    };

/** Whether a part may be passed over as not being there: a plain cover, which carries no plug, no heat and no strand. */
export const mayBeAbsent = (machine: Machine, partId: string): boolean => {
  const part = machine.parts.find(({ id }) => id === partId);
  return part !== undefined && !part.heats && !part.severs && !part.hot && !part.unplug?.length;
};
