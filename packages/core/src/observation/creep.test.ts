import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { machineOfFamily } from '../path/families';
import { laneRuns, routeOf } from '../path/route';
import type { Machine } from '../path/machine';
import { causesOf } from './causes';

const machine = machineOfFamily('bowden-open', 'm', 'M');
const usual = catalogue.materials[0]?.id ?? '';
const stiff = catalogue.materials.reduce((a, b) => ((b.glassC ?? 0) > (a.glassC ?? 0) ? b : a)).id;
const of = (material: string, ambientC = 22) => {
  const warm: Machine = { ...machine, heat: { ...machine.heat, ambientC, limitC: 300 } };
  const causes = causesOf(
    { machine: warm, catalogue, symptoms: [], before: [], material },
    routeOf(warm, laneRuns(warm)[0]?.id),
  );
  const creeping = causes.filter(({ mode }) => mode.creep === 'half');
  expect(creeping.length).toBeGreaterThan(0);
  return creeping;
};
const weight = (list: ReturnType<typeof of>): number => list.reduce((sum, cause) => sum + cause.weight, 0);
const own = catalogue.modes.filter(({ creep }) => creep === 'half').reduce((sum, mode) => sum + mode.weight, 0);

test('heat creep stands as the catalogue has it for the usual filament in a usual room', () => {
  expect(weight(of(usual))).toBeCloseTo(own, 6);
  for (const { mode } of of(usual))
    expect(mode.reads?.['stop-min']?.mean).toBeCloseTo(
      catalogue.modes.find(({ id }) => id === mode.id)?.reads?.['stop-min']?.mean ?? NaN,
      6,
    );
});

test('it is likelier in a warm room and less likely for a filament that softens late, and says so', () => {
  expect(weight(of(usual, 45))).toBeGreaterThan(own * 1.2);
  expect(weight(of(stiff))).toBeLessThan(own / 2);
  expect(
    of(stiff)[0]
      ?.raisedBy.map(({ why }) => why)
      .join(),
  ).toMatch(/softens less easily/);
  expect(
    of(usual, 45)[0]
      ?.raisedBy.map(({ why }) => why)
      .join(),
  ).toMatch(/softens more easily/);
  // What is reckoned from typical bodies moves no weight by more than three.
  expect(weight(of(stiff))).toBeGreaterThanOrEqual(own / 3 - 1e-9);
});

test('where it softens sooner the print stops sooner', () => {
  const mean = (list: ReturnType<typeof of>): number => list[0]?.mode.reads?.['stop-min']?.mean ?? NaN;
  const dead = (ambientC: number): number => {
    const warm: Machine = { ...machine, heat: { ...machine.heat, ambientC } };
    const causes = causesOf({ machine: warm, catalogue, symptoms: [], before: [], material: usual }, routeOf(warm));
    return mean(causes.filter(({ mode }) => mode.creep === 'dead'));
  };
  expect(dead(45)).toBeLessThan(dead(22));
});
