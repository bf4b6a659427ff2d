import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { setParam } from '../path/edit';
import type { Machine, StationParams } from '../path/machine';
import { routeOf } from '../path/route';
import { dunlin, whelk } from '../testing/machines';
import { withRules } from './rules';

const changed = (kind: string, name: keyof StationParams, value: string): Machine => ({
  ...whelk,
  runs: whelk.runs.map((run) => ({
    ...run,
    stations: run.stations.map((station) => (station.kind === kind ? setParam(station, name, value) : station)),
  })),
});

test('a nozzle is tightened by the machine’s own kind; of an unknown one both schools are said', () => {
  expect(withRules('{nozzle-rule}', routeOf(whelk))).toMatch(/^Two-piece: .*hot against it/);
  expect(withRules('{nozzle-rule}', routeOf(dunlin))).toMatch(/nothing is tightened/);
  const none = withRules('{nozzle-rule}', routeOf(changed('nozzle', 'nozzleKind', '')));
  expect(none).toMatch(/hot against the heat break; one-piece ones cold/);
});

test('the spring screw follows this machine’s rule, and the coupler’s travel is turns times pitch', () => {
  expect(withRules('{spring-rule}', routeOf(changed('extruder', 'springRule', 'threads')))).toMatch(/three to four/);
  expect(withRules('{spring-rule}', routeOf(whelk))).toMatch(/count the turns/);
  expect(withRules('{coupler-rule}', routeOf(whelk))).toContain('0.75 mm');
});

test('no word in braces is left in any remedy once it is filled', () => {
  const known = /\{(temp|solvent|station|dry|service)\}/g;
  const texts = [
    ...catalogue.remedies.flatMap(({ how, actions = [] }) => [how, ...actions.map((action) => action.how)]),
    ...catalogue.standing.map(({ how }) => how),
  ];
  for (const how of texts) expect(withRules(how, routeOf(whelk)).replace(known, '')).not.toMatch(/[{}]/);
});
