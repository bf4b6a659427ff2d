import fc from 'fast-check';
import type { Bench } from '../bench/state';
import { deliveredCatalogue as catalogue } from '../catalogue/index';
import type { Catalogue } from '../catalogue/types';
import { routeOf } from '../path/route';
import type { OrderState } from '../order/state';
import type { Machine } from '../path/machine';
import { remembered } from '../testing/remembered';
import { dunlin, finding, stateOf, takenIn, whelk } from '../testing/machines';
import { answeredKeys } from './answered';
import { assess } from '../explain/assess';
import { barredKeys } from '../explain/barred';
import { whatChanged } from '../explain/changed';
import { workOut } from './working';
import { informationOf, type CheckForecast, type Search } from './checkForecast';
import { decide } from './decide';
import { Forecasts } from './forecasts';
import { liveOf } from './model';

const cold = (machine = dunlin): Bench => ({ temperatureC: machine.heat.ambientC, power: 'off', off: new Set() });
const order = (...findings: Parameters<typeof finding>[]) =>
  stateOf(dunlin, [
    takenIn(dunlin, { material: 'PLA', symptoms: ['not-reach'], onset: 'loading' }),
    ...findings.map((args) => finding(...args)),
  ]);

function worked(state: OrderState, bench: Bench, machine: Machine, from: Catalogue, search?: Search) {
  const { model, evidence, suspicion } = workOut(machine, from, state);
  const found = decide(
    model,
    suspicion,
    bench,
    evidence,
    barredKeys(state),
    answeredKeys(model, state.findings),
    search,
  );
  return { model, suspicion, ...found };
}
const known = remembered(worked, (state, bench, machine, _from, search) => [
  state.intake,
  state.findings,
  bench,
  machine.id,
  search,
]);
/** What is decided; worked out once where it is asked of the same, which most tests begin with. */
const decision = (state = order(), bench = cold(), machine = dunlin, from: Catalogue = catalogue, search?: Search) =>
  from === catalogue && !search?.expired
    ? known(state, bench, machine, from, search)
    : worked(state, bench, machine, from, search);
const checkNamed = (list: readonly CheckForecast[], key: string): CheckForecast => {
  const found = list.find((item) => item.place.key === key);
  if (!found) throw new Error(`${key} is not offered`);
  return found;
};

describe('worth of a check', () => {
  // Shannon 1948: information is the mutual information of cause and answer, in bits; never above log2 of the answers.
  test('bits are the mutual information, computed here the other way round: H(answer) − H(answer | cause)', () => {
    const { model, suspicion, checks } = decision();
    const { live, p: posterior } = liveOf(model, suspicion);
    const forecasts = new Forecasts(model, suspicion, live);
    const h = (list: readonly number[]): number => list.reduce((sum, p) => (p > 0 ? sum - p * Math.log2(p) : sum), 0);
    for (const check of checks) {
      const rows = forecasts.rows(check.index);
      const answers = h(check.outcomes.map((outcome) => outcome.probability));
      const given = posterior.reduce((sum, p, cause) => sum + p * h(rows.map((row) => row[cause] ?? 0)), 0);
      expect(check.bits).toBeCloseTo(answers - given, 6);
      expect(check.bits).toBeLessThanOrEqual(Math.log2(rows.length) + 1e-9);
    }
  });

  // Twelve coins, one false, heavier or lighter: 24 cases, 3 answers, so at least log 24 / log 3 = 2.893 weighings.
  test('no sequence of k answers of n kinds tells more than n^k cases apart: the twelve coins need three weighings', () => {
    const weigh = (left: readonly number[], right: readonly number[], coin: number, sign: number): number =>
      Math.sign((left.includes(coin) ? sign : 0) - (right.includes(coin) ? sign : 0));
    const plan = [
      [
        [4, 6, 7, 8],
        [5, 9, 10, 11],
      ],
      [
        [1, 2, 3, 5],
        [4, 6, 10, 11],
      ],
      [
        [0, 3, 6, 10],
        [1, 4, 7, 9],
      ],
    ] as const;
    const cases = Array.from({ length: 24 }, (_, i) => ({ coin: i >> 1, sign: i % 2 ? 1 : -1 }));
    const even = cases.map(() => 1 / 24);
    // Bits that k weighings of this plan give about 24 even cases: each sequence of results is one answer.
    const told = (k: number): number => {
      const answers = new Map<string, number[]>();
      cases.forEach(({ coin, sign }, i) => {
        const key = plan
          .slice(0, k)
          .map(([l, r]) => weigh(l, r, coin, sign))
          .join();
        const row = answers.get(key) ?? cases.map(() => 0);
        row[i] = 1;
        answers.set(key, row);
      });
      return informationOf([...answers.values()], even);
    };
    expect(Math.log2(24) / Math.log2(3)).toBeCloseTo(2.893, 3);
    expect(told(1)).toBeCloseTo(Math.log2(3), 9);
    expect(told(2)).toBeLessThanOrEqual(2 * Math.log2(3));
    expect(told(2)).toBeLessThan(Math.log2(24));
    expect(told(3)).toBeCloseTo(Math.log2(24), 9);
  });

  test('a check that reaches no live cause is not offered', () => {
    const only: Catalogue = { ...catalogue, modes: catalogue.modes.filter((mode) => mode.id === 'tip-particles') };
    const { checks } = decision(order(), cold(), dunlin, only);
    expect(checks.some((item) => item.place.check.id === 'turn-spool' && item.bits > 0.05)).toBe(false);
    expect(checks.some((item) => item.place.station === 'nozzle')).toBe(true);
  });

  test('a higher price never makes a check better', () => {
    const key = 'push-strand@gate-a>end';
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 60 }), (extra) => {
        const dearer: Catalogue = {
          ...catalogue,
          checks: catalogue.checks.map((check) =>
            check.id === 'push-strand' ? { ...check, minutes: check.minutes + extra } : check,
          ),
        };
        const before = checkNamed(decision().checks, key).expectedMinutes;
        const after = checkNamed(decision(order(), cold(), dunlin, dearer).checks, key).expectedMinutes;
        expect(after).toBeCloseTo(before + extra, 6);
      }),
      { numRuns: 3 },
    );
  });
});

describe('the state of the bench', () => {
  test('hot already, a hot check costs its minutes only; cold, the heating too', () => {
    const hot: Bench = { temperatureC: 208, power: 'on', off: new Set() };
    const coldFirst = checkNamed(decision().checks, 'free-air@nozzle');
    const hotFirst = checkNamed(decision(order(), hot).checks, 'free-air@nozzle');
    expect(hotFirst.price.heatingMin).toBe(0);
    expect(coldFirst.price.heatingMin).toBeCloseTo((208 - 22) / 2.6 / 60, 2);
    expect(checkNamed(decision(order(), hot).checks, 'tug@port-a').price.coolingMin).toBeGreaterThan(1);
  });

  test('what is open already makes the check behind it cheap', () => {
    const open: Bench = { ...cold(), off: new Set(['front-cover', 'hub-off']) };
    expect(checkNamed(decision().checks, 'lift-hub@hub').price.openingMin).toBeGreaterThan(2);
    expect(checkNamed(decision(order(), open).checks, 'lift-hub@hub').price.openingMin).toBe(0);
  });

  test('at heat the hot checks come further up the list', () => {
    const state = stateOf(whelk, [takenIn(whelk, { symptoms: ['nothing', 'clicks'], material: 'PLA' })]);
    const at = (bench: Bench) => decision(state, bench, whelk).checks;
    const hot = at({ temperatureC: 208, power: 'on', off: new Set() });
    const before = at(cold(whelk));
    const first = (list: typeof hot): number => list.findIndex((item) => item.place.check.heat === 'hot');
    expect(first(hot)).toBeLessThanOrEqual(first(before));
    for (const item of hot.filter(({ place }) => place.check.heat === 'hot'))
      expect(item.checkMinutes).toBeLessThan(
        (before.find(({ place }) => place.key === item.place.key)?.checkMinutes ?? 0) - 0.5,
      );
  });
});

describe('stopping', () => {
  test('a check is advised while it saves minutes, a repair once it does not', () => {
    expect(decision().advice).toBe('check');
    const told = decision(
      order(['push-strand@gate-a>end', 'stops', 901], ['free-tube@port-a', 'clear'], ['lift-hub@hub', 'stub']),
    );
    expect(told.advice).toBe('repair');
    expect(told.model.groups[told.repairOrder[0] ?? -1]?.station.id).toBe('hub');
  });

  test('looking two checks ahead never promises less than one', () => {
    const one = decision();
    const two = decision(order(), cold(), dunlin, catalogue, { depth: 2 });
    expect(two.complete).toBe(true);
    expect(two.repairMinutes).toBeLessThanOrEqual(one.repairMinutes + 1e-9);
    const before = new Map(one.checks.map((check) => [check.index, check.expectedMinutes]));
    for (const check of two.checks.filter((item) => item.depth === 2))
      expect(check.expectedMinutes).toBeLessThanOrEqual((before.get(check.index) ?? 0) + 0.5);
  });

  test('out of time, the best so far stands', () => {
    const hurried = decision(order(), cold(), dunlin, catalogue, { depth: 2, expired: () => true });
    expect(hurried.complete).toBe(false);
    expect(hurried.checks.map((check) => check.index)).toEqual(decision().checks.map((check) => check.index));
  });

  test('a check that would only repeat what is known forecasts just that', () => {
    // Knocking was heard: the same ear at the same extruder will hear it again, whatever the cause.
    const forecast = (state: ReturnType<typeof order>): number =>
      checkNamed(decision(state).checks, 'listen@extruder').outcomes.find(({ outcome }) => outcome.result === 'knocks')
        ?.probability ?? 0;
    const clicks = stateOf(dunlin, [takenIn(dunlin, { material: 'PLA', symptoms: ['not-reach', 'clicks'] })]);
    const silent = stateOf(dunlin, [takenIn(dunlin, { material: 'PLA', symptoms: ['not-reach'] })]);
    expect(forecast(clicks)).toBeGreaterThan(2 * forecast(silent));
  });
});

describe('the assessment', () => {
  /** By the search of an answer at once, which is many times as fast; worked out once where it is asked of the same. */
  const assessed = remembered(
    (state: OrderState, bench: Bench) => assess(dunlin, catalogue, state, bench, { depth: 1, quick: true }),
    (state, bench) => [state.intake, state.findings, state.failures, state.notDone, bench],
  );

  test('reasons are the deciding numbers', () => {
    const state = order();
    const view = assess(dunlin, catalogue, state, cold());
    const { checks } = decision(state);
    const best = view.checks[0];
    expect(best?.key).toBe(checks[0]?.place.key);
    expect(best?.expectedMinutes).toBe(checks[0]?.expectedMinutes);
    const sum = best?.outcomes.reduce((total, outcome) => total + outcome.probability, 0) ?? 0;
    expect(sum).toBeCloseTo(1, 9);
    const percent = Math.round(
      100 *
        (best?.outcomes.find(({ label }) => best.because[0]?.startsWith(`If the answer is “${label}”`))?.probability ??
          -1),
    );
    expect(best?.because[0]).toContain(`(${percent}\u00a0% likely)`);
    for (const why of view.checks.flatMap(({ because }) => because)) expect(why).toMatch(/^[A-Z“].*\.$/);
  });

  test('what passed is cleared by that finding, and one line says what changed', () => {
    const before = assessed(order(), cold());
    const after = assessed(order(['push-strand@gate-a>end', 'stops', 901]), cold());
    const cleared = after.cleared.flatMap((span) => span.stations);
    expect(cleared).toEqual(expect.arrayContaining(['gate-a', 'tube-a']));
    expect(cleared).not.toContain('hub');
    expect(after.cleared[0]?.by[0]).toMatch(/stops at 901 mm/);
    expect(whatChanged(before, after)).toMatch(/ are cleared\. Hub rises from \d+\s% to \d+\s%\./);
  });

  test('a finding about the whole path clears no single place', () => {
    const after = assessed(order(['bend-piece@spool-a', 'snaps'], ['free-air@nozzle', 'none']), cold());
    expect(after.cleared).toEqual([]);
  });

  test('a check that could not be done is not offered again', () => {
    const first = assessed(order(), cold()).checks[0]?.key ?? '';
    const state = { ...order(), notDone: [{ id: 'n', key: first, why: 'No tool for it' }] };
    expect(assessed(state, cold()).checks.some((check) => check.key === first)).toBe(false);
  });

  test('a check answered with "not sure" is offered last', () => {
    const first = assess(dunlin, catalogue, order(), cold()).checks[0]?.key ?? '';
    const after = assess(dunlin, catalogue, order([first, 'not-sure']), cold());
    expect(after.checks[0]?.key).not.toBe(first);
    expect(after.checks.at(-1)).toMatchObject({ key: first, done: true });
    expect(after.stations).toEqual(assess(dunlin, catalogue, order(), cold()).stations);
  });

  test('a repair that did not cure counts against what it should have cured', () => {
    const state = order(['push-strand@gate-a>end', 'stops', 901]);
    const failed = {
      ...state,
      failures: [{ id: 'r', station: 'hub', mode: 'stub', remedies: ['push-through', 'take-out'] }],
    };
    const share = (s: typeof state): number =>
      assessed(s, cold()).causes.find((cause) => cause.station === 'hub' && cause.mode === 'stub')?.suspicion ?? 0;
    expect(share(failed)).toBeLessThan(share(state) / 3);
  });

  test('every lane of the machine has its own route', () => {
    expect(routeOf(dunlin, 'lane-c').stops[0]?.station.id).toBe('spool-c');
    expect(() => routeOf(dunlin, 'lane-x')).toThrow(/no lane "lane-x"/);
  });
});

describe('an answer at once', () => {
  const findings = [
    ['turn-spool@spool-a', 'free'],
    ['push-strand@gate-a>end', 'stops', 901],
    ['bend-piece@spool-a', 'bends'],
  ] as const;
  test('names a check whose worth, with every hypothesis, is within a minute of the best', () => {
    for (let n = 0; n <= findings.length; n++) {
      const state = order(
        ...findings.slice(0, n).map(([key, result, value]) => [key, result, value] as [string, string, number?]),
      );
      const full = decision(state);
      const quick = decision(state, cold(), dunlin, catalogue, { depth: 1, quick: true });
      expect(quick.advice).toBe(full.advice);
      expect(quick.repairMinutes).toBeCloseTo(full.repairMinutes, 9);
      const named = checkNamed(full.checks, quick.checks[0]?.place.key ?? '');
      expect(named.expectedMinutes - (full.checks[0]?.expectedMinutes ?? 0)).toBeLessThan(1);
      // The leading ones are worked out in full, and so tell the same.
      expect(quick.checks[0]?.expectedMinutes).toBeCloseTo(named.expectedMinutes, 9);
    }
  });

  test('looks as closely at a check that was asked about', () => {
    const last = decision().checks.at(-1) as CheckForecast;
    const search: Search = { depth: 1, quick: true, also: [last.place.key] };
    const quick = decision(order(), cold(), dunlin, catalogue, search);
    expect(checkNamed(quick.checks, last.place.key).bits).toBeCloseTo(last.bits, 9);
  });
});
