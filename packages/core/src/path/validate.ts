import { allStations, type Machine } from './machine';
import { laneRuns, routeOf } from './route';

export interface MachineFault {
  /** JSON path of the place at fault. */
  readonly path: string;
  readonly message: string;
}

/** What the schema cannot say: references that lead nowhere, a path without an end, parts that hold each other. */
export function machineFaults(machine: Machine): readonly MachineFault[] {
  const faults: MachineFault[] = [];
  const partIds = new Set(machine.parts.map((part) => part.id));
  const stationIds = new Set<string>();
  machine.runs.forEach((run, r) => {
    run.stations.forEach((station, s) => {
      const path = `/runs/${r}/stations/${s}`;
      if (stationIds.has(station.id))
        faults.push({ path: `${path}/id`, message: `station id "${station.id}" is used twice` });
      stationIds.add(station.id);
      for (const list of ['open', 'mouth'] as const) {
        station.access?.[list]?.forEach((id, i) => {
          if (!partIds.has(id))
            faults.push({ path: `${path}/access/${list}/${i}`, message: `no part has the id "${id}"` });
        });
      }
    });
  });
  machine.parts.forEach((part, p) => {
    part.after?.forEach((id, i) => {
      if (!partIds.has(id)) faults.push({ path: `/parts/${p}/after/${i}`, message: `no part has the id "${id}"` });
    });
    if (holdsItself(machine, part.id))
      faults.push({ path: `/parts/${p}/after`, message: `"${part.id}" would have to be off before itself` });
  });
  if (partIds.size !== machine.parts.length) faults.push({ path: '/parts', message: 'a part id is used twice' });
  if (!allStations(machine).some((station) => station.kind === 'nozzle'))
    faults.push({ path: '/runs', message: 'no station is a nozzle' });
  for (const lane of laneRuns(machine)) {
    const path = `/runs/${machine.runs.indexOf(lane)}`;
    try {
      const route = routeOf(machine, lane.id);
      if (!route.stops.some((stop) => stop.station.kind === 'nozzle'))
        faults.push({ path, message: `lane "${lane.id}" does not lead to a nozzle; say what it merges into` });
    } catch (error) {
      faults.push({ path, message: (error as Error).message });
    }
  }
  if (laneRuns(machine).length === 0)
    faults.push({ path: '/runs', message: 'every run is merged into: no lane begins anywhere' });
  return faults;
}

function holdsItself(machine: Machine, id: string): boolean {
  const seen = new Set<string>();
  const visit = (at: string): boolean =>
    (machine.parts.find((part) => part.id === at)?.after ?? []).some((next) => {
      if (next === id) return true;
      if (seen.has(next)) return false;
      seen.add(next);
      return visit(next);
    });
  return visit(id);
}
