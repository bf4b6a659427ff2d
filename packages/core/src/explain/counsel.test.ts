import type { Bench } from '../bench/state';
import { deliveredCatalogue as catalogue } from '../catalogue/index';
import type { OrderEvent } from '../order/events';
import type { Machine } from '../path/machine';
import { repaired } from '../testing/believed';
import { remembered } from '../testing/remembered';
import { dunlin, event, finding, stateOf, takenIn, whelk } from '../testing/machines';
import { routeOf } from '../path/route';
import { assess, quickWorking, stationCase } from './assess';
import { inWords, minutesText, percent } from './explain';
import { NOT_SURE } from '../bench/places';
import { lookedAtKeys } from '../decision/answered';
import { leftOfWay } from '../decision/apart';
import type { Search } from '../decision/checkForecast';
import { HABITS } from '../decision/habits';
import { unexplained } from './counsel';

const cold: Bench = { temperatureC: 22, power: 'off', off: new Set() };
/** Worked out once where it is asked of the same; by the search of an answer at once, which details the leading checks only. */
const viewBy = (search: Search) =>
  remembered(
    (events: readonly OrderEvent[], bench: Bench = cold, machine: Machine = whelk) =>
      assess(machine, catalogue, stateOf(machine, events), bench, search),
    (events, bench = cold, machine = whelk) => [events.map(({ type, body }) => [type, body]), bench, machine.id],
  );
const view = viewBy({ depth: 1, quick: true });
/** With every check in all its detail. */
const whole = viewBy({ depth: 1 });

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

test('findings that the likeliest listed cause leaves unexplained are named, once something else leads', () => {
  const of = (...findings: readonly OrderEvent[]) => {
    const { model, suspicion, evidence } = quickWorking(
      whelk,
      catalogue,
      stateOf(whelk, [takenIn(whelk), ...findings]),
    );
    return unexplained(model, suspicion, evidence);
  };
  const strange = [
    finding('look-nozzle@nozzle', 'leak'),
    finding('feel-fan@sink', 'dead'),
    finding('bend-piece@spool', 'snaps'),
    finding('turn-spool@spool', 'tangled'),
    finding('turn-liner@liner', 'play'),
  ];
  expect(of(...strange).length).toBeGreaterThan(1);
  expect(of(finding('look-gears@extruder', 'worn'))).toEqual([]);
  // Five faults, each of them seen: nothing else is looked for.
  const { elsewhere, causes, unexplained: named } = view([takenIn(whelk), ...strange]);
  expect(elsewhere).toBeLessThan(Math.max(...causes.map((cause) => cause.suspicion)));
  expect(named).toEqual([]);
});

test('with the cover off and the hot end hot, what needs that is priced without the way there', () => {
  const events = [takenIn(dunlin, { symptoms: ['thin'], material: 'PLA' })];
  // The strand is out in both, so that they differ by what is open and hot alone.
  const strand = Object.fromEntries(dunlin.runs.map(({ id }) => [id, 'out' as const]));
  const hot = { temperatureC: 208, power: 'on' as const, strand };
  const named = (bench: Bench, key: string) => {
    const check = whole(events, bench, dunlin).checks.find((item) => item.key === key);
    if (!check) throw new Error(`not offered: ${key}`);
    return check;
  };
  const before = { ...cold, strand };
  const [air, airHot] = [named(before, 'free-air@nozzle'), named({ ...hot, off: new Set() }, 'free-air@nozzle')];
  expect(air.waitingMinutes).toBeGreaterThan(1);
  expect(airHot.waitingMinutes).toBe(0);
  const cover = new Set(['front-cover', 'hub-off', 'sensor-cover']);
  const [lever, leverOpen] = [
    named(before, 'watch-lever@sensor'),
    named({ ...before, off: cover }, 'watch-lever@sensor'),
  ];
  expect(lever.openIds.length).toBeGreaterThan(0);
  expect(leverOpen.openIds).toEqual([]);
  expect(lever.handsOnMinutes - leverOpen.handsOnMinutes).toBeGreaterThan(2);
  // And what is expected in all falls with it, since the rest is the same.
  expect(leverOpen.expectedMinutes).toBeLessThan(lever.expectedMinutes);
});

describe('for and against, in words', () => {
  const about = (events: readonly OrderEvent[], station: string, mode: string) => {
    const found = stationCase(dunlin, catalogue, stateOf(dunlin, events), station).causes.find((c) => c.mode === mode);
    if (!found) throw new Error(`no ${mode} at ${station}`);
    return found;
  };

  test('every kind of evidence is told as it was recorded, strongest first', () => {
    const events = [
      takenIn(dunlin, { lane: 'lane-a', material: 'PLA', symptoms: ['not-reach'], onset: 'loading', weeksLoaded: 9 }),
      finding('push-strand@gate-a>end', 'stops', 901),
      finding('lift-hub@hub', 'stub'),
      finding('turn-spool@spool-a', 'not-sure'),
      event('cause-chosen', { station: 'extruder', mode: 'gears-worn', advised: false }),
      event('rung-tried', { stepId: 'r', remedy: 'brush-gears', outcome: 'cleared' }),
      event('not-cured', {}),
    ];
    const { forAgainst } = about(events, 'hub', 'stub');
    const labels = forAgainst.map(({ label }) => label);
    expect(labels.some((label) => label.startsWith('Seen: '))).toBe(true);
    expect(labels.some((label) => label.startsWith('It began: '))).toBe(true);
    expect(labels.some((label) => /stops at 901 mm$/.test(label))).toBe(true);
    expect(labels.some((label) => /: stub inside$/.test(label))).toBe(true);
    expect(labels).toContain('Repair at Extruder did not cure');
    const sizes = forAgainst.map(({ decibans }) => Math.abs(decibans));
    expect(sizes).toEqual([...sizes].sort((a, b) => b - a));
    // The stub that was seen speaks loudest for the stub, and against the latch that would explain the same stop.
    expect(forAgainst[0]).toMatchObject({ label: expect.stringMatching(/stub inside$/), words: 'very strongly for' });
    const latch = about(events, 'hub', 'latch-open').forAgainst.find(({ label }) => /stub inside$/.test(label));
    expect(latch?.decibans).toBeLessThan(-3);
  });

  test('what raised a cause before any finding is named with its factor', () => {
    const stale = about([takenIn(dunlin, { lane: 'lane-a', material: 'PLA', weeksLoaded: 9 })], 'hub', 'stub');
    const fresh = about([takenIn(dunlin, { lane: 'lane-a', material: 'PETG', weeksLoaded: 0 })], 'hub', 'stub');
    expect(stale.raisedBy.length).toBeGreaterThan(fresh.raisedBy.length);
    for (const words of stale.raisedBy) expect(words).toMatch(/\(× [\d.]+\)$/);
  });

  // The steps are those of a factor 2, 4 and 10: 3, 6 and 10 decibans.
  test('decibans, shares and minutes as a person says them', () => {
    expect([0.5, 2, -4, 7, -12].map(inWords)).toEqual([
      'says little',
      'slightly for',
      'clearly against',
      'strongly for',
      'very strongly against',
    ]);
    expect([percent(0), percent(0.004), percent(0.126)]).toEqual(['0\u00a0%', 'under 1\u00a0%', '13\u00a0%']);
    expect([minutesText(0.2), minutesText(12.4)]).toEqual(['under 1 min', '12 min']);
  });
});

describe('a check is described like any deed', () => {
  const hazards = (id: string): readonly string[] =>
    catalogue.cautions.flatMap(({ id: caution, marks }) => (caution === id ? (marks ?? []) : []));

  test('hot checks carry the caution of heat, pushes that of the head, on a lined path PTFE too; tools are named', () => {
    const { checks } = whole([takenIn(whelk)]);
    const lined = whelk.runs.some(({ stations }) =>
      stations.some(({ kind, params }) => kind === 'heat-break' && params?.lining !== 'none'),
    );
    const catalogued = (id: string) => catalogue.checks.find((check) => check.id === id);
    const hot = checks.filter(({ heat }) => heat === 'hot');
    expect(hot.length).toBeGreaterThan(5);
    for (const check of hot) {
      const marked = check.cautions.flatMap(hazards);
      expect(marked).toContain('heat');
      expect(marked.includes('ptfe')).toBe(lined);
    }
    for (const check of checks.filter(({ check: id }) => catalogued(id)?.push === 'head'))
      expect(check.cautions.flatMap(hazards)).toContain('push');
    const needle = checks.find(({ check: id }) => id === 'needle');
    expect(needle?.tools).toEqual([expect.stringMatching(/^[\d.]+ mm needle$/)]);
  });

  test('with the strand loaded a needle from below is dearer by the unloading, and its price says so', () => {
    const at = (is: 'in' | 'out') =>
      whole([takenIn(whelk)], { ...cold, strand: { [routeOf(whelk).lane]: is } }).checks.find(
        ({ check: id }) => id === 'needle',
      );
    const [loaded, empty] = [at('in'), at('out')];
    expect((loaded?.handsOnMinutes ?? 0) - (empty?.handsOnMinutes ?? 0)).toBeCloseTo(2, 9);
    expect(loaded?.priceParts.join()).toContain('emptying the path');
    expect(empty?.priceParts.join()).not.toContain('emptying the path');
  });
});

test('minutes stated before anything is looked at come with the range of eight in ten; afterwards they stand alone', () => {
  const events = [takenIn(whelk, { symptoms: ['nothing', 'clicks'], material: 'PLA' })];
  const { advice } = view(events);
  const said = /of ten orders eight take between (\d+) min and (\d+) min/.exec(advice.text);
  const stated = Math.min(advice.repairMinutes, advice.checkMinutes ?? Infinity);
  expect(Number(said?.[1])).toBe(Math.round(0.26 * stated));
  expect(Number(said?.[2])).toBe(Math.round(1.65 * stated));
  expect(view([...events, finding('feel-fan@sink', 'blows')]).advice.text).not.toMatch(/of ten orders/);
});

test('when the path is opened stretch by stretch, what is left of it is told, and gets less with each look', () => {
  const left: number[] = [];
  const events = [takenIn(whelk, { symptoms: ['clicks'], material: 'PLA' })];
  for (let turn = 0; turn < 24 && left.length < 2; turn++) {
    const { advice, checks } = assess(whelk, catalogue, stateOf(whelk, events), cold, { depth: 1, quick: true });
    const next = checks.find(({ done }) => !done);
    const all = /To look at all that is left takes about (\d+) min/.exec(advice.text);
    expect(all !== null).toBe(advice.apart === true);
    if (all) left.push(Number(all[1]));
    // Everything looks sound.
    const sound = next?.outcomes.at(-1);
    if (next && sound) events.push(finding(next.key, sound.result, SOUND[next.key.split('@')[0] ?? '']));
  }
  expect(left).toHaveLength(2);
  expect(left[1]).toBeLessThan(left[0] ?? 0);
});

test('a stretch that was opened and told nothing is still to be looked at', () => {
  const events = [takenIn(whelk, { symptoms: ['thin'], material: 'PLA' })];
  const left = (): number => {
    const state = stateOf(whelk, events);
    const { model } = quickWorking(whelk, catalogue, state);
    return leftOfWay(model.way, lookedAtKeys(model, state.findings)).minutes;
  };
  const repairing = (): number =>
    assess(whelk, catalogue, stateOf(whelk, events), cold, { depth: 1, quick: true }).advice.repairMinutes;
  const { looks } = quickWorking(whelk, catalogue, stateOf(whelk, events)).model.way;
  const [whole, before] = [left(), repairing()];
  for (const { place } of looks) events.push(finding(place.key, NOT_SURE));
  expect(left()).toBe(whole);
  expect(repairing()).toBeCloseTo(before, 6);
  const [first] = looks;
  events.push(finding(first?.place.key ?? '', first?.place.check.results.at(-1)?.id ?? ''));
  expect(left()).toBeLessThan(whole);
});

const SOUND: Readonly<Record<string, number>> = { 'measure-diameter': 1.75, 'feed-100': 99.6, 'pull-gauge': 1.8 };

test('what smells burnt is not switched on unwarned, until something has been mended', () => {
  const told = takenIn(whelk, { symptoms: ['thin', 'smell'], material: 'PLA' });
  const warned = (events: readonly OrderEvent[]) => {
    const live = whole(events).checks.filter(({ heat, power }) => heat === 'hot' || power === 'on');
    expect(live.length).toBeGreaterThan(3);
    return live.filter(({ cautions }) => cautions.includes('burnt-smell')).length / live.length;
  };
  expect(warned([told])).toBe(1);
  expect(warned([told, ...repaired('nozzle', 'joint-leak', 'retighten-nozzle')])).toBe(0);
  expect(whole([told]).checks.find(({ check }) => check === 'look-joint')?.cautions).not.toContain('burnt-smell');
  expect(warned([takenIn(whelk, { symptoms: ['thin'], material: 'PLA' })])).toBe(0);
});

test('what cannot be looked at is not reckoned to come to sight when the path is taken apart: the repair that it speaks for is named', () => {
  const events = [
    takenIn(whelk, { symptoms: ['thin', 'clicks'], material: 'PLA' }),
    finding('look-tip@extruder', 'chewed'),
    finding('listen@extruder', 'slips'),
    finding('feed-by-hand@extruder', 'flows'),
    finding('free-air@nozzle', 'straight'),
  ];
  const advice = () => assess(whelk, catalogue, stateOf(whelk, events), cold, { depth: 1, quick: true }).advice;
  const before = advice();
  expect(before.station).toBeUndefined();
  events.push(event('check-not-done', { key: 'look-gears@extruder', why: 'tool' }));
  const after = advice();
  expect(after.station).toBe('extruder');
  expect(after.repairMinutes).toBeGreaterThan(before.repairMinutes + 5);
});
