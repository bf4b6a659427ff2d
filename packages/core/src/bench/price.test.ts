import fc from 'fast-check';
import type { Machine } from '../path/machine';
import { secondsToCool } from '../physics/heat';
import { dunlin, whelk } from '../testing/machines';
import { benchMinutes, priceOf, unmet, WAITING_RATE, type Need } from './price';
import { inTheWayOf, type Bench } from './state';
import { partsToRefit, partsToRemove } from './closure';

const cold = (machine: Machine): Bench => ({ temperatureC: machine.heat.ambientC, power: 'off', off: new Set() });
const need = (rest: Partial<Need>): Need => ({ heat: 'any', power: 'any', parts: [], hotC: 208, ...rest });
const ids = (list: readonly { readonly id: string }[]): readonly string[] => list.map((part) => part.id);

describe('what must come off', () => {
  test('each part after what holds it, nothing twice, nothing that is off already', () => {
    expect(ids(partsToRemove(dunlin, ['sensor-cover', 'hub-off'], new Set()))).toEqual([
      'front-cover',
      'hub-off',
      'sensor-cover',
    ]);
    expect(ids(partsToRemove(dunlin, ['sensor-cover'], new Set(['front-cover', 'hub-off'])))).toEqual(['sensor-cover']);
    expect(partsToRemove(dunlin, [], new Set())).toEqual([]);
    expect(() => partsToRemove(dunlin, ['lid'], new Set())).toThrow(/no part "lid"/);
  });

  test.each([
    ['Whelk', whelk],
    ['Dunlin', dunlin],
  ])('%s: for any parts wanted, opening is possible in that order, and closing is its reverse', (_name, machine) => {
    const all = machine.parts.map((part) => part.id);
    fc.assert(
      fc.property(fc.subarray([...all]), (wanted) => {
        const off = new Set<string>();
        for (const part of partsToRemove(machine, wanted, new Set())) {
          (part.after ?? []).forEach((first) => expect(off.has(first)).toBe(true));
          off.add(part.id);
        }
        wanted.forEach((id) => expect(off.has(id)).toBe(true));
        for (const part of partsToRefit(machine, off)) {
          // Nothing goes back under something that is on already.
          const above = machine.parts.filter((other) => other.after?.includes(part.id) && off.has(other.id));
          expect(above).toEqual([]);
          off.delete(part.id);
        }
        expect(off.size).toBe(0);
      }),
    );
  });
});

describe('the strand and the head', () => {
  const clear = need({ clear: ['a'] });
  const readyMin = (bench: Bench, wanted = clear): number => benchMinutes(priceOf(dunlin, bench, wanted));

  test('a strand that is out or accounted for costs nothing, one in the tube its unloading, an unknown one a look more', () => {
    const at = (strand: Bench['strand']): Bench => ({ ...cold(dunlin), ...(strand ? { strand } : {}) });
    expect(readyMin(at({ a: 'out' }))).toBe(0);
    expect(readyMin(at({ a: 'remnant' }))).toBe(0);
    expect(readyMin(at({ a: 'tube', b: 'in' }))).toBe(2);
    expect(readyMin(at(undefined))).toBe(3);
    expect(priceOf(dunlin, at({ b: 'in' }), clear).after.strand).toEqual({ a: 'out', b: 'in' });
  });

  test('a strand that reaches the head leaves it molten: heat is part of the price, unless the head cannot be heated as it stands', () => {
    const loaded: Bench = { ...cold(dunlin), strand: { a: 'in' } };
    const price = priceOf(dunlin, loaded, { ...clear, heat: 'cold' });
    expect(price.heatingMin).toBeGreaterThan(0);
    expect(price.coolingMin).toBeGreaterThan(0);
    const hotEnd = dunlin.parts.find(({ heats }) => heats);
    const apart: Bench = {
      ...loaded,
      off: new Set(partsToRemove(dunlin, [hotEnd?.id ?? ''], new Set()).map(({ id }) => id)),
    };
    expect(priceOf(dunlin, apart, clear).heatingMin).toBe(0);
  });

  test('a push by hand wants the head raised and supported, once', () => {
    const price = priceOf(dunlin, cold(dunlin), need({ push: true }));
    expect(price.raiseMin).toBe(1);
    expect(priceOf(dunlin, price.after, need({ push: true })).raiseMin).toBe(0);
  });
});

describe('the price of a state', () => {
  test('being there already costs nothing', () => {
    const price = priceOf(whelk, cold(whelk), need({ heat: 'cold', power: 'off' }));
    expect(benchMinutes(price)).toBe(0);
    expect(price.after).toEqual(cold(whelk));
  });

  test('heating: the degrees by the machine’s rate, and the machine is switched on for it', () => {
    const price = priceOf(whelk, cold(whelk), need({ heat: 'hot' }));
    expect(price.heatingMin).toBeCloseTo((208 - 21) / 1.6 / 60, 9);
    expect(price.powerMin).toBeGreaterThan(0);
    expect(price.after).toMatchObject({ temperatureC: 208, power: 'on' });
  });

  test('cooling to touch and switching off: by the time constant, never off while hot', () => {
    const hot: Bench = { temperatureC: 208, power: 'on', off: new Set() };
    const price = priceOf(whelk, hot, need({ heat: 'cold', power: 'off' }));
    expect(price.coolingMin * 60).toBeCloseTo(secondsToCool(208, 48, 21, 185), 6);
    expect(price.after.power).toBe('off');
    const switchOff = priceOf(whelk, hot, need({ power: 'off' }));
    expect(switchOff.after.temperatureC).toBeLessThanOrEqual(100);
  });

  test('parts ask for their own state: the shroud of a hot machine waits for it to be cold', () => {
    const hot: Bench = { temperatureC: 208, power: 'on', off: new Set() };
    const price = priceOf(whelk, hot, need({ parts: ['shroud'] }));
    expect(price.coolingMin).toBeGreaterThan(2);
    expect(price.opened).toEqual(['shroud']);
    expect([price.openingMin, price.closingMin]).toEqual([3, 3]);
  });

  test('waiting counts at its own rate, work in full', () => {
    const price = priceOf(whelk, cold(whelk), need({ heat: 'hot', parts: ['sock'] }));
    expect(benchMinutes(price)).toBeCloseTo(price.openingMin + price.powerMin + WAITING_RATE * price.heatingMin, 9);
  });

  test('more parts off never make the way dearer, and the state reached meets the need', () => {
    const all = dunlin.parts.map((part) => part.id);
    const heat = fc.constantFrom('any' as const, 'cold' as const, 'hot' as const);
    const power = fc.constantFrom('any' as const, 'off' as const, 'on' as const);
    fc.assert(
      fc.property(
        fc.subarray([...all]),
        fc.subarray([...all]),
        heat,
        power,
        fc.integer({ min: 22, max: 250 }),
        (wanted, already, h, pw, t) => {
          const asked = need({ parts: wanted, heat: h, power: h === 'hot' && pw === 'off' ? 'any' : pw });
          const open = new Set(partsToRemove(dunlin, already, new Set()).map((part) => part.id));
          const bench: Bench = { temperatureC: t, power: 'on', off: new Set() };
          // What keeps heat or power away goes back first, at its own price.
          fc.pre(inTheWayOf(dunlin, { off: open }, asked).length === 0);
          const closed = priceOf(dunlin, bench, asked);
          fc.pre(!closed.impossible);
          const opened = priceOf(dunlin, { ...bench, off: open }, asked);
          expect(opened.openingMin).toBeLessThanOrEqual(closed.openingMin);
          expect(unmet(asked, closed.after)).toBeUndefined();
          wanted.forEach((id) => expect(closed.after.off.has(id)).toBe(true));
        },
      ),
      { numRuns: 80 },
    );
  });
});

test('why a state does not fit, in words for the step', () => {
  const at = (temperatureC: number, power: 'on' | 'off') => ({ temperatureC, power });
  expect(unmet(need({ heat: 'cold' }), at(60, 'off'))).toBe(
    'needs the hot end cold: recorded 60 °C, safe to touch below 48 °C',
  );
  expect(unmet(need({ heat: 'hot' }), at(150, 'on'))).toBe('needs the hot end at 208 °C: recorded 150 °C');
  expect(unmet(need({ heat: 'hot' }), at(200, 'on'))).toBeUndefined();
  expect(unmet(need({ power: 'off' }), at(30, 'on'))).toMatch(/off and unplugged/);
  expect(unmet(need({ power: 'on' }), at(30, 'off'))).toMatch(/switched on/);
});
