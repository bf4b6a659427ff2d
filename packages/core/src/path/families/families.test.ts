import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { parseMachine, parseOrder } from '../../formats/index';
import { whelk } from '../../testing/machines';
import { addLane, addStation, changeStation, freeId, moveStation, removeLane, removeStation, setParam } from '../edit';
import { allStations, STATION_KINDS, type Machine } from '../machine';
import { migrateMachine } from '../migrate';
import { laneRuns, routeOf } from '../route';
import { machineFaults } from '../validate';
import { familyName, FAMILIES, machineOfFamily } from './index';

const made = (family: string): Machine => machineOfFamily(family, 'new', 'New');
const faults = (machine: Machine): string =>
  machineFaults(machine)
    .map((fault) => `${fault.path}: ${fault.message}`)
    .join('\n');

describe('the ten families', () => {
  test.each(FAMILIES.map((family) => [family.id]))('%s is a whole machine in the published format', (id) => {
    const machine = parseMachine(JSON.parse(JSON.stringify(made(id))));
    for (const lane of laneRuns(machine)) {
      const kinds = routeOf(machine, lane.id).stops.map((stop) => stop.station.kind);
      expect(kinds[0]).toBe('spool');
      expect(kinds.slice(-2)).toEqual(['nozzle', 'job']);
    }
  });

  test('between them they have every kind of station, two heads, merging lanes and mirrored extruders', () => {
    const all = FAMILIES.map((family) => made(family.id));
    expect(new Set(all.flatMap((machine) => allStations(machine).map((station) => station.kind)))).toEqual(
      new Set(STATION_KINDS),
    );
    const nozzles = (machine: Machine): number => allStations(machine).filter(({ kind }) => kind === 'nozzle').length;
    expect(all.filter((machine) => nozzles(machine) === 2)).toHaveLength(2);
    expect(all.filter((machine) => laneRuns(machine).length === 4 && nozzles(machine) === 1)).toHaveLength(2);
    expect(all.some((machine) => allStations(machine).some(({ params }) => params?.mirrored))).toBe(true);
    const linings = new Set(all.flatMap((machine) => allStations(machine).map(({ params }) => params?.lining)));
    expect(linings).toEqual(new Set([undefined, 'to-nozzle', 'none', 'unknown']));
  });

  test('an unknown family is refused; a machine of none has a name for that', () => {
    expect(() => made('flying')).toThrow(/no family "flying"/);
    expect(familyName('other')).toBe('Another kind');
  });
});

describe('what is impossible is named', () => {
  test.each<[string, (machine: Machine) => Machine, RegExp]>([
    ['no nozzle', (m) => removeStation(m, 'nozzle'), /no station is a nozzle/],
    ['no extruder', (m) => removeStation(m, 'extruder'), /there is no extruder/],
    ['a nozzle without a heat break', (m) => removeStation(m, 'liner'), /without a heat break/],
    ['a tube without a seat', (m) => removeStation(removeStation(m, 'coupler-he'), 'sink'), /^$/],
    ['a tube that ends at a spool', (m) => moveStation(m, 'path', 3, 9), /has no seat/],
    [
      'a bore as wide as its tube',
      (m) => changeStation(m, 'tube', { params: { boreMm: 4, outerMm: 4 } }),
      /bore \(4 mm\)/,
    ],
    ['a strand too thick', (m) => changeStation(m, 'tube', { params: { boreMm: 1.5 } }), /does not fit a bore of 1.5/],
    ['a nozzle wider than the strand', (m) => changeStation(m, 'nozzle', { params: { boreMm: 2 } }), /no narrower/],
    ['a spool in the middle', (m) => moveStation(m, 'path', 0, 3), /stands in the middle/],
    ['something after the nozzle', (m) => addStation(m, 'path', 'coupler', 'Odd', 9), /comes after the nozzle/],
  ])('%s', (_name, change, message) => expect(faults(change(made('bowden-open')))).toMatch(message));

  test('a lane that merges nowhere, and two lanes of which one does not merge', () => {
    const machine = made('hub-head');
    const loose = {
      ...machine,
      runs: machine.runs.map((run) =>
        run.id === 'lane-b' ? { id: run.id, name: run.name, stations: run.stations } : run,
      ),
    };
    expect(faults(loose)).toMatch(/lane "lane-b" does not lead to a nozzle/);
  });
});

describe('changes', () => {
  test('moving there and back is no change, whatever is moved where', () => {
    const machine = made('bowden-open');
    const last = (machine.runs[0]?.stations.length ?? 1) - 1;
    fc.assert(
      fc.property(fc.integer({ min: 0, max: last }), fc.integer({ min: 0, max: last }), (from, to) => {
        expect(moveStation(moveStation(machine, 'path', from, to), 'path', to, from)).toEqual(machine);
      }),
    );
  });

  test('what is added has an id of its own and can be taken away again', () => {
    const machine = made('bowden-open');
    const more = addStation(machine, 'path', 'coupler', 'Another', 2);
    expect(allStations(more)[2]).toMatchObject({ id: 'coupler', kind: 'coupler' });
    expect(freeId(more, 'Coupler')).toBe('coupler-2');
    expect(removeStation(more, 'coupler')).toEqual(machine);
  });

  test('a fifth lane is like its neighbours and leads to the nozzle', () => {
    const more = addLane(made('hub-head'), 'Lane E', 'hub');
    expect(machineFaults(more)).toEqual([]);
    expect(routeOf(more, 'lane-e').stops.map((stop) => stop.station.kind)).toEqual(
      routeOf(more, 'lane-a').stops.map((stop) => stop.station.kind),
    );
    expect(removeLane(more, 'lane-e')).toEqual(made('hub-head'));
  });

  test('a parameter is set and taken away', () => {
    const tube = allStations(made('bowden-open')).find((station) => station.id === 'tube');
    if (!tube) throw new Error('test data');
    expect(setParam(tube, 'lengthMm', 512).params?.lengthMm).toBe(512);
    expect('lengthMm' in (setParam(tube, 'lengthMm', undefined).params ?? {})).toBe(false);
  });
});

describe('older versions of the format', () => {
  const old = (family: string) => {
    const machine = JSON.parse(JSON.stringify(whelk)) as Record<string, unknown> & { parts: Record<string, unknown>[] };
    delete machine['connectors'];
    for (const part of machine.parts)
      for (const field of ['unplug', 'parked', 'loses', 'aside', 'trial', 'severs', 'heats', 'hot', 'service', 'ways'])
        delete part[field];
    return { ...machine, version: 1, family };
  };

  test('a family in words becomes the template that it names, or "other" with the words kept', () => {
    expect(parseMachine(old('open-frame Bowden, lined hot end')).family).toBe('bowden-open');
    expect(parseMachine(old('made of driftwood'))).toMatchObject({
      family: 'other',
      version: 3,
      summary: expect.stringContaining('made of driftwood'),
    });
  });

  test('version 2 knew no plugs: they are read from its fasteners, and the hot end from its place', () => {
    const file = JSON.parse(readFileSync(join(__dirname, '../../testing/old/order-machine-2-dunlin.json'), 'utf8'));
    expect(file.machine.version).toBe(2);
    const { machine } = parseOrder(file);
    expect(machine.version).toBe(3);
    const part = (id: string) => machine.parts.find((one) => one.id === id);
    const plugged = {
      ...file.machine,
      parts: file.machine.parts.map((one: { id: string }) =>
        one.id === 'extruder-cover' ? { ...one, fasteners: [{ count: 1, what: 'plug', note: 'of the motor' }] } : one,
      ),
    };
    const cover = parseMachine(plugged);
    expect(cover.parts.find(({ id }) => id === 'extruder-cover')?.unplug).toEqual(['extruder-cover-motor']);
    expect(cover.connectors.find(({ id }) => id === 'extruder-cover-motor')?.kind).toBe('motor');
    expect(part('hot-end')).toMatchObject({ heats: true, hot: true, severs: true });
    expect(part('tube-hub')?.severs).toBe(true);
    expect(part('front-cover')?.severs).toBeUndefined();
  });

  test('what is not a machine of an older version is left as it is', () => {
    expect(migrateMachine(whelk)).toBe(whelk);
    expect(migrateMachine('nonsense')).toBe('nonsense');
    expect(() => parseMachine({ ...old('x'), version: 0 })).toThrow(/version/);
  });
});
