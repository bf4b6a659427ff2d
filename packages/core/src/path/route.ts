import type { Machine, Run, Station } from './machine';

/** A station on the route that the filament takes in this order, with where it begins and ends, mm from the spool. */
export interface Stop {
  readonly index: number;
  readonly station: Station;
  readonly run: string;
  readonly fromMm: number;
  readonly toMm: number;
}

export interface Route {
  readonly lane: string;
  readonly stops: readonly Stop[];
}

/** Length used for a station that states none: most stations are short, and a depth has a spread anyway. */
const DEFAULT_LENGTH_MM = 10;

/** Runs in which a route can begin: those that nothing merges into. */
export function laneRuns(machine: Machine): readonly Run[] {
  const targets = new Set(machine.runs.map((run) => run.into).filter((id) => id !== undefined));
  return machine.runs.filter((run) => !run.stations.some((station) => targets.has(station.id)));
}

/** Runs that several lanes lead into: what stands there is passed by the strand of each. */
export function sharedRuns(machine: Machine): ReadonlySet<string> {
  const lanes = laneRuns(machine).map(({ id }) => new Set(routeOf(machine, id).stops.map(({ run }) => run)));
  return new Set(machine.runs.flatMap(({ id }) => (lanes.filter((runs) => runs.has(id)).length > 1 ? [id] : [])));
}

/**
 * Walks from the first station of a lane to the end of the path, through every merge.
 *
 * @throws RangeError when the lane does not exist, a merge target does not exist, or runs merge in a circle.
 */
export function routeOf(machine: Machine, laneId?: string): Route {
  const lanes = laneRuns(machine);
  const first = laneId === undefined ? lanes[0] : machine.runs.find((run) => run.id === laneId);
  if (!first)
    throw new RangeError(laneId === undefined ? 'The machine has no lane.' : `The machine has no lane "${laneId}".`);
  const stops: Stop[] = [];
  const seen = new Set<string>();
  let atMm = 0;
  let run: Run | undefined = first;
  let entry = 0;
  while (run) {
    if (seen.has(run.id)) throw new RangeError(`The runs merge in a circle at "${run.id}".`);
    seen.add(run.id);
    for (const station of run.stations.slice(entry)) {
      const toMm = atMm + (station.params?.lengthMm ?? DEFAULT_LENGTH_MM);
      stops.push({ index: stops.length, station, run: run.id, fromMm: atMm, toMm });
      atMm = toMm;
    }
    const target: string | undefined = run.into;
    if (target === undefined) break;
    const next: Run | undefined = machine.runs.find((other) => other.stations.some((station) => station.id === target));
    if (!next) throw new RangeError(`Run "${run.id}" merges into "${target}", which is not a station.`);
    entry = next.stations.findIndex((station) => station.id === target);
    run = next;
  }
  return { lane: first.id, stops };
}
