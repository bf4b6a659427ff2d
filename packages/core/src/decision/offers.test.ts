import type { Bench } from '../bench/state';
import { deliveredCatalogue as catalogue, materialOf, remedyById } from '../catalogue/index';
import type { Remedy } from '../catalogue/types';
import { FAMILIES, machineOfFamily } from '../path/families';
import { laneRuns, routeOf } from '../path/route';
import { causesOf, type Cause } from '../observation/causes';
import { chanceRemoved } from '../inference/removal';
import { answeredKeys } from './answered';
import { barredKeys } from '../explain/barred';
import type { Machine } from '../path/machine';
import { remembered } from '../testing/remembered';
import { dunlin, stateOf, takenIn } from '../testing/machines';
import type { CheckForecast } from './checkForecast';
import { decide } from './decide';
import { oneOfEach, rathersAsk, suspectShown } from './advise';
import { apartMinutes } from './apart';
import { ASKING_MIN, mendMinutes, remedyMinutes, remedyNeeds, repairGroups, rungsFor } from './repairs';
import { workOut } from './working';

const cold = (machine = dunlin): Bench => ({ temperatureC: machine.heat.ambientC, power: 'off', off: new Set() });

/** Worked out once where it is asked of the same. */
const offers = remembered(worked, (symptoms, machine = dunlin) => [symptoms, machine.id, machine.family]);
function worked(symptoms: readonly string[], machine: Machine = dunlin) {
  const state = stateOf(machine, [takenIn(machine, { material: 'PLA', symptoms, onset: 'after-moving' })]);
  const { model, evidence, suspicion } = workOut(machine, catalogue, state);
  const found = decide(
    model,
    suspicion,
    cold(machine),
    evidence,
    barredKeys(state),
    answeredKeys(model, state.findings),
    { depth: 2 },
  );
  return { model, suspicion, ...found };
}

test.each(FAMILIES.map(({ id }) => id))(
  'a complaint about heat on a machine of the family %s: of the first three offers one looks at the heater or its sensor',
  (family) => {
    const machine = machineOfFamily(family, 'm', 'M');
    const { checks } = offers(['heat-error', 'thin'], machine);
    const block = machine.runs
      .flatMap(({ stations }) => stations)
      .filter(({ kind }) => kind === 'heat-block')
      .map(({ id }) => id);
    expect(checks.slice(0, 3).filter(({ place }) => block.includes(place.station ?? '')).length).toBeGreaterThan(0);
  },
);

test('a hand on the strand and the gauge on it are one question: the gauge comes behind all other questions', () => {
  const { checks } = offers(['thin']);
  const at = (id: string): number => checks.findIndex(({ place }) => place.check.id === id);
  const [hand, gauge] = [at('pull-strand'), at('pull-gauge')];
  expect(hand).toBeGreaterThanOrEqual(0);
  expect(gauge).toBeGreaterThan(hand);
  // By its own minutes it would stand farther in front.
  const own = checks[gauge]?.expectedMinutes ?? 0;
  expect(checks.slice(0, gauge).some((check) => check.expectedMinutes > own)).toBe(true);
});

test('the first offers are not one check at three places, though it be the best at each; the best of all stays first', () => {
  const { checks } = offers(['not-reach']);
  const like = (id: string, at: number): CheckForecast => {
    const one = checks.find(({ place }) => place.check.id === id);
    if (!one) throw new Error(id);
    return { ...one, place: { ...one.place, key: `${id}@${at}`, reach: new Set([at]) } };
  };
  const best = [1, 2, 3, 4].map((at) => like('push-strand', at));
  const keys = (list: readonly CheckForecast[]) => oneOfEach(list, [0, 1, 1, 1, 1, 1]).map(({ place }) => place.key);
  expect(keys([...best, like('bend-piece', 5)])).toEqual([
    'push-strand@1',
    'push-strand@2',
    'bend-piece@5',
    'push-strand@3',
    'push-strand@4',
  ]);
  expect(keys(best)).toEqual(best.map(({ place }) => place.key));
});

describe('a look at what would be mended', () => {
  const { checks } = offers(['thin']);
  const [one] = checks;
  const look = (name: string, expectedMinutes: number, after: number, reach: 'station' | 'span' = 'station') =>
    ({
      ...one,
      place: { ...one?.place, key: name, reach: new Set([1]), check: { ...one?.place.check, reach } },
      expectedMinutes,
      outcomes: [{ probability: 0.5, stations: [0, after], minutes: 1 }],
    }) as unknown as CheckForecast;
  const keys = (list: readonly CheckForecast[]) => list.map(({ place }) => place.key);
  const blind = ['a', 'b', 'c', 'd'].map((name, i) => look(name, 20 + i, 0.5));
  const there = new Set([1]);

  test('takes the third place where none of the first three would show it; the first stays', () => {
    expect(keys(suspectShown([...blind, look('shows', 24.5, 0.9)], there, 0.5, []))).toEqual([
      'a',
      'b',
      'shows',
      'c',
      'd',
    ]);
  });
  test('moves nothing where one of them shows it, where it costs ten minutes more, or where it is no look at the place', () => {
    for (const list of [
      [look('shows', 19, 0.9), ...blind],
      [...blind, look('dear', 30.5, 0.9)],
      [...blind, look('weak', 24, 0.8)],
      [...blind, look('push', 24, 0.9, 'span')],
    ])
      expect(suspectShown(list, there, 0.5, [])).toEqual(list);
  });
  test('where no repair carries itself, by the place that is suspected most; where none is, nothing moves', () => {
    const list = [...blind, look('shows', 24.5, 0.9)];
    expect(keys(suspectShown(list, new Set([0]), 0.1, [0.1, 0.5])).indexOf('shows')).toBe(2);
    expect(suspectShown(list, there, 0.33, [0.3, 0.33])).toEqual(list);
  });
});

test('grease is wiped from the whole path at once: one repair wherever it sits, and in vain it speaks against all of it', () => {
  const { model } = offers(['thin']);
  const { kase, route, causes } = model;
  const grease = causes.flatMap(({ mode }, i) => (mode.id === 'grease' ? [i] : []));
  const groups = repairGroups(kase, route, causes).filter(({ causes: of }) => of.some((c) => grease.includes(c)));
  expect(grease.length).toBeGreaterThan(1);
  expect(groups.map(({ remedy, causes: of }) => [remedy.id, of])).toEqual([['wipe-path', grease]]);
  const [first, ...others] = grease.flatMap((c) => causes[c] ?? []);
  const failed = { id: 'f', station: first?.stop.station.id ?? '', mode: 'grease', remedies: ['wipe-path'], after: 0 };
  for (const other of others)
    expect(chanceRemoved(kase, failed, other, causes)).toBe(remedyById(catalogue, 'wipe-path')?.cures);
  const stub = causes.find(({ mode }) => mode.id === 'stub');
  expect(stub && chanceRemoved(kase, failed, stub, causes)).toBe(0);
});

describe('a remedy that was done in vain', () => {
  const { model } = offers(['thin']);
  const { route, causes } = model;
  const pla = materialOf(catalogue, 'PLA');
  const rungs = (id: string, times: number) => {
    const cause = causes.find((item) => item.id === id);
    if (!cause) throw new Error(`no cause ${id}`);
    const all = rungsFor(catalogue, dunlin, route, cause, pla);
    const failed = Array.from({ length: times }, (_, i) => ({
      id: `f${i}`,
      station: cause.stop.station.id,
      mode: cause.mode.id,
      remedies: all.map((remedy) => remedy.id),
      after: 0,
    }));
    return { all, left: rungsFor(catalogue, dunlin, route, cause, pla, failed) };
  };

  test.each([
    ['extruder/gears-worn', /another one$/],
    ['job/bed-close', /once more$/],
  ])('is offered once more when nothing else is left, and believed half as much: %s', (id, name) => {
    const { all, left } = rungs(id, 1);
    expect(left.map((remedy) => remedy.id)).toEqual(all.map((remedy) => remedy.id));
    left.forEach((remedy, i) => {
      expect(remedy.name).toMatch(name);
      expect(remedy.cures).toBeCloseTo((all[i]?.cures ?? 0) / 2, 9);
    });
  });
  test('twice in vain, a third part is not fitted nor a setting changed, but what was seated is seated once more, and believed a quarter as much', () => {
    expect(rungs('extruder/gears-worn', 2).left.filter(({ replaces }) => replaces !== undefined)).toEqual([]);
    expect(rungs('job/bed-close', 2).left).toEqual([]);
    const { all, left } = rungs('block/duct-astray', 2);
    expect(left.map(({ id }) => id)).toEqual(all.map(({ id }) => id));
    expect(left[0]?.cures).toBeCloseTo((all[0]?.cures ?? 0) / 4, 9);
    expect(rungs('block/duct-astray', 3).left).toEqual([]);
  });
  test('done in vain again, a repair has taken the fault away half as often as the first time', () => {
    const repair = { station: 'job', mode: 'bed-close', remedies: ['set-height'], after: 0 };
    const [first, second] = [
      { ...repair, id: 'first' },
      { ...repair, id: 'second' },
    ];
    const kase = { catalogue, machine: dunlin, symptoms: [], before: [], failed: [first, second] };
    const bed = causes.find(({ id }) => id === 'job/bed-close') as Cause;
    const once = chanceRemoved(kase, first, bed, causes);
    expect(once).toBeGreaterThan(0.5);
    expect(chanceRemoved(kase, second, bed, causes)).toBeCloseTo(once / 2, 9);
  });
});

describe('taking the path apart', () => {
  const { model } = offers(['thin']);
  const of = (answered: readonly string[] = []): readonly number[] =>
    apartMinutes(model.way, model.route, model.shownAt, new Set(answered));
  const minutes = (id: string, answered?: readonly string[]): number =>
    of(answered)[model.causes.findIndex((item) => item.id === id)] ?? NaN;

  test('a fault comes to sight at the look that shows it, and mending it takes what its remedy takes', () => {
    const at = (id: string) => model.shownAt[model.causes.findIndex((item) => item.id === id)]?.place.key;
    // The guides of a tube show where it hangs; its worn inside shows only when it is free.
    expect(at('tube-a/tube-astray')).toBe('look-guides@tube-a');
    expect(at('tube-a/tube-worn')).toMatch(/^free-tube@/);
    const tube = model.groups.find(({ remedy }) => remedy.id === 'renew-tube')?.remedy;
    expect(mendMinutes(tube)).toBe(Math.max(20, remedyMinutes(tube as Remedy)));
    expect(mendMinutes(undefined)).toBe(20);
  });

  test('opens what takes least next, each stretch once, and closes what is open at the end', () => {
    const { looks, wholeMin } = model.way;
    expect(new Set(looks.map(({ place }) => place.key)).size).toBe(looks.length);
    looks.forEach((look, i) => {
      expect(look.minutes).toBeGreaterThan(looks[i - 1]?.minutes ?? 0);
      expect(look.closedMin).toBeGreaterThanOrEqual(look.minutes);
    });
    // Outside first: the guides of a tube before the gears behind their cover.
    const at = (key: string): number => looks.findIndex(({ place }) => place.key === key);
    expect(at('look-guides@tube-a')).toBeGreaterThanOrEqual(0);
    expect(at('look-guides@tube-a')).toBeLessThan(at('look-gears@extruder'));
    // All parts on the way come off once and go on once, and every look is done.
    const parts = new Set(looks.flatMap(({ place }) => place.parts));
    const hands = model.kase.machine.parts
      .filter(({ id }) => parts.has(id))
      .reduce((sum, part) => sum + part.minutesOff + part.minutesOn, 0);
    expect(wholeMin).toBeGreaterThanOrEqual(hands + looks.reduce((sum, { place }) => sum + place.check.minutes, 0));
  });
  test('shows what an eye or a meter finds there, as far along as it lies; a strand or a setting is asked for at the end', () => {
    const whole = model.way.wholeMin;
    for (const id of ['extruder/gears-worn', 'nozzle/tip-particles', 'block/heater-fault'])
      expect(minutes(id)).toBeLessThanOrEqual(whole + 26);
    expect(minutes('job/too-cold')).toBeCloseTo(whole + ASKING_MIN + 26, 9);
    expect(minutes('spool-a/filament-wet')).toBeCloseTo(whole + ASKING_MIN + 26, 9);
  });
  test('does not count once more on a look that has been answered', () => {
    const key = model.shownAt[model.causes.findIndex(({ id }) => id === 'extruder/gears-worn')]?.place.key ?? '';
    expect(minutes('extruder/gears-worn', [key])).toBeCloseTo(minutes('job/too-cold', [key]), 9);
    // The rest of the way is shorter by it, for a setting too.
    const spared = minutes('job/too-cold') - minutes('job/too-cold', [key]);
    expect(spared).toBeGreaterThanOrEqual(model.places.find((place) => place.key === key)?.check.minutes ?? Infinity);
    expect(minutes('extruder/gears-worn', [key])).toBeGreaterThan(minutes('extruder/gears-worn'));
    // On no list: half shows to an eye, wherever it sits; with every look answered nothing is left to see.
    expect(of().at(-1)).toBeLessThan(minutes('job/too-cold'));
    const all = model.way.looks.map(({ place }) => place.key);
    expect(of(all).at(-1)).toBeCloseTo(ASKING_MIN + 26, 9);
    expect(minutes('job/too-cold', all)).toBeCloseTo(ASKING_MIN + 26, 9);
  });
});

test('after a repair in vain those checks may be asked again that see the repaired place, and no others', () => {
  const { model } = offers(['thin']);
  const findings = ['look-gears@extruder', 'look-nozzle@nozzle', 'free-air@nozzle'].map((key) => ({ key }));
  const failed = (after: number) => [{ id: 'f', station: 'nozzle', mode: '', remedies: ['cold-pull'], after }];
  const keys = (after: number) => [
    ...answeredKeys({ ...model, kase: { ...model.kase, failed: failed(after) } }, findings),
  ];
  expect(keys(3)).toEqual(['look-gears@extruder']);
  expect(keys(1)).toEqual(findings.map(({ key }) => key));
});

test('a part that is probably sound is not renewed for next to nothing: then somebody is asked', () => {
  expect(rathersAsk(0.15, 140, 150)).toBe(true);
  expect(rathersAsk(0.15, 100, 150)).toBe(false);
  expect(rathersAsk(0.5, 149, 150)).toBe(false);
});

test('a leak above the block is tightened at the nozzle, hot, wherever the nozzle is screwed into a heat break', () => {
  const laddersOf = (family: (typeof FAMILIES)[number]['id']) => {
    const machine = machineOfFamily(family, 'm', 'M');
    const route = routeOf(machine, laneRuns(machine)[0]?.id);
    const causes = causesOf({ machine, catalogue, symptoms: [], before: [] }, route);
    const nozzle = route.stops.find(({ station }) => station.kind === 'nozzle')?.station;
    const leak = causes.find(({ mode, stop }) => mode.id === 'joint-leak' && stop.station.kind === 'heat-block');
    if (!leak || !nozzle) throw new Error('test data');
    const pla = materialOf(catalogue, 'PLA');
    return { machine, route, nozzle, leak, pla, rungs: rungsFor(catalogue, machine, route, leak, pla) };
  };
  const screwed = FAMILIES.map(({ id }) => laddersOf(id)).filter(
    ({ nozzle }) => nozzle.params?.nozzleKind === 'two-piece',
  );
  expect(screwed.length).toBeGreaterThan(2);
  for (const { machine, route, nozzle, leak, pla, rungs } of screwed) {
    const [first] = rungs;
    expect([machine.id, first?.id]).toEqual([machine.id, 'retighten-nozzle']);
    const needs = first && remedyNeeds(machine, route, leak, first, pla);
    expect(needs?.map(({ heat, parts }) => [heat, parts])).toEqual([['hot', nozzle.access?.open]]);
  }
});
