import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { causesOf } from '../observation/causes';
import { machineOfFamily } from '../path/families';
import { mouthFor } from './action';
import type { Machine, Station } from '../path/machine';
import { laneRuns, routeOf } from '../path/route';
import { dunlin, whelk } from '../testing/machines';
import { checksFor, coldEnd, type CheckAtPlace } from './places';

const places = (machine: Machine, lane?: string): ReadonlyMap<string, CheckAtPlace> =>
  new Map(checksFor(catalogue, machine, routeOf(machine, lane)).map((place) => [place.key, place]));
const reached = (machine: Machine, key: string, lane?: string): readonly string[] => {
  const route = routeOf(machine, lane);
  return [...(places(machine, lane).get(key)?.reach ?? [])]
    .sort((a, b) => a - b)
    .map((i) => route.stops[i]?.station.id ?? '');
};
const change = (machine: Machine, id: string, with_: (station: Station) => Station): Machine => ({
  ...machine,
  runs: machine.runs.map((run) => ({
    ...run,
    stations: run.stations.map((station) => (station.id === id ? with_(station) : station)),
  })),
});

describe('the route', () => {
  test('goes from a lane through the merge to the end, lengths adding up', () => {
    const { stops } = routeOf(dunlin, 'lane-b');
    expect(stops.map((stop) => stop.station.id).slice(0, 8)).toEqual([
      'spool-b',
      'gate-b',
      'buffer-b',
      'coupler-b',
      'tube-b',
      'port-b',
      'hub',
      'sensor',
    ]);
    stops.slice(1).forEach((stop, i) => expect(stop.fromMm).toBe(stops[i]?.toMm));
    expect(stops.find((stop) => stop.station.id === 'hub')?.fromMm).toBe(250 + 70 + 110 + 10 + 680 + 22);
  });

  test('lanes are the runs that nothing merges into', () => {
    expect(laneRuns(dunlin).map((run) => run.id)).toEqual(['lane-a', 'lane-b', 'lane-c', 'lane-d']);
    expect(laneRuns(whelk).map((run) => run.id)).toEqual(['main']);
  });

  test('runs that merge in a circle, or into nothing, are named', () => {
    const circle = {
      ...dunlin,
      runs: dunlin.runs.map((run) => (run.id === 'head' ? { ...run, into: 'gate-a' } : run)),
    };
    expect(() => routeOf(circle, 'lane-a')).toThrow(/circle/);
    const nowhere = { ...dunlin, runs: dunlin.runs.map((run) => ({ ...run, into: run.into && 'attic' })) };
    expect(() => routeOf(nowhere, 'lane-a')).toThrow(/"attic", which is not a station/);
  });
});

describe('reach is computed from the path', () => {
  test('a strand pushed in at A and felt at B sees what lies between', () => {
    expect(reached(dunlin, 'push-strand@tube-a>port-a')).toEqual(['tube-a']);
    expect(reached(dunlin, 'push-strand@gate-a>port-a')).toEqual(['gate-a', 'buffer-a', 'coupler-a', 'tube-a']);
    expect(reached(whelk, 'push-strand@tube>end')).toEqual(['tube', 'coupler-he', 'sink', 'liner']);
  });

  test('a strand pushed in cold goes no further than the heat break', () => {
    for (const machine of [whelk, dunlin]) {
      const route = routeOf(machine);
      expect(route.stops[coldEnd(route)]?.station.kind).toBe('heat-break');
      for (const [key, place] of places(machine))
        if (key.startsWith('push-strand')) expect(Math.max(...place.reach)).toBeLessThanOrEqual(coldEnd(route));
    }
  });

  test('by hand at the hot end sees what comes after the gears, ahead of them sees what comes before', () => {
    expect(reached(whelk, 'feed-by-hand@extruder')).not.toContain('extruder');
    expect(reached(whelk, 'feed-by-hand@extruder')).toContain('nozzle');
    expect(reached(whelk, 'pull-strand@extruder')).toEqual(['spool']);
  });

  test('the other lane takes this lane out of play, not what they share', () => {
    const seen = reached(dunlin, 'other-lane@spool-c', 'lane-c');
    expect(seen).toContain('tube-c');
    expect(seen).not.toContain('hub');
    expect([...places(whelk).keys()].some((key) => key.startsWith('other-lane'))).toBe(false);
  });

  test('whether another lane is still in is asked, and suspected, only where lanes meet', () => {
    const causes = (machine: Machine) =>
      causesOf({ machine, catalogue, symptoms: [], before: [] }, routeOf(machine)).filter(
        ({ mode }) => mode.id === 'lane-left-in',
      );
    expect(places(dunlin).has('look-lanes@hub')).toBe(true);
    expect(causes(dunlin).map(({ stop }) => stop.station.id)).toEqual(['hub']);
    // Two heads with a buffer each: several lanes, and none of them meet.
    const apart = machineOfFamily('two-heads', 'm', 'm');
    expect([...places(apart).keys()].some((key) => key.startsWith('look-lanes'))).toBe(false);
    expect(causes(apart)).toEqual([]);
  });

  test('depths are measured from the mouth where the strand goes in', () => {
    const place = places(dunlin).get('push-strand@port-a>end');
    expect(place?.entryMm).toBe(routeOf(dunlin).stops.find((stop) => stop.station.id === 'port-a')?.fromMm);
    expect(place?.parts).toEqual(['tube-hub']);
  });
});

describe('a machine described otherwise has other checks, without new code', () => {
  test('no needle for a bore that it does not fit', () => {
    const fine = change(whelk, 'nozzle', (station) => ({ ...station, params: { ...station.params, boreMm: 0.25 } }));
    expect(places(whelk).has('needle@nozzle')).toBe(true);
    expect(places(fine).has('needle@nozzle')).toBe(false);
  });

  test('turning the liner only where there is one, or where nobody knows', () => {
    const lining = (value: 'none' | 'unknown'): Machine =>
      change(whelk, 'liner', (station) => ({ ...station, params: { ...station.params, lining: value } }));
    expect(places(lining('none')).has('turn-liner@liner')).toBe(false);
    expect(places(lining('unknown')).has('turn-liner@liner')).toBe(true);
  });

  test('a station without a mouth takes the nearest one ahead of it', () => {
    const route = routeOf(dunlin);
    const at = (id: string): number => route.stops.findIndex((stop) => stop.station.id === id);
    expect(mouthFor(route, at('hub'))?.station.id).toBe('port-a');
    expect(mouthFor(route, at('cutter'))?.station.id).toBe('sensor');
    expect(mouthFor(route, 0)).toBeUndefined();
  });

  test('keys are unique, and names have no gap left in them', () => {
    for (const machine of [whelk, dunlin]) {
      const list = checksFor(catalogue, machine, routeOf(machine));
      expect(new Set(list.map((place) => place.key)).size).toBe(list.length);
      for (const place of list) expect(place.name).not.toMatch(/[{}]/);
    }
  });
});
