import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { caseOf, workOut } from '../decision/working';
import { assess } from '../explain/assess';
import type { OrderEvent } from '../order/events';
import { machineOfFamily } from '../path/families';
import { routeOf } from '../path/route';
import { believed, cold, repaired, seen, takenIn } from '../testing/believed';
import { dunlin, event, finding, stateOf } from '../testing/machines';
import { evidenceOf } from './evidenceOf';
import { causesOf } from '../observation/causes';
import { checksFor } from '../bench/places';
import { weigh } from './suspicion';

/** What real benches broke, each kept. Trade facts: common practice, no source. */

test('three equal sharp edges, each found, are three faults and not something else', () => {
  const { share, elsewhere } = believed('feeder-enclosed', (id) => [
    takenIn(id, { lane: 'lane-a', symptoms: ['some-loads'], onset: 'since-new' }),
    seen('look-buffer@buffer', 'edge', { finished: true }),
    seen('free-tube@coupler', 'edge', { finished: true }),
    seen('watch-lever@sensor', 'edge', { finished: true }),
  ]);
  for (const id of ['buffer/sharp-edge', 'coupler/sharp-edge', 'sensor/sharp-edge'])
    expect(share(id)).toBeGreaterThan(0.8);
  expect(elsewhere).toBeLessThan(0.1);
});

test('a worn gear and a cracked arm seen in one look are both there, and the repair of both is offered', () => {
  const { machine, state, share, set } = believed('hub-head', (id) => [
    takenIn(id, { lane: 'lane-a', symptoms: ['thin'], onset: 'slowly' }),
    seen('look-gears@extruder', 'cracked', { also: ['worn'], finished: true }),
  ]);
  expect(share('extruder/gears-worn')).toBeGreaterThan(0.8);
  expect(share('extruder/arm-cracked')).toBeGreaterThan(0.8);
  expect(set('extruder/gears-worn', 'extruder/arm-cracked')).toBeGreaterThan(0.5);
  const { advice, sets } = assess(machine, catalogue, state, cold(machine));
  expect(advice.kind).toBe('repair');
  expect([...(sets[0]?.modes ?? [])].sort()).toEqual(['arm-cracked', 'gears-worn']);
});

test('a fan that stands still is the fan: choked fins do not stop its blades', () => {
  const { share } = believed('bowden-open', (id) => [
    takenIn(id, { symptoms: ['stops-midway', 'clicks'], onset: 'after-hours', material: 'PLA' }),
    seen('feel-fan@sink', 'dead'),
  ]);
  expect(share('sink/fan-wrong')).toBeGreaterThan(3 * share('sink/heat-creep'));
});

test('ticking one thing says nothing against the others unless the look was finished', () => {
  const worn = (more: object) =>
    believed('hub-head', (id) => [
      takenIn(id, { lane: 'lane-a', symptoms: ['thin'] }),
      seen('look-gears@extruder', 'worn', more),
    ]).share('extruder/arm-cracked');
  const begun = worn({});
  expect(worn({ finished: true })).toBeLessThan(begun / 2);
});

test('what was seen before a repair in vain no longer points at what was renewed', () => {
  const before = believed('bowden-open', (id) => [
    takenIn(id, { symptoms: ['thin'] }),
    seen('tug@coupler-he', 'moves'),
  ]);
  // A tube whose end is bitten or that is too short, and one with a gap behind it, move as well; worn teeth lead.
  const moving = ['tube/tube-bitten', 'tube/tube-length', 'liner/seat-gap'].map(before.share);
  expect(before.share('coupler-he/coupler-creep')).toBeGreaterThan(1.5 * Math.max(...moving));
  expect(moving.reduce((sum, p) => sum + p, before.share('coupler-he/coupler-creep'))).toBeGreaterThan(0.65);
  const after = believed('bowden-open', (id) => [
    takenIn(id, { symptoms: ['thin'] }),
    seen('tug@coupler-he', 'moves'),
    ...repaired('coupler-he', 'coupler-creep', 'renew-coupler-hot'),
  ]);
  expect(after.share('coupler-he/coupler-creep')).toBeLessThan(0.35);
  // Found again after the repair, it is there again: the new part has the flaw, or the work was not good.
  const again = believed('bowden-open', (id) => [
    takenIn(id, { symptoms: ['thin'] }),
    seen('tug@coupler-he', 'moves'),
    ...repaired('coupler-he', 'coupler-creep', 'renew-coupler-hot'),
    seen('free-tube@coupler-he', 'teeth', { finished: true }),
  ]);
  expect(again.share('coupler-he/coupler-creep')).toBeGreaterThan(2 * after.share('coupler-he/coupler-creep'));
});

test('the coupler was renewed and the tube still moves: worn teeth and a bitten tube have words of their own', () => {
  const order = (result?: string) =>
    believed('bowden-open', (id) => [
      takenIn(id, {
        symptoms: ['tube-moves'],
        before: ['coupler-renewed'],
        tried: [{ id: 'coupler-renewed', result: 'same' }],
      }),
      seen('tug@coupler-he', 'moves'),
      ...(result ? [seen('free-tube@coupler-he', result, { finished: true })] : []),
    ]);
  // A look is due before the next coupler.
  expect(order().share('tube/tube-bitten')).toBeGreaterThan(0.15);
  expect(order('bitten').share('tube/tube-bitten')).toBeGreaterThan(0.8);
  expect(order('teeth').share('coupler-he/coupler-creep')).toBeGreaterThan(0.8);
  expect(order('teeth').share('tube/tube-bitten')).toBeLessThan(0.1);
});

test('a tube cut too short is seen by moving the head, and a tug that holds does not clear it', () => {
  const order = (...events: readonly OrderEvent[]) =>
    believed('enclosed-rear', (id) => [
      takenIn(id, { symptoms: ['thin'], onset: 'height', before: ['tube-changed'] }),
      ...events,
    ]).share('tube/tube-length');
  const none = order();
  expect(order(seen('corners@tube', 'taut'))).toBeGreaterThan(Math.max(0.5, 3 * none));
  expect(order(seen('corners@tube', 'reaches'))).toBeLessThan(none);
  expect(order(seen('tug@coupler', 'moves'))).toBeGreaterThan(none);
});

test('a tube renewed in vain does not leave its seats under suspicion', () => {
  const order = (vain: boolean) =>
    believed('hub-head', (id) => [
      takenIn(id, { lane: 'lane-a', symptoms: ['not-reach'], onset: 'after-moving' }),
      ...(vain ? repaired('tube-a', 'tube-worn', 'renew-tube') : []),
    ]).share('port-a/tube-out');
  expect(order(true)).toBeLessThan(order(false) / 2);
});

test('real, but not the cause: what is marked so points at nothing any more', () => {
  const order = (more: object, marks = false) =>
    believed('enclosed-rear', (id) => {
      const fouled = seen('look-gears@extruder', 'fouled', { finished: true, ...more });
      const mark = event('finding-marked', { findingId: fouled.id, innocent: true });
      return [takenIn(id, { symptoms: ['nothing'] }), fouled, ...(marks ? [mark] : [])];
    }).share('extruder/gears-fouled');
  const marked = order({ innocent: true });
  expect(order({}, true)).toBeCloseTo(marked, 12);
  expect(order({})).toBeGreaterThan(0.15);
  expect(marked).toBeLessThan(0.05);
});

test('a strand that stops in the hub clears nothing that it never reached', () => {
  const machine = machineOfFamily('hub-head', 'hub-head', 'hub-head');
  const route = routeOf(machine, 'lane-a');
  const hub = route.stops.find(({ station }) => station.id === 'hub');
  const entry = route.stops.find(({ station }) => station.id === 'guide-a')?.fromMm ?? 0;
  const depth = Math.round(((hub?.fromMm ?? 0) + (hub?.toMm ?? 0)) / 2 - entry);
  const state = stateOf(machine, [
    takenIn(machine.id, { lane: 'lane-a', symptoms: ['not-reach'] }),
    seen('push-strand@guide-a>end', 'stops', { value: depth }),
  ]);
  const { stations } = assess(machine, catalogue, state, cold(machine));
  const beyond = stations.slice(stations.findIndex(({ station }) => station === 'hub') + 1);
  expect(beyond.length).toBeGreaterThan(4);
  expect(beyond.filter(({ clearedBy }) => clearedBy !== undefined)).toEqual([]);
});

test('the unit of a number makes no difference', () => {
  const machine = machineOfFamily('hub-head', 'hub-head', 'hub-head');
  const route = routeOf(machine, 'lane-a');
  // The same check in tenths of a newton: every number ten times as large.
  const tenths = {
    ...catalogue,
    checks: catalogue.checks.map((check) =>
      check.id === 'pull-gauge' && check.quantity
        ? {
            ...check,
            quantity: {
              ...check.quantity,
              predict: undefined,
              normal: { mean: 15, sd: 5 },
              max: 600,
              bands: check.quantity.bands.map((band) => band * 10),
            },
          }
        : check,
    ),
  };
  const newtons = {
    ...catalogue,
    checks: catalogue.checks.map((check) =>
      check.id === 'pull-gauge' && check.quantity
        ? { ...check, quantity: { ...check.quantity, predict: undefined, normal: { mean: 1.5, sd: 0.5 } } }
        : check,
    ),
  };
  const run = (of: typeof catalogue, value: number) => {
    const kase = { machine, catalogue: of, lane: 'lane-a', symptoms: ['thin'], before: [] };
    const causes = causesOf(kase, route);
    const places = new Map(checksFor(of, machine, route).map((place) => [place.key, place]));
    // Twice the same check: the weight of each is less than one, so a unit would show.
    const list = ['1', '2'].map((id) => ({ id, key: 'pull-gauge@extruder', result: 'n', value }));
    const evidence = evidenceOf(kase, causes, places, list);
    return weigh(causes, [...causes.map(() => 0.97 / causes.length), 0.03], evidence).share;
  };
  const [a, b] = [run(newtons as typeof catalogue, 4), run(tenths as typeof catalogue, 40)];
  a.forEach((x, i) => expect(b[i]).toBeCloseTo(x, 6));
});

test('a symptom that was asked for and not seen speaks against what would show it; one that nobody looked for does not', () => {
  const order = (body: object) =>
    believed('hub-head', (id) => [takenIn(id, { lane: 'lane-a', symptoms: ['thin'], ...body })]).share(
      'nozzle/nozzle-worn',
    );
  const nobody = order({});
  expect(order({ notLooked: [] })).toBeLessThan(nobody);
  const all = catalogue.symptoms.map(({ id }) => id).filter((id) => id !== 'thin');
  expect(order({ notLooked: all })).toBeCloseTo(nobody, 12);
});

test('a complaint the catalogue was given later is not "not seen" in an order from before, until it is asked again', () => {
  // None but this one came later, whatever the delivered catalogue says.
  const symptoms = catalogue.symptoms.map((row) => ({
    ...row,
    since: row.id === 'thin' ? '2026-12-02' : '2026-01-01',
  }));
  const told = { lane: 'lane-a', symptoms: ['clicks'], before: [], notLooked: ['not-reach'] };
  const unseen = (...later: OrderEvent[]) =>
    caseOf(dunlin, { ...catalogue, symptoms }, stateOf(dunlin, [takenIn(dunlin.id, told), ...later])).unseen ?? [];
  const nextDay = event('intake-corrected', told, 26 * 60);
  expect(unseen()).not.toContain('thin');
  expect(unseen()).toContain('specks');
  expect([...unseen(), 'thin'].sort()).toEqual([...unseen(nextDay)].sort());
});

test('of the first three offers no two ask the same question: two pushes differ by two stations and more', () => {
  const { machine, state } = believed('feeder-enclosed', (id) => [
    takenIn(id, { lane: 'lane-a', symptoms: ['not-reach'] }),
  ]);
  const { checks } = assess(machine, catalogue, state, cold(machine));
  const route = routeOf(machine, 'lane-a');
  const reach = new Map(checksFor(catalogue, machine, route).map((place) => [place.key, place.reach]));
  const [a, b] = checks.slice(0, 3).filter(({ check }) => check === 'push-strand');
  const [x, y] = [a && reach.get(a.key), b && reach.get(b.key)];
  const apart = x && y ? [...x].filter((i) => !y.has(i)).length + [...y].filter((i) => !x.has(i)).length : 2;
  expect(apart).toBeGreaterThanOrEqual(2);
});

test('a swap that cured clears what came out with the part: a nozzle in one piece has its heat break', () => {
  const order = (family: string, nozzle: string) => {
    const machine = machineOfFamily(family, family, family);
    const route = routeOf(machine);
    const swap = checksFor(catalogue, machine, route).find(({ key }) => key === `swap-nozzle@${nozzle}`);
    return route.stops.filter(({ index }) => swap?.reach.has(index)).map(({ station }) => station.kind);
  };
  expect(order('enclosed-shroud', 'nozzle')).toEqual(['heat-break', 'heat-block', 'nozzle']);
  expect(order('bowden-open', 'nozzle')).toEqual(['nozzle']);
});

test('a piece that was pushed ahead is in the path still: nothing counts it as empty', () => {
  const machine = machineOfFamily('enclosed-rear', 'enclosed-rear', 'enclosed-rear');
  const after = (result: string) =>
    stateOf(machine, [takenIn(machine.id, {}), seen('push-strand@tube>end', result)]).strand;
  expect(Object.values(after('pushes-ahead'))).toEqual(['remnant']);
  expect(Object.values(after('passes'))).toEqual(['out']);
});

test('two faults at one place count once: no suspicion and no advice says more than is believed', () => {
  const { machine, state, share, set } = believed('hub-head', (id) => [
    takenIn(id, { lane: 'lane-a', symptoms: ['thin'], onset: 'slowly' }),
    seen('look-gears@extruder', 'cracked', { also: ['worn'], finished: true }),
  ]);
  const { stations, advice } = assess(machine, catalogue, state, cold(machine));
  const extruder = stations.find(({ station }) => station === 'extruder')?.suspicion ?? 0;
  expect(share('extruder/gears-worn') + share('extruder/arm-cracked')).toBeGreaterThan(1.5);
  expect(extruder).toBeGreaterThan(set('extruder/gears-worn', 'extruder/arm-cracked'));
  expect(extruder).toBeLessThanOrEqual(1 + 1e-9);
  for (const [, said] of advice.text.matchAll(/(\d+)\s%/g)) expect(Number(said)).toBeLessThanOrEqual(100);
});

test('a check that was done before a repair in vain may be done again after it', () => {
  const machine = machineOfFamily('hub-head', 'hub-head', 'hub-head');
  const before = [takenIn(machine.id, { lane: 'lane-a', symptoms: ['thin'] }), seen('feel-fan@sink', 'dead')];
  const done = (events: readonly OrderEvent[]) =>
    assess(machine, catalogue, stateOf(machine, events), cold(machine)).checks.find(
      ({ key }) => key === 'feel-fan@sink',
    )?.done;
  expect(done(before)).toBe(true);
  expect(done([...before, ...repaired('sink', 'fan-wrong', 'renew-fan')])).toBe(false);
});

test('taking a finding back restores what was believed before it, bit for bit', () => {
  const machine = machineOfFamily('hub-head', 'hub-head', 'hub-head');
  const intake = takenIn(machine.id, { lane: 'lane-a', symptoms: ['not-reach'] });
  const one = finding('turn-spool@spool-a', 'free');
  const two = finding('lift-hub@hub', 'stub');
  const share = (events: readonly OrderEvent[]) => workOut(machine, catalogue, stateOf(machine, events)).suspicion.p;
  const back = event('event-withdrawn', { eventId: two.id });
  expect(share([intake, one, two, back])).toEqual(share([intake, one]));
  expect(share([intake, one, two])).not.toEqual(share([intake, one]));
});
