import fc from 'fast-check';
import type { AccessPart, Machine } from '../path/machine';
import { dunlin } from '../testing/machines';
import { cooledTo, secondsToCool } from '../physics/heat';
import { partsToRefit, partsToRemove, waysOf, type OpenPart } from './closure';
import { openingFor, type Goal } from './opening';
import { schedule, type Moment, type Task } from './schedule';

const part = (id: string, rest: Partial<AccessPart> = {}): AccessPart => ({
  id,
  name: id,
  minutesOff: 1,
  minutesOn: 1,
  heat: 'any',
  power: 'any',
  off: 'off',
  on: 'on',
  ...rest,
});
const machineOf = (parts: readonly AccessPart[]): Machine => ({ ...dunlin, parts });
const cold: Moment = { temperatureC: 22, targetC: 0, power: 'off' };
const hot: Moment = { temperatureC: 210, targetC: 210, power: 'on' };
const goal = (id: string, parts: readonly string[], rest: Partial<Goal> = {}): Goal => ({
  id,
  parts,
  minutes: 2,
  heat: 'any',
  power: 'any',
  hotC: 210,
  ...rest,
});
const ids = (list: readonly { readonly id: string }[]): readonly string[] => list.map(({ id }) => id);
const minutes = (list: readonly OpenPart[]): number =>
  list.reduce((sum, { minutesOff, minutesOn }) => sum + minutesOff + minutesOn, 0);

/** Small random access graphs: up to six parts, each with up to two ways, circles among them. */
const graphs = fc
  .array(
    fc.record({
      usual: fc.tuple(fc.integer({ min: 1, max: 9 }), fc.uniqueArray(fc.integer({ min: 0, max: 5 }), { maxLength: 2 })),
      other: fc.option(
        fc.tuple(fc.integer({ min: 1, max: 9 }), fc.uniqueArray(fc.integer({ min: 0, max: 5 }), { maxLength: 2 })),
      ),
    }),
    { minLength: 2, maxLength: 6 },
  )
  .map((list) =>
    machineOf(
      list.map(({ usual, other }, i) => {
        const after = (to: readonly number[]): readonly string[] =>
          to.filter((k) => k !== i && k < list.length).map((k) => `p${k}`);
        const removal = ([minutesOff, to]: readonly [number, readonly number[]]) => ({
          minutesOff,
          minutesOn: 0,
          after: after(to),
          heat: 'any' as const,
          power: 'any' as const,
          off: '',
          on: '',
        });
        return part(`p${i}`, {
          ...removal(usual),
          ...(other ? { ways: [{ id: 'b', name: 'from below', ...removal(other) }] } : {}),
        });
      }),
    ),
  );

/** Every choice of parts and ways, tried one by one; the fewest minutes, or undefined when nothing leads there. */
function byTrying(machine: Machine, wanted: readonly string[], off: ReadonlySet<string>): number | undefined {
  const options = machine.parts.map((item) => [undefined, ...waysOf(item)]);
  let best: number | undefined;
  const go = (i: number, chosen: readonly OpenPart[]): void => {
    if (i < options.length) {
      for (const option of options[i] ?? []) go(i + 1, option ? [...chosen, option] : chosen);
      return;
    }
    const gone = new Set(off);
    for (let moved = true; moved;) {
      moved = false;
      for (const item of chosen)
        if (!gone.has(item.id) && (item.after ?? []).every((id) => gone.has(id))) {
          gone.add(item.id);
          moved = true;
        }
    }
    if (!wanted.every((id) => gone.has(id)) || chosen.some(({ id }) => off.has(id))) return;
    if (best === undefined || minutes(chosen) < best) best = minutes(chosen);
  };
  go(0, []);
  return best;
}

test('the cheapest opening is the one that trying everything finds, alternatives and circles included', () => {
  fc.assert(
    fc.property(
      graphs,
      fc.uniqueArray(fc.integer({ min: 0, max: 5 }), { minLength: 1, maxLength: 3 }),
      fc.uniqueArray(fc.integer({ min: 0, max: 5 }), { maxLength: 2 }),
      (machine, wanted, already) => {
        const want = wanted.map((i) => `p${i % machine.parts.length}`);
        const off = new Set(already.map((i) => `p${i % machine.parts.length}`));
        const least = byTrying(machine, want, off);
        if (least === undefined) expect(() => partsToRemove(machine, want, off)).toThrow(/No way leads/);
        else expect(minutes(partsToRemove(machine, want, off))).toBe(least);
      },
    ),
    { numRuns: 300 },
  );
});

test('nothing comes off while something that must be off first is on; closing is the reverse of the ways that were used', () => {
  fc.assert(
    fc.property(graphs, fc.integer({ min: 0, max: 5 }), (machine, i) => {
      const want = [`p${i % machine.parts.length}`];
      if (byTrying(machine, want, new Set()) === undefined) return;
      const gone = new Set<string>();
      const order = partsToRemove(machine, want, new Set());
      for (const item of order) {
        (item.after ?? []).forEach((id) => expect(gone.has(id)).toBe(true));
        gone.add(item.id);
      }
      const ways = Object.fromEntries(order.flatMap(({ id, way }) => (way === undefined ? [] : [[id, way]])));
      for (const item of partsToRefit(machine, gone, ways)) {
        const used = order.find(({ id }) => id === item.id);
        expect(item.way).toBe(used?.way);
        // Whatever came off after it, because of it, is back already.
        order.filter(({ after }) => after?.includes(item.id)).forEach(({ id }) => expect(gone.has(id)).toBe(false));
        gone.delete(item.id);
      }
      expect(gone.size).toBe(0);
    }),
    { numRuns: 200 },
  );
});

test('two goals share one opening, and what is off already is not opened again', () => {
  const machine = machineOf([part('cover'), part('hub', { after: ['cover'] }), part('lever', { after: ['cover'] })]);
  const both = [goal('a', ['hub']), goal('b', ['lever'])];
  const { off, on } = openingFor(machine, { off: new Set() }, both);
  expect([...ids(off)].sort()).toEqual(['cover', 'hub', 'lever']);
  expect([...ids(on)].sort()).toEqual(['cover', 'hub', 'lever']);
  const later = openingFor(machine, { off: new Set(['cover']) }, both);
  expect([...ids(later.off)].sort()).toEqual(['hub', 'lever']);
  expect([...ids(later.on)].sort()).toEqual(['cover', 'hub', 'lever']);
});

test('one side of a mirrored machine is finished before the other is opened', () => {
  const machine = machineOf([
    part('left', { side: 'left', minutesOff: 1 }),
    part('left-inner', { side: 'left', after: ['left'] }),
    part('right', { side: 'right' }),
  ]);
  const goals = [goal('a', ['left-inner']), goal('b', ['right'])];
  const { turns } = schedule(machine, cold, openingFor(machine, { off: new Set() }, goals).tasks);
  const order = turns.map(({ task }) => task.id);
  const [first, second] = order[0] === 'open:left' ? ['left', 'right'] : ['right', 'left'];
  expect(order.indexOf(`close:${first}`)).toBeLessThan(order.indexOf(`open:${second}`));
});

describe('heat is scheduled with the work', () => {
  const machine = machineOf([part('cover'), part('shroud', { heat: 'cold', power: 'off' })]);
  const goals = [
    goal('screws', ['shroud'], { heat: 'cold', power: 'off' }),
    goal('pull', [], { heat: 'hot', power: 'on' }),
    goal('needle', ['cover'], { heat: 'hot', power: 'on' }),
  ];
  const { tasks } = openingFor(machine, { off: new Set() }, goals);

  test('a hot machine: hot steps together, then cooling, then off; what can be done meanwhile is', () => {
    const { turns, waitingMinutes } = schedule(machine, hot, tasks);
    const order = turns.map(({ task }) => task.id);
    expect(Math.max(order.indexOf('pull'), order.indexOf('needle'))).toBeLessThan(order.indexOf('open:shroud'));
    expect(turns.filter((turn) => turn.target !== undefined)).toHaveLength(1);
    expect(turns.find((turn) => turn.switched === 'off')?.before.targetC).toBe(0);
    // The cover goes back on while it cools.
    const { coolTauS, ambientC } = machine.heat;
    expect(waitingMinutes).toBeLessThan(secondsToCool(210, 48, ambientC, coolTauS) / 60 - 0.9);
  });

  test('a cold machine: cold work first, heated once', () => {
    const { turns } = schedule(machine, cold, tasks);
    const order = turns.map(({ task }) => task.id);
    expect(order.indexOf('screws')).toBeLessThan(order.indexOf('pull'));
    expect(turns.filter((turn) => turn.target !== undefined)).toHaveLength(1);
  });
});

/** The same machine worked out plainly: every order that is allowed, with every target before every task. */
function byEveryOrder(machine: Machine, start: Moment, tasks: readonly Task[]): number {
  const { ambientC, coolTauS, heatUpCPerS } = machine.heat;
  const pass = (m: Moment, min: number): Moment => ({
    ...m,
    temperatureC:
      m.targetC >= m.temperatureC
        ? Math.min(m.targetC, m.temperatureC + heatUpCPerS * 60 * min)
        : Math.max(m.targetC, cooledTo(m.temperatureC, Math.min(ambientC, m.temperatureC), coolTauS, min * 60)),
  });
  const go = (done: ReadonlySet<string>, now: Moment): number => {
    if (done.size === tasks.length) return 0;
    let best = Infinity;
    for (const task of tasks) {
      if (done.has(task.id) || task.after.some((id) => !done.has(id))) continue;
      for (const target of new Set([0, now.targetC, ...tasks.filter((t) => t.heat === 'hot').map((t) => t.hotC)])) {
        if (task.heat === 'hot' && Math.abs(target - task.hotC) > 10) continue;
        if ((task.heat === 'cold' || task.power === 'off') && target > 0) continue;
        let m = now;
        let cost = task.minutes;
        const spend = (min: number): void => {
          cost += min;
          m = pass(m, min);
        };
        const wait = (toC: number): void => {
          const min =
            toC > m.temperatureC
              ? (toC - m.temperatureC) / heatUpCPerS / 60
              : secondsToCool(m.temperatureC, toC, ambientC, coolTauS) / 60;
          cost += min / 2;
          m = { ...m, temperatureC: toC };
        };
        if (target > 0 && m.power === 'off') {
          m = { ...m, power: 'on' };
          spend(0.5);
        }
        if (target !== m.targetC) {
          m = { ...m, targetC: target, coldSure: target === 0 && m.coldSure !== false };
          spend(0.5);
        }
        if (task.heat === 'hot' && Math.abs(m.temperatureC - target) > 10) wait(target);
        if (task.heat === 'cold' && m.temperatureC > 48) wait(48);
        else if (task.heat === 'cold' && m.coldSure === false) cost += 0.05;
        if (task.heat === 'cold') m = { ...m, coldSure: true };
        if (task.power === 'off' && m.power === 'on') {
          if (m.temperatureC > 100) wait(100);
          m = { ...m, power: 'off' };
          spend(0.5);
        } else if (task.power === 'on' && m.power === 'off') {
          m = { ...m, power: 'on' };
          spend(0.5);
        }
        best = Math.min(best, cost + go(new Set([...done, task.id]), pass(m, task.minutes)));
      }
    }
    return best;
  };
  return go(new Set(), start);
}

test('the schedule costs no more than the best of all orders, but for the coarseness of its states', () => {
  const task = fc.record({
    minutes: fc.integer({ min: 1, max: 8 }),
    heat: fc.constantFrom('any' as const, 'cold' as const, 'hot' as const),
    power: fc.constantFrom('any' as const, 'off' as const, 'on' as const),
    after: fc.uniqueArray(fc.integer({ min: 0, max: 3 }), { maxLength: 2 }),
  });
  fc.assert(
    fc.property(fc.array(task, { minLength: 1, maxLength: 5 }), fc.boolean(), (list, warm) => {
      const tasks = list.map((item, i): Task => ({
        id: `t${i}`,
        kind: 'work',
        hotC: 210,
        ...item,
        power: item.heat === 'hot' && item.power === 'off' ? 'any' : item.power,
        after: item.after.filter((k) => k < i).map((k) => `t${k}`),
      }));
      const start = warm ? hot : cold;
      const found = schedule(dunlin, start, tasks);
      const cost = found.handsOnMinutes + found.waitingMinutes / 2;
      const least = byEveryOrder(dunlin, start, tasks);
      expect(cost).toBeGreaterThan(least - 1e-6);
      expect(cost).toBeLessThan(least + 0.5);
      expect(found.exact).toBe(true);
      const order = found.turns.map((turn) => turn.task.id);
      tasks.forEach((item) =>
        item.after.forEach((id) => expect(order.indexOf(id)).toBeLessThan(order.indexOf(item.id))),
      );
    }),
    { numRuns: 60 },
  );
});

test('steps that wait for each other are refused, not searched for ever', () => {
  const task = (id: string, after: string): Task => ({
    id,
    kind: 'work',
    minutes: 1,
    heat: 'any',
    power: 'any',
    hotC: 0,
    after: [after],
  });
  expect(() => schedule(dunlin, cold, [task('a', 'b'), task('b', 'a')])).toThrow(/in a circle/);
});
