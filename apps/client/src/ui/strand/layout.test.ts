import { routeOf, type Machine, type StationSuspicion } from '@zealous/core';
import { readFileSync } from 'fs';
import { join } from 'path';
import { layoutStrand, layoutStrip, leastHeight, swellOf } from './layout';

const dunlin = JSON.parse(readFileSync(join(__dirname, '../../../../../demo/machines/dunlin.json'), 'utf8')) as Machine;
const route = routeOf(dunlin, 'lane-a');

const stations = (
  suspected: Readonly<Record<string, number>>,
  cleared: readonly string[] = [],
): readonly StationSuspicion[] =>
  route.stops.map(({ station }) => ({
    station: station.id,
    name: station.name,
    suspicion: suspected[station.id] ?? 0,
    prior: 0.1,
    anywhere: 0,
    ...(cleared.includes(station.id) ? { clearedBy: 'pushed through' } : {}),
  }));
const layout = (list: readonly StationSuspicion[], fit?: number) =>
  layoutStrand(
    route,
    list,
    list.map((item) => item.suspicion),
    fit === undefined ? {} : { fit },
  );

test('the strand swells with suspicion and is thinnest where it is cleared', () => {
  const { rows } = layout(stations({ hub: 0.7, sensor: 0.2 }, ['tube-a']));
  const swell = (id: string): number => rows.find((row) => row.id === id)?.swell ?? 0;
  expect(swell('hub')).toBeGreaterThan(swell('sensor'));
  expect(swell('sensor')).toBeGreaterThan(swell('cutter'));
  expect(swell('cutter')).toBeGreaterThan(swell('tube-a'));
  expect(swellOf(1, false)).toBeGreaterThan(4 * swellOf(0, false));
});

test('rows follow one another without gap or overlap', () => {
  const { rows, height } = layout(stations({ hub: 0.9 }));
  rows.slice(1).forEach((row, i) => expect(row.top).toBeCloseTo((rows[i]?.top ?? 0) + (rows[i]?.height ?? 0), 6));
  expect(height).toBeGreaterThan((rows.at(-1)?.top ?? 0) + (rows.at(-1)?.height ?? 0) - 0.001);
});

test('on a small screen sixteen stations fit, and quiet neighbours share a line that names the first and the last', () => {
  const { height, labels, rows } = layout(
    stations({ hub: 0.6, sensor: 0.3 }, ['gate-a', 'buffer-a', 'coupler-a', 'tube-a']),
    300,
  );
  expect(rows).toHaveLength(16);
  expect(height).toBeLessThanOrEqual(301);
  expect(labels.some((label) => label.text === 'Feeder gate A to long tube A' && label.rows.length === 4)).toBe(true);
  // A cleared station and one that nobody has looked at never share a line.
  for (const label of labels) expect(new Set(label.rows.map((row) => row.clearedBy !== undefined)).size).toBe(1);
});

test('on its side the path fills the length, and what is suspected or flagged takes the room', () => {
  const list = stations({ hub: 0.6 }, ['gate-a']);
  const shares = list.map((item) => item.suspicion);
  const plain = layoutStrip(route, list, shares, 358);
  const flagged = layoutStrip(route, list, shares, 358, (id) => id === 'cutter');
  const length = (rows: typeof plain, id: string): number => rows.find((row) => row.id === id)?.height ?? 0;
  for (const rows of [plain, flagged]) {
    expect(rows.reduce((sum, row) => sum + row.height, 0)).toBeCloseTo(358, 6);
    expect(Math.min(...rows.map((row) => row.height))).toBeGreaterThan(8.9);
    rows.slice(1).forEach((row, i) => expect(row.top).toBeCloseTo((rows[i]?.top ?? 0) + (rows[i]?.height ?? 0), 6));
  }
  expect(length(plain, 'hub')).toBeGreaterThan(3 * length(plain, 'gate-a'));
  expect(length(flagged, 'cutter')).toBeGreaterThan(length(plain, 'cutter'));
});

test('the height that the whole path needs grows with what is suspected', () => {
  expect(leastHeight(route, stations({}))).toBe(12 + 16 * 12);
  expect(leastHeight(route, stations({ hub: 0.6, sensor: 0.2 }))).toBe(12 + 14 * 12 + 2 * 24);
});
