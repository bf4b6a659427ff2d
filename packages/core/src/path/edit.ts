import { slugOf } from '../text/slug';
import type { Machine, Run, Station, StationKind, StationParams } from './machine';

/** Changes to a machine's description, each giving a new one. What they leave behind is judged by `machineFaults`. */

const inRun = (machine: Machine, runId: string, change: (run: Run) => Run): Machine => ({
  ...machine,
  runs: machine.runs.map((run) => (run.id === runId ? change(run) : run)),
});

/** An id that no station, part or run has yet, from a kind or a name. */
export function freeId(machine: Machine, wish: string): string {
  const taken = new Set([
    ...machine.runs.flatMap((run) => [run.id, ...run.stations.map((station) => station.id)]),
    ...machine.parts.map((part) => part.id),
  ]);
  const base = slugOf(wish, 'item');
  let id = base;
  for (let n = 2; taken.has(id); n++) id = `${base}-${n}`;
  return id;
}

/** What a new station of a kind is usually like; enough to place depths and to be worked with. */
const USUAL: Readonly<Partial<Record<StationKind, StationParams>>> = {
  spool: { lengthMm: 300 },
  guide: { lengthMm: 20, bendRad: 0.8 },
  gate: { lengthMm: 70 },
  buffer: { lengthMm: 110 },
  sensor: { lengthMm: 15, principle: 'lever' },
  tube: { lengthMm: 400, boreMm: 2, outerMm: 4, bendRad: 4, material: 'PTFE' },
  coupler: { lengthMm: 10, teeth: 'metal' },
  'hub-port': { lengthMm: 22 },
  hub: { lengthMm: 18, ports: 4 },
  cutter: { lengthMm: 14 },
  extruder: { lengthMm: 34, teeth: 'steel', arm: 'plastic' },
  'guide-tube': { lengthMm: 10, boreMm: 2 },
  'heat-sink': { lengthMm: 15, fan: 'by-temperature' },
  'heat-break': { lengthMm: 18, lining: 'unknown', boreMm: 2 },
  'heat-block': { lengthMm: 12 },
  nozzle: { lengthMm: 10, boreMm: 0.4 },
  job: { lengthMm: 0 },
};

export function addStation(machine: Machine, runId: string, kind: StationKind, name: string, at: number): Machine {
  const station: Station = { id: freeId(machine, kind), kind, name, params: USUAL[kind] ?? {}, access: {} };
  return inRun(machine, runId, (run) => ({
    ...run,
    stations: [...run.stations.slice(0, at), station, ...run.stations.slice(at)],
  }));
}

export const removeStation = (machine: Machine, id: string): Machine => ({
  ...machine,
  runs: machine.runs.map((run) => ({ ...run, stations: run.stations.filter((station) => station.id !== id) })),
});

/** Moves a station within its run, to a place counted after it was taken out. */
export function moveStation(machine: Machine, runId: string, from: number, to: number): Machine {
  return inRun(machine, runId, (run) => {
    const stations = [...run.stations];
    const [moved] = stations.splice(from, 1);
    if (moved) stations.splice(Math.max(0, Math.min(to, stations.length)), 0, moved);
    return { ...run, stations };
  });
}

export const changeStation = (machine: Machine, id: string, change: Partial<Omit<Station, 'id'>>): Machine => ({
  ...machine,
  runs: machine.runs.map((run) => ({
    ...run,
    stations: run.stations.map((station) => (station.id === id ? { ...station, ...change } : station)),
  })),
});

/** Sets one parameter; an empty value takes it away. */
export function setParam(
  station: Station,
  name: keyof StationParams,
  value: StationParams[keyof StationParams],
): Station {
  const { [name]: _old, ...rest } = station.params ?? {};
  return { ...station, params: value === undefined || value === '' ? rest : { ...rest, [name]: value } };
}

/** A new lane that merges where an existing one does, or into a station. */
export function addLane(machine: Machine, name: string, into: string): Machine {
  const id = freeId(machine, name);
  const like = machine.runs.find((run) => run.into === into);
  const stations = (like?.stations ?? [{ id: 'spool', kind: 'spool' as const, name: 'Spool' }]).map((station) => ({
    ...station,
    id: `${station.kind}-${id}`,
  }));
  return { ...machine, runs: [...machine.runs, { id, name, into, stations }] };
}

export const removeLane = (machine: Machine, id: string): Machine => ({
  ...machine,
  runs: machine.runs.filter((run) => run.id !== id),
});

const without = (list: readonly string[] | undefined, gone: ReadonlySet<string>): readonly string[] | undefined =>
  list?.filter((id) => !gone.has(id));

/** A machine without a part: gone from everything that named it, its connectors with it. */
export function removePart(machine: Machine, partId: string): Machine {
  const part = new Set([partId]);
  const plugs = new Set(machine.connectors.filter(({ of }) => of === partId).map(({ id }) => id));
  const freed = <T extends { readonly after?: readonly string[]; readonly unplug?: readonly string[] }>(way: T): T => ({
    ...way,
    ...(way.after ? { after: without(way.after, part) ?? [] } : {}),
    ...(way.unplug ? { unplug: without(way.unplug, plugs) ?? [] } : {}),
  });
  return {
    ...machine,
    connectors: machine.connectors.filter(({ id }) => !plugs.has(id)),
    parts: machine.parts
      .filter(({ id }) => id !== partId)
      .map((item) => ({ ...freed(item), ...(item.ways ? { ways: item.ways.map(freed) } : {}) })),
    runs: machine.runs.map((run) => ({
      ...run,
      stations: run.stations.map((station) => ({
        ...station,
        access: {
          ...(station.access?.open ? { open: without(station.access.open, part) ?? [] } : {}),
          ...(station.access?.mouth ? { mouth: without(station.access.mouth, part) ?? [] } : {}),
        },
      })),
    })),
  };
}
