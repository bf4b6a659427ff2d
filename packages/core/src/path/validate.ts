import { allStations, type AccessPart, type Fastener, type Machine, type Run, type StationKind } from './machine';
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
  const can = removable(machine);
  machine.parts.forEach((part, p) => {
    part.after?.forEach((id, i) => {
      if (!partIds.has(id)) faults.push({ path: `/parts/${p}/after/${i}`, message: `no part has the id "${id}"` });
    });
    part.ways?.forEach((way, w) => {
      way.after?.forEach((id, i) => {
        if (!partIds.has(id))
          faults.push({ path: `/parts/${p}/ways/${w}/after/${i}`, message: `no part has the id "${id}"` });
      });
      if (part.ways?.some((other, o) => o < w && other.id === way.id))
        faults.push({ path: `/parts/${p}/ways/${w}/id`, message: `way id "${way.id}" is used twice` });
    });
    for (const [list, fasteners] of fastenerLists(part, `/parts/${p}`))
      fasteners.forEach((fastener, f) => {
        if (fastener.at && fastener.at.length !== fastener.count)
          faults.push({
            path: `${list}/${f}/at`,
            message: `${fastener.count} of them, but ${fastener.at.length} places`,
          });
      });
    if (
      !can.has(part.id) &&
      [part, ...(part.ways ?? [])].every(({ after = [] }) => after.every((id) => partIds.has(id)))
    )
      faults.push({ path: `/parts/${p}/after`, message: `"${part.id}" would have to be off before itself` });
  });
  faults.push(...connectorFaults(machine));
  machine.runs.forEach((run, r) => faults.push(...runFaults(machine, run, `/runs/${r}`)));
  if (partIds.size !== machine.parts.length) faults.push({ path: '/parts', message: 'a part id is used twice' });
  if (!allStations(machine).some((station) => station.kind === 'nozzle'))
    faults.push({ path: '/runs', message: 'no station is a nozzle' });
  for (const lane of laneRuns(machine)) {
    const path = `/runs/${machine.runs.indexOf(lane)}`;
    try {
      const route = routeOf(machine, lane.id);
      const kinds = route.stops.map((stop) => stop.station.kind);
      if (!kinds.includes('nozzle'))
        faults.push({ path, message: `lane "${lane.id}" does not lead to a nozzle; say what it merges into` });
      else if (!kinds.includes('extruder'))
        faults.push({ path, message: `nothing drives the filament of lane "${lane.id}": there is no extruder` });
    } catch (error) {
      faults.push({ path, message: (error as Error).message });
    }
  }
  if (laneRuns(machine).length === 0)
    faults.push({ path: '/runs', message: 'every run is merged into: no lane begins anywhere' });
  return faults;
}

/** Plugs that lead nowhere, and parts that would be unplugged with the power on. */
function connectorFaults(machine: Machine): readonly MachineFault[] {
  const faults: MachineFault[] = [];
  const partIds = new Set(machine.parts.map((part) => part.id));
  const known = new Set<string>();
  machine.connectors.forEach(({ id, of }, c) => {
    if (known.has(id)) faults.push({ path: `/connectors/${c}/id`, message: `connector id "${id}" is used twice` });
    known.add(id);
    if (of !== undefined && !partIds.has(of))
      faults.push({ path: `/connectors/${c}/of`, message: `no part has the id "${of}"` });
  });
  machine.parts.forEach((part, p) => {
    for (const [path, way] of [
      [`/parts/${p}`, part] as const,
      ...(part.ways ?? []).map((other, w) => [`/parts/${p}/ways/${w}`, other] as const),
    ]) {
      way.unplug?.forEach((id, i) => {
        if (!known.has(id)) faults.push({ path: `${path}/unplug/${i}`, message: `no connector has the id "${id}"` });
      });
      if (way.unplug?.length && way.power !== 'off')
        faults.push({ path: `${path}/power`, message: 'connectors are pulled with the power off only: say "off"' });
      if (way.unplug?.length && way.parked)
        faults.push({ path: `${path}/parked`, message: 'what is unplugged does not hang on its cable' });
    }
    if (part.service !== undefined && !part.heats)
      faults.push({
        path: `/parts/${p}/service`,
        message: 'only a part that carries the heater has a service position',
      });
  });
  return faults;
}

/** What a tube's far end may sit in. */
const SEATS: readonly StationKind[] = [
  'coupler',
  'hub-port',
  'hub',
  'buffer',
  'gate',
  'sensor',
  'extruder',
  'heat-sink',
  'heat-break',
];

/** What is impossible along one run. */
function runFaults(machine: Machine, run: Run, path: string): readonly MachineFault[] {
  const faults: MachineFault[] = [];
  const say = (at: string, message: string): void => void faults.push({ path: `${path}/stations/${at}`, message });
  run.stations.forEach(({ name, kind, params }, s) => {
    const next = run.stations[s + 1]?.kind;
    const merges = next === undefined && run.into !== undefined;
    if (kind === 'tube' && !merges && (next === undefined || !SEATS.includes(next)))
      say(
        `${s}`,
        `the tube "${name}" has no seat: a coupler, port, buffer, sensor, extruder or hot end must follow it`,
      );
    const bore = params?.boreMm;
    if (bore !== undefined && params?.outerMm !== undefined && bore >= params.outerMm)
      say(`${s}/params/boreMm`, `the bore (${bore} mm) is not smaller than the tube itself (${params.outerMm} mm)`);
    if (bore !== undefined && kind !== 'nozzle' && bore < machine.strandMm)
      say(`${s}/params/boreMm`, `a strand of ${machine.strandMm} mm does not fit a bore of ${bore} mm`);
    if (bore !== undefined && kind === 'nozzle' && bore >= machine.strandMm)
      say(`${s}/params/boreMm`, `a nozzle of ${bore} mm is no narrower than the strand`);
  });
  const at = (kind: StationKind): number => run.stations.findIndex((station) => station.kind === kind);
  const nozzle = at('nozzle');
  if (nozzle >= 0) {
    const after = run.stations.findIndex(({ kind }, s) => s > nozzle && kind !== 'job');
    if (after >= 0)
      say(`${after}`, `"${run.stations[after]?.name}" comes after the nozzle, where only the print job may stand`);
    for (const kind of ['heat-break', 'heat-block'] as const)
      if (at(kind) < 0) faults.push({ path, message: `a nozzle without a ${kind.replace('-', ' ')}` });
  }
  run.stations.forEach(({ name, kind }, s) => {
    if (kind === 'spool' && s > 0) say(`${s}`, `the spool "${name}" stands in the middle of the path`);
  });
  return faults;
}

/** Parts that can come off by some way, each after what must be off before it. */
function removable(machine: Machine): ReadonlySet<string> {
  const can = new Set<string>();
  for (let before = -1; before !== can.size;) {
    before = can.size;
    for (const part of machine.parts)
      if ([part, ...(part.ways ?? [])].some((way) => (way.after ?? []).every((id) => can.has(id)))) can.add(part.id);
  }
  return can;
}

const fastenerLists = (part: AccessPart, path: string): readonly (readonly [string, readonly Fastener[]])[] => [
  [`${path}/fasteners`, part.fasteners ?? []],
  ...(part.ways ?? []).map((way, w) => [`${path}/ways/${w}/fasteners`, way.fasteners ?? []] as const),
];
