import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { checksFor } from '../bench/places';
import { machineOfFamily } from '../path/families';
import type { Machine } from '../path/machine';
import { laneRuns, routeOf } from '../path/route';
import { causesOf, symptomsFor } from './causes';

const feeder = machineOfFamily('feeder-enclosed', 'feeder', 'Feeder');
const belt = machineOfFamily('direct-belt', 'belt', 'Belt');
/** The same with its first lane alone. */
const oneLane: Machine = {
  ...feeder,
  runs: feeder.runs.filter((run) => run === laneRuns(feeder)[0] || !laneRuns(feeder).includes(run)),
};
const modesOf = (machine: Machine): ReadonlySet<string> =>
  new Set(causesOf({ machine, catalogue, symptoms: [], before: [] }, routeOf(machine)).map(({ mode }) => mode.id));
const checksOf = (machine: Machine): ReadonlySet<string> =>
  new Set(checksFor(catalogue, machine, routeOf(machine)).map(({ check }) => check.id));

test('lanes are swapped, and followed, only where there are several', () => {
  expect(laneRuns(oneLane)).toHaveLength(1);
  expect([modesOf(feeder).has('tubes-swapped'), modesOf(oneLane).has('tubes-swapped')]).toEqual([true, false]);
  expect([checksOf(feeder).has('follow-tube'), checksOf(oneLane).has('follow-tube')]).toEqual([true, false]);
  // The feeder itself stays.
  expect(modesOf(oneLane).has('roller-worn')).toBe(true);
});

test('an owner is asked for what the machine can show, and for all of that', () => {
  const ids = (machine: Machine): readonly string[] => symptomsFor(catalogue, machine).map(({ id }) => id);
  expect(ids(feeder)).toContain('other-lane');
  expect(ids(oneLane)).not.toContain('other-lane');
  expect(ids(belt)).not.toContain('other-lane');
  for (const id of ['nothing', 'clicks', 'thin', 'heat-error', 'leak']) expect(ids(belt)).toContain(id);
  // In the order of the catalogue, and the same list again.
  expect(ids(belt)).toEqual(catalogue.symptoms.map(({ id }) => id).filter((id) => ids(belt).includes(id)));
  expect(symptomsFor(catalogue, belt)).toBe(symptomsFor(catalogue, belt));
});
