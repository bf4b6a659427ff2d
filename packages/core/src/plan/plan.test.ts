import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { partWith, waysTo } from '../bench/closure';
import { benchAt } from '../order/bench';
import type { OrderEvent } from '../order/events';
import { phaseOf } from '../record/phase';
import { judge } from '../order/reduce';
import { recordOf } from '../record/report';
import { recordMarkdown } from '../record/reportMarkdown';
import type { OrderState } from '../order/state';
import { machineOfFamily } from '../path/families';
import type { Machine } from '../path/machine';
import { routeOf } from '../path/route';
import { causesOf } from '../observation/causes';
import { dunlin, event, START, stateOf, takenIn, whelk } from '../testing/machines';
import { allFasteners, stepEntries } from './record';
import { heldBecause, planFor } from './plan';
import { proofsFor } from '../order/proofs';
import { keyOf, type PlanStep } from './steps';

const chosen = (
  machine: Machine,
  station: string,
  mode: string,
  more: readonly OrderEvent[] = [],
  material = 'PLA',
): OrderEvent[] => [
  takenIn(machine, { material, symptoms: ['nothing'] }),
  ...more,
  event('cause-chosen', { station, mode, advised: true }),
];
const planNow = (machine: Machine, state: OrderState) =>
  planFor(machine, catalogue, state, benchAt(machine, state, state.lastMs));
const plan = (machine: Machine, events: readonly OrderEvent[]) => planNow(machine, stateOf(machine, events));
const ids = (steps: readonly PlanStep[]): readonly string[] => steps.map((step) => step.id);

/** What one tap on a step records, as the screen does it: the first choice that fits a loaded machine, every screw counted. */
function tap(step: PlanStep, outcome: 'cleared' | 'no-change', machine: Machine): OrderEvent[] {
  const choice = step.choices?.find(({ id }) => id === 'in' || id === 'out') ?? step.choices?.[0];
  const entries = [
    ...stepEntries(step, choice),
    ...(step.closes ? allFasteners(machine, step.closes, step.way, 'in') : []),
  ];
  const [solvent] = step.solvents ?? [];
  return [
    ...(solvent ? [event('solvent-tried', { solvent: solvent.id, softened: true })] : []),
    ...entries.map(({ type, body }) =>
      event(type, type === 'bench-changed' && body.targetC ? { ...body, readingC: body.targetC } : body),
    ),
    step.kind === 'rung' && step.remedy
      ? event('rung-tried', {
          stepId: step.id,
          remedy: step.remedy,
          outcome,
          ...(step.station ? { station: step.station } : {}),
          ...(step.mode ? { mode: step.mode } : {}),
        })
      : event('step-done', { stepId: step.id }),
  ];
}

/** Does every step as the screen would, until nothing is left. */
function workThrough(
  machine: Machine,
  events: OrderEvent[],
  outcome: (n: number) => 'cleared' | 'no-change' = () => 'cleared',
  each: (step: PlanStep, state: OrderState) => void = () => undefined,
): OrderEvent[] {
  let rungs = 0;
  for (let i = 0; i < 200; i++) {
    const state = stateOf(machine, events);
    const { steps, done } = planNow(machine, state);
    const step = steps[done];
    if (!step) return events;
    each(step, state);
    events.push(...tap(step, step.kind === 'rung' ? outcome(++rungs) : 'cleared', machine));
  }
  throw new Error('the plan does not end');
}

describe('every cause of both machines has a plan that can be worked to its end', () => {
  test.each([
    ['Whelk', whelk],
    ['Dunlin', dunlin],
  ])('%s', (_name, machine) => {
    const causes = causesOf({ machine, catalogue, symptoms: [], before: [] }, routeOf(machine));
    for (const cause of causes) {
      const events = workThrough(machine, chosen(machine, cause.stop.station.id, cause.mode.id), (n) =>
        n === 1 ? 'no-change' : 'cleared',
      );
      const state = stateOf(machine, events);
      // Everything that came off is on again, and it came off after what held it.
      expect(state.off).toEqual([]);
      const { steps } = planNow(machine, state);
      const opened = steps.flatMap((step) => step.opens ?? []);
      const closed = steps.flatMap((step) => step.closes ?? []);
      expect([...closed].sort()).toEqual([...opened].sort());
      for (const id of opened) {
        const way = steps.find((step) => step.opens === id)?.way;
        const after = partWith(machine, id, way).after ?? [];
        after.forEach((first) => expect(opened.indexOf(first)).toBeLessThan(opened.indexOf(id)));
        after.forEach((first) => expect(closed.indexOf(first)).toBeGreaterThan(closed.indexOf(id)));
      }
      for (const { cautions } of steps)
        for (const id of cautions) expect(catalogue.cautions.some((caution) => caution.id === id)).toBe(true);
    }
  });

  test('no step of a plan done in its order is ever held', () => {
    const events = chosen(dunlin, 'extruder', 'gears-worn', [
      event('bench-changed', { targetC: 208, power: 'on', readingC: 208 }),
    ]);
    workThrough(
      dunlin,
      events,
      () => 'cleared',
      (step, state) =>
        expect([step.id, heldBecause(step, benchAt(dunlin, state, Date.parse(START)), dunlin)]).toEqual([
          step.id,
          undefined,
        ]),
    );
  });
});

describe('heat, power and safety', () => {
  test('the head is raised and supported before anything is pushed by hand', () => {
    const push = event('rung-picked', { station: 'hub', mode: 'stub', remedy: 'push-through' });
    const order = ids(plan(dunlin, [...chosen(dunlin, 'hub', 'stub'), push]).steps);
    expect(order.indexOf('raise')).toBeGreaterThanOrEqual(0);
    expect(order.indexOf('raise')).toBeLessThan(order.indexOf('rung:hub:stub:push-through'));
    // Nothing is left under it.
    expect(order.at(-1)).toBe('lower');
  });

  test('from hot to a screw: cool to touch with the fans on, off, then open; never off above 100 °C', () => {
    const hot = event('bench-changed', { targetC: 208, power: 'on', readingC: 208 });
    const first = (station: string, mode: string, id: string): number =>
      ids(plan(dunlin, chosen(dunlin, station, mode, [hot])).steps).findIndex((step) => step.startsWith(id));
    const touched = Math.max(first('extruder', 'gears-worn', 'cool:48'), first('extruder', 'gears-worn', 'wait:48'));
    expect(touched).toBeGreaterThanOrEqual(0);
    expect(first('extruder', 'gears-worn', 'off')).toBeGreaterThanOrEqual(0);
    expect(touched).toBeLessThan(first('extruder', 'gears-worn', 'open:cutter-lever'));
    expect(first('extruder', 'gears-worn', 'off')).toBeLessThan(first('extruder', 'gears-worn', 'open:cutter-lever'));
    // Whatever the order, it is never switched off above 100 °C.
    const lid = workThrough(dunlin, chosen(dunlin, 'gate-a', 'stub', [hot]), () => 'no-change');
    const done = lid.flatMap((item) => (item.type === 'step-done' ? [keyOf(item.body.stepId)] : []));
    expect(done.findIndex((id) => /^(cool|wait)/.test(id))).toBeLessThan(done.indexOf('off'));
  });

  test('a step that does not fit the recorded state is held with its reason', () => {
    const step = plan(dunlin, chosen(dunlin, 'extruder', 'gears-worn')).steps.find(
      (item) => item.opens === 'extruder-cover',
    );
    if (!step) throw new Error('no such step');
    const off = new Set<string>();
    expect(heldBecause(step, { temperatureC: 180, power: 'on', off })).toMatch(/cold: recorded 180 °C/);
    expect(heldBecause(step, { temperatureC: 30, power: 'on', off })).toMatch(/off and unplugged/);
    expect(heldBecause(step, { temperatureC: 30, power: 'off', off })).toBeUndefined();
    const switchOff = plan(
      dunlin,
      chosen(dunlin, 'extruder', 'gears-worn', [event('bench-changed', { power: 'on', targetC: 208, readingC: 208 })]),
    ).steps.find((item) => item.sets?.power === 'off');
    expect(switchOff && heldBecause(switchOff, { temperatureC: 150, power: 'on', off })).toMatch(/below 100 °C/);
  });

  test('nothing is done to a part that is still on its mount, and a plan goes on whatever was tapped', () => {
    const soaked = (family: string, station: string, mode: string, remedy: string) => {
      const machine = machineOfFamily(family, family, family);
      const begun = [...chosen(machine, station, mode), event('rung-picked', { station, mode, remedy })];
      const held = (kind: string): string | undefined => {
        const state = stateOf(machine, begun);
        const step = planFor(machine, catalogue, state, benchAt(machine, state, 0)).steps.find(({ id }) =>
          id.includes(kind),
        );
        if (!step) throw new Error(`no step ${kind}`);
        return heldBecause(
          step,
          { ...benchAt(machine, state, 0), temperatureC: 20, power: 'off', coldSure: true },
          machine,
        );
      };
      return { machine, begun, held };
    };
    const solvent = soaked('geared-flexible', 'nozzle', 'carbon-plug', 'solvent-soak');
    expect(solvent.held('solvent-soak:soak')).toMatch(/must be off first/);
    const belt = soaked('direct-belt', 'liner', 'liner-plug', 'heat-and-pull');
    expect(belt.held('service:')).toMatch(/must be off first/);
    // Said all the same, of a part on its mount: it is dried first, or taken off first, and there is a plan.
    const wet = plan(solvent.machine, [...solvent.begun, event('bench-changed', { wet: ['hot-end'] })]);
    const order = ids(wet.steps);
    expect(order.findIndex((id) => id.startsWith('dry:'))).toBeLessThan(order.findIndex((id) => id.startsWith('heat')));
    expect(order.findIndex((id) => id.startsWith('dry:'))).toBeGreaterThanOrEqual(0);
    const early = [...belt.begun, event('bench-changed', { service: ['hot-end'] })];
    expect(ids(plan(belt.machine, early).steps)).toContain('service:hot-end');
  });

  test('a part comes off the way one picks, at its price; a way that leads nowhere is refused', () => {
    const renew = event('rung-picked', { station: 'liner', mode: 'liner-plug', remedy: 'renew-liner' });
    const events = [...chosen(whelk, 'liner', 'liner-plug'), renew];
    const opened = (more: OrderEvent[]) =>
      ids(plan(whelk, [...events, ...more]).steps).filter((id) => /^(open|close):/.test(id));
    const [cheapest, other] = waysTo(whelk, 'hot-end', new Set());
    expect(opened([])).toContain(`open:hot-end${cheapest?.way ? `/${cheapest.way}` : ''}`);
    const pick = event('way-picked', { part: 'hot-end', ...(other?.way ? { way: other.way } : {}) });
    expect(opened([pick])).toContain(`open:hot-end${other?.way ? `/${other.way}` : ''}`);
    expect(opened([pick])).toContain(`close:hot-end${other?.way ? `/${other.way}` : ''}`);
    expect(plan(whelk, [...events, pick]).handsOnMinutes).toBeGreaterThan(plan(whelk, events).handsOnMinutes);
    const nowhere = event('way-picked', { part: 'hot-end', way: 'through-the-bed' });
    expect(() => judge(whelk, catalogue, events, nowhere)).toThrow(/no part "hot-end" that comes off/);
  });

  test('ways that would each wait for the other are refused together, though either alone is fine', () => {
    const [a, b] = whelk.parts as [Machine['parts'][number], Machine['parts'][number]];
    const other = (after: string) => [{ ...a, id: 'other', name: 'the other way', after: [after] }];
    const machine: Machine = {
      ...whelk,
      parts: [
        { ...a, after: [], ways: other(b.id) },
        { ...b, after: [], ways: other(a.id) },
      ],
    };
    const pick = (part: string) => event('way-picked', { part, way: 'other' });
    const start = [takenIn(machine)];
    expect(judge(machine, catalogue, start, pick(b.id)).pickedWays).toEqual({ [b.id]: 'other' });
    expect(() => judge(machine, catalogue, [...start, pick(a.id)], pick(b.id))).toThrow(/cannot come off that way/);
  });

  test('material and path decide the temperature: the lined path caps nylon', () => {
    const push = (material: string) => {
      const pick = event('rung-picked', { station: 'nozzle', mode: 'tip-particles', remedy: 'hotter-push' });
      return plan(whelk, [...chosen(whelk, 'nozzle', 'tip-particles', [], material), pick]).steps.find(
        (step) => step.remedy === 'hotter-push',
      );
    };
    expect(push('PLA')?.need.hotC).toBe(240); // practice: unclog PLA at 240 °C
    expect(push('PA')?.need.hotC).toBe(whelk.heat.shortLimitC);
    // What runs for long keeps to the long limit of the liner.
    const soak = plan(whelk, [
      ...chosen(whelk, 'nozzle', 'tip-particles', [], 'PA'),
      event('rung-picked', { station: 'nozzle', mode: 'tip-particles', remedy: 'needle' }),
    ]);
    expect(soak.steps.find((step) => step.remedy === 'needle')?.need.hotC).toBe(235);
    expect(push('PLA')?.how).toContain('240 °C');
  });

  test('the needle needs its bore, solvent a plastic that it takes', () => {
    const fine: Machine = {
      ...whelk,
      runs: whelk.runs.map((run) => ({
        ...run,
        stations: run.stations.map((s) => (s.kind === 'nozzle' ? { ...s, params: { ...s.params, boreMm: 0.25 } } : s)),
      })),
    };
    const rungs = (machine: Machine, station: string, mode: string, material = 'PLA'): readonly string[] =>
      workThrough(machine, chosen(machine, station, mode, [], material), () => 'no-change').flatMap((item) =>
        item.type === 'rung-tried' ? [item.body.remedy] : [],
      );
    expect(rungs(whelk, 'nozzle', 'tip-particles')).toContain('needle');
    expect(rungs(fine, 'nozzle', 'tip-particles')).not.toContain('needle');
    expect(rungs(dunlin, 'break', 'break-plug', 'ABS')).toContain('solvent-soak');
    expect(rungs(dunlin, 'break', 'break-plug', 'PA')).not.toContain('solvent-soak');
  });
});

describe('phases and the record', () => {
  const cured = (): OrderEvent[] => {
    const events = workThrough(dunlin, chosen(dunlin, 'hub', 'stub'), (n) => (n === 1 ? 'no-change' : 'cleared'));
    for (const proof of proofsFor(dunlin, catalogue, stateOf(dunlin, events)))
      events.push(
        event('proof-recorded', {
          proof: proof.id,
          passed: true,
          ...(proof.quantity ? { askedMm: 100, fedMm: 92.5, oldStepsPerMm: 400, readingMm: 0.5 } : {}),
        }),
      );
    return events;
  };

  test('trace → plan → prove → record', () => {
    const phase = (events: readonly OrderEvent[]) => phaseOf(dunlin, catalogue, stateOf(dunlin, events));
    expect(phase([takenIn(dunlin)])).toBe('trace');
    expect(phase(chosen(dunlin, 'hub', 'stub'))).toBe('plan');
    expect(phase(workThrough(dunlin, chosen(dunlin, 'hub', 'stub')))).toBe('prove');
    expect(phase(cured())).toBe('record');
  });

  test('a machine without a sensor is not asked to prove one', () => {
    expect(proofsFor(whelk, catalogue, stateOf(whelk, [takenIn(whelk)])).map((proof) => proof.id)).not.toContain(
      'sensor',
    );
    expect(proofsFor(dunlin, catalogue, stateOf(dunlin, [takenIn(dunlin)])).map((proof) => proof.id)).toContain(
      'sensor',
    );
  });

  test('the record has cause, place, remedy, measurements and what to watch; Markdown escapes free text', () => {
    const events = [
      ...cured(),
      event(
        'closed',
        { outcome: 'cured', minutes: 25, watch: 'look <b>again</b> | soon', note: '*old* part kept' },
        40,
      ),
    ];
    const record = recordOf(dunlin, catalogue, events);
    expect(record.cause).toEqual({ place: 'Hub', mode: 'Broken stub left inside' });
    expect(record.remedies).toEqual([
      { name: 'Take it out by hand', outcome: 'no-change' },
      { name: 'Push it through to an open end', outcome: 'cleared' },
    ]);
    expect(record.feed?.stepsPerMm).toBeCloseTo(432.4324, 4);
    expect(record.handsOnMinutes).toBe(25);
    const text = recordMarkdown(record);
    expect(text).toContain('432.43 ± 2.34 steps/mm');
    expect(text).toContain('look \\<b\\>again\\</b\\> \\| soon');
    expect(text).toContain('\\*old\\* part kept');
  });
});
