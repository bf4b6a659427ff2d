import { deliveredCatalogue as catalogue, materialOf, remedyById } from '../catalogue/index';
import type { Remedy } from '../catalogue/types';
import { setParam } from '../path/edit';
import { machineOfFamily } from '../path/families';
import type { Machine, StationParams } from '../path/machine';
import { routeOf } from '../path/route';
import { dunlin, whelk } from '../testing/machines';
import { actionsOf, holds, limitsOf, mouthFor, placedActions, priceOfAll, ptfeHeated, temperatureOf } from './action';
import { heaterOff, inTheWayOf, lanesThrough, looseConnectors, mayBeAbsent, type Bench } from './state';

const bolted = machineOfFamily('feeder-enclosed', 'bolted', 'Bolted');
const pla = materialOf(catalogue, 'PLA');
const remedy = (id: string): Remedy => {
  const found = remedyById(catalogue, id);
  if (!found) throw new Error(`no remedy ${id}`);
  return found;
};
const stopOf = (machine: Machine, station: string) => {
  const route = routeOf(machine);
  const stop = route.stops.find((one) => one.station.id === station);
  if (!stop) throw new Error(`no station ${station}`);
  return { route, stop };
};
const placed = (machine: Machine, station: string, id: string, material = pla) => {
  const { route, stop } = stopOf(machine, station);
  return placedActions(machine, route, stop, remedy(id), material);
};
const withParam = (machine: Machine, kind: string, name: keyof StationParams, value: string | number): Machine => ({
  ...machine,
  runs: machine.runs.map((run) => ({
    ...run,
    stations: run.stations.map((one) => (one.kind === kind ? setParam(one, name, value) : one)),
  })),
});
const cold: Bench = { temperatureC: 22, power: 'off', off: new Set() };

describe('which actions there are on a path', () => {
  test('a remedy exists only where its conditions hold; what is not stated keeps it open', () => {
    expect(placed(whelk, 'nozzle', 'renew-nozzle')).toBeDefined();
    expect(placed(dunlin, 'nozzle', 'renew-nozzle')).toBeUndefined();
    expect(placed(dunlin, 'nozzle', 'renew-nozzle-quick')).toBeDefined();
    expect(placed(bolted, 'nozzle', 'renew-nozzle-one-piece')).toBeDefined();
    const { route, stop } = stopOf(whelk, 'nozzle');
    expect(holds({ param: 'nozzleKind', is: ['bolted'] }, route, stop.station)).toBe(false);
    expect(holds({ param: 'ratio', is: ['x'] }, route, stop.station)).toBe(true);
    expect(holds({ kind: 'cutter', param: 'ageMonths', atLeast: 1 }, route, stop.station)).toBe(false);
  });

  test('the coupler at the hot end is seated at heat, the one at the extruder is not', () => {
    expect(placed(whelk, 'coupler-he', 'renew-coupler-hot')?.map(({ need }) => need.heat)).toEqual(['cold', 'hot']);
    expect(placed(whelk, 'coupler-he', 'renew-coupler')).toBeUndefined();
    expect(placed(whelk, 'coupler-ex', 'renew-coupler')?.map(({ need }) => need.heat)).toEqual(['cold']);
    // A whole tube: both ends, and the end at the nozzle at heat.
    const tube = placed(whelk, 'tube', 'renew-tube') ?? [];
    expect(tube[0]?.need.parts).toEqual(['tube-ex', 'tube-he']);
    expect(tube.map(({ action }) => action.id)).toContain('seat-hot');
    const { route, stop } = stopOf(dunlin, 'tube-a');
    expect(actionsOf(remedy('renew-tube'), route, stop.station).map(({ id }) => id)).not.toContain('seat-hot');
  });

  test('what would be open at heat with its plugs pulled does not exist; in a service position it does', () => {
    // The rod goes in at a mouth that leaves the hot end where it is.
    const rod = placed(bolted, 'break', 'rod');
    expect(rod?.[0]?.need.parts.some((id) => id.startsWith('hot-end'))).toBe(false);
    const belt = machineOfFamily('direct-belt', 'belt', 'Belt');
    expect(placed(belt, 'liner', 'heat-and-pull')?.at(-1)?.need.parts).toContain('hot-end');
    const nowhere: Machine = {
      ...belt,
      parts: belt.parts.map(({ service: _named, ...part }) => part),
    };
    expect(placed(nowhere, 'liner', 'heat-and-pull')?.at(-1)?.need.parts ?? []).not.toContain('hot-end');
  });

  test('a part on its cables is not laid into solvent', () => {
    expect(placed(bolted, 'break', 'solvent-soak', materialOf(catalogue, 'ABS'))).toBeDefined();
    const hanging = machineOfFamily('direct-converted', 'converted', 'Converted');
    expect(placed(hanging, 'liner', 'solvent-soak', materialOf(catalogue, 'ABS'))).toBeUndefined();
  });

  test('a mouth is the nearest one that is allowed', () => {
    const { route, stop } = stopOf(dunlin, 'extruder');
    expect(mouthFor(route, stop.index)?.station.id).toBe('extruder');
    expect(mouthFor(route, stop.index, (parts) => !parts.includes('sensor-cover'))?.station.id).toBe('sensor');
  });
});

describe('temperatures', () => {
  const unclog = { target: 'unclog', minutes: 5, does: ['back-to-print'] } as const;
  test('the least of all limits on the stretch holds; above the long one only for minutes, and back at once', () => {
    const route = routeOf(whelk);
    expect(limitsOf(whelk, route)).toEqual({ longC: 235, shortC: 240, minutes: 10 });
    expect(temperatureOf(whelk, route, pla, unclog)).toBe(240);
    expect(temperatureOf(whelk, route, pla, { ...unclog, does: [] })).toBe(235);
    expect(temperatureOf(whelk, route, pla, { ...unclog, minutes: 9 })).toBe(235);
    const low = withParam(whelk, 'heat-break', 'limitC', 200);
    expect(limitsOf(low, routeOf(low)).longC).toBe(200);
  });

  test('the pull is at the temperature of this filament; nylon’s 150 °C is for nylon', () => {
    const at = (id: string): number =>
      temperatureOf(dunlin, routeOf(dunlin), materialOf(catalogue, id), { target: 'pull', minutes: 6 });
    expect([at('PLA'), at('PA')]).toEqual([90, 150]); // nylon about 150 °C: common practice, no source
    expect(at('PETG')).toBeLessThan(150);
  });

  test('a lining that is not known counts as PTFE', () => {
    expect(ptfeHeated(routeOf(whelk))).toBe(true);
    expect(ptfeHeated(routeOf(dunlin))).toBe(false);
    expect(ptfeHeated(routeOf(machineOfFamily('direct-converted', 'c', 'C')))).toBe(true);
  });
});

describe('what the open machine forbids', () => {
  const off = (...ids: string[]): Bench => ({ ...cold, off: new Set(ids) });
  test('plugs come off with their part, and by themselves', () => {
    const names = (bench: Bench): readonly string[] => looseConnectors(bolted, bench).map(({ kind }) => kind);
    expect(names(off('front-cover'))).toEqual([]);
    expect(names(off('front-cover', 'hot-end'))).toEqual(['heater', 'thermistor', 'hot-end-fan']);
    expect(names({ ...cold, pulled: new Set(['motor']) })).toEqual(['motor']);
    expect(names({ ...off('hot-end'), absent: new Set(['hot-end']) })).toEqual([]);
  });

  test('heat wants the hot end on its mount or in its service position; power wants every plug', () => {
    expect(inTheWayOf(dunlin, off('hot-end'), { heat: 'hot', power: 'on' })).toEqual(['hot-end']);
    expect(inTheWayOf(dunlin, off('hot-end'), { heat: 'any', power: 'on' })).toEqual([]);
    expect(inTheWayOf(dunlin, off('extruder-cover'), { heat: 'any', power: 'on' })).toEqual(['extruder-cover']);
    expect(inTheWayOf(dunlin, off('extruder-cover'), { heat: 'cold', power: 'off' })).toEqual([]);
    expect(heaterOff(whelk, { ...off('hot-end'), service: new Set(['hot-end']) })).toEqual([]);
  });

  test('what goes back first is in the price, and stays on for what follows', () => {
    const need = { heat: 'hot', power: 'on', parts: [], hotC: 208 } as const;
    const price = priceOfAll(bolted, off('front-cover', 'hot-end'), [need, need]);
    const part = bolted.parts.find(({ id }) => id === 'hot-end');
    expect(price.after.off.has('hot-end')).toBe(false);
    expect(price.openingMin).toBe(part?.minutesOn);
  });

  test('a hub parts every lane that runs through it, a cover none that it does not open', () => {
    expect(lanesThrough(dunlin, 'hub-off')).toEqual(['lane-a', 'lane-b', 'lane-c', 'lane-d']);
    expect(lanesThrough(dunlin, 'no-such-part')).toEqual([]);
    expect(mayBeAbsent(dunlin, 'front-cover')).toBe(true);
    for (const id of ['hot-end', 'extruder-cover', 'tube-hub', 'sock', 'no-such-part'])
      expect(mayBeAbsent(dunlin, id)).toBe(false);
  });
});
