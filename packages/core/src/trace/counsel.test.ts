import type { Bench } from '../access/bench';
import { deliveredCatalogue as catalogue } from '../catalogue/index';
import type { OrderEvent } from '../order/events';
import { dunlin, finding, stateOf, takenIn, whelk } from '../testing/machines';
import { assess } from './assess';
import { HABITS } from './habits';

const cold: Bench = { temperatureC: 22, power: 'off', off: new Set() };
const view = (events: readonly OrderEvent[], bench = cold, machine = whelk) =>
  assess(machine, catalogue, stateOf(machine, events), bench, { depth: 2 });

test('while it heats for a check, outside checks that fit into the wait are offered; when hot already, none', () => {
  const events = [takenIn(whelk, { symptoms: ['nothing', 'clicks'], material: 'PLA' })];
  const needsHeat = view(events).checks.find((check) => check.heat === 'hot' && check.meanwhile.length > 0);
  expect(needsHeat).toBeDefined();
  for (const { key, minutes } of needsHeat?.meanwhile ?? []) {
    const check = view(events).checks.find((item) => item.key === key);
    expect(check).toMatchObject({ heat: 'any', openIds: [] });
    expect(minutes).toBeLessThanOrEqual(needsHeat?.waitingMinutes ?? 0);
  }
  const hot = view(events, { temperatureC: 208, power: 'on', off: new Set() });
  expect(hot.checks.find((check) => check.key === needsHeat?.key)?.meanwhile).toEqual([]);
});

test('each habit goes to its first kind of place, and never costs less than the tracer’s choice', () => {
  const { habits, checks } = view([takenIn(dunlin, { symptoms: ['not-reach'] })], cold, dunlin);
  const kinds = new Map(dunlin.runs.flatMap((run) => run.stations).map((station) => [station.id, station.kind]));
  expect(habits.map((habit) => habit.id)).toEqual(HABITS.map((habit) => habit.id));
  habits.forEach(({ key, moreMinutes }, i) => {
    const station = checks.find((check) => check.key === key)?.station ?? '';
    expect(HABITS[i]?.kinds[0]).toContain(kinds.get(station));
    expect(moreMinutes).toBeGreaterThanOrEqual(0);
  });
});

test('a habit’s check and a check of one’s own are thought of as far ahead as the best, so that they can be compared', () => {
  const events = [takenIn(dunlin, { symptoms: ['not-reach'] })];
  const state = stateOf(dunlin, events);
  const own = 'look-joint@block';
  const { checks, habits } = assess(dunlin, catalogue, state, cold, { depth: 2, also: [own] });
  expect(checks.find((check) => check.key === own)?.depth).toBe(2);
  for (const { key } of habits) expect(checks.find((check) => check.key === key)?.depth).toBe(2);
  for (const check of checks) {
    const parts = check.parts.reduce((sum, part) => sum + part.minutes, 0);
    expect(parts + check.afterMinutes).toBeCloseTo(check.expectedMinutes, 6);
  }
});

test('the one result that would change the answer is the largest move of the leading place among likely results', () => {
  const state = stateOf(dunlin, [takenIn(dunlin, { symptoms: ['not-reach'] })]);
  const brief = assess(dunlin, catalogue, state, cold);
  const rest = brief.checks.filter((check) => check.outcomes.length === 0).map((check) => check.key);
  expect(rest.length).toBeGreaterThan(10);
  const { changer, checks, stations } = assess(dunlin, catalogue, state, cold, { depth: 1, also: rest });
  expect(checks.filter((check) => check.outcomes.length === 0)).toEqual([]);
  const lead = [...stations].sort((a, b) => b.suspicion - a.suspicion)[0];
  expect(changer?.station).toBe(lead?.name);
  const index = stations.indexOf(lead as (typeof stations)[number]);
  const moves = checks
    .filter((check) => !check.done)
    .flatMap((check) => check.outcomes)
    .filter((outcome) => outcome.probability >= 0.03)
    .map((outcome) => Math.abs((outcome.stations[index] ?? 0) - (lead?.suspicion ?? 0)));
  expect(Math.abs((changer?.to ?? 0) - (changer?.from ?? 0))).toBeCloseTo(Math.max(...moves), 9);
});

test('when something else leads, it says which findings the likeliest listed cause leaves unexplained', () => {
  const strange = view([
    takenIn(whelk),
    finding('look-nozzle@nozzle', 'leak'),
    finding('feel-fan@sink', 'dead'),
    finding('bend-piece@spool', 'snaps'),
    finding('turn-spool@spool', 'tangled'),
    finding('turn-liner@liner', 'play'),
  ]);
  expect(strange.elsewhere).toBeGreaterThan(Math.max(...strange.causes.map((cause) => cause.suspicion)));
  expect(strange.unexplained.length).toBeGreaterThan(1);
  expect(view([takenIn(whelk), finding('look-gears@extruder', 'worn')]).unexplained).toEqual([]);
});

test('with the cover off and the hot end hot, another check wins than cold and closed', () => {
  const events = [takenIn(dunlin, { symptoms: ['thin'], material: 'PLA' })];
  const first = (bench: Bench): string | undefined =>
    view(events, bench, dunlin).checks.find((check) => !check.done)?.key;
  const open = { temperatureC: 208, power: 'on' as const, off: new Set(['front-cover', 'hub-off', 'sensor-cover']) };
  expect(first(open)).not.toBe(first(cold));
});
