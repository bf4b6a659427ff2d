import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { dunlin, whelk } from '../testing/machines';
import { setParam } from './edit';
import { routeOf } from './route';
import { needleFor, rodFor, withSizes } from './toolSizes';

// Common practice, no source: a 0.3 mm needle for a bore of 0.4 mm, a 1.5 mm rod for one of 2 mm.
test('needle and rod follow the bore in the measure of the trade', () => {
  expect([0.4, 0.6, 0.8, 1].map(needleFor)).toEqual([0.3, 0.4, 0.6, 0.7]);
  expect([0.35, 0.3, 0.25].map(needleFor)).toEqual([0.3, undefined, undefined]);
  expect([2, 1.9, 3.2, 1].map(rodFor)).toEqual([1.5, 1.5, 2.5, undefined]);
});

test('there is room round every needle and rod', () => {
  for (let bore = 0.35; bore < 1.5; bore += 0.05) expect(needleFor(bore) ?? 0).toBeLessThanOrEqual(bore - 0.05 + 1e-9);
  for (let bore = 1.3; bore < 4; bore += 0.1) expect(rodFor(bore) ?? 0).toBeLessThan(bore - 0.15);
});

test('the words of a remedy have the sizes of this machine', () => {
  const bit = withSizes('{bit}', routeOf(dunlin));
  expect(bit).toBe('3 to 3.5 mm drill bit');
  const wide = {
    ...whelk,
    runs: whelk.runs.map((run) => ({
      ...run,
      stations: run.stations.map((station) =>
        station.kind === 'nozzle'
          ? setParam(station, 'boreMm', 0.8)
          : station.kind === 'tube'
            ? setParam(station, 'outerMm', 6)
            : station,
      ),
    })),
  };
  expect(withSizes('A {needle}, a {rod}, a {bit}.', routeOf(wide))).toBe(
    'A 0.6 mm needle, a 1.5 mm rod, a 5 to 5.5 mm drill bit.',
  );
});

test('no size is written out in the catalogue where the path decides it', () => {
  for (const { how, tools = [] } of [...catalogue.remedies, ...catalogue.checks])
    expect([how, ...tools].join(' ')).not.toMatch(/0\.3 mm needle|needle 0\.3|1\.5 mm rod|rod 1\.5|3\.5 mm drill/);
});
