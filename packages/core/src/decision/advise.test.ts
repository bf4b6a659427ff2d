import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { dunlin, finding, stateOf, takenIn, whelk } from '../testing/machines';
import {
  CARRIED,
  carried,
  SOUND_RENEWED_MIN,
  checkFirst,
  lookAgain,
  lookFirst,
  mendedAnyway,
  nextOpening,
  ranked,
  sparing,
  tellingMuch,
} from './advise';
import type { CheckForecast } from './checkForecast';
import { Forecasts } from './forecasts';
import { Lookahead } from './lookahead';
import { liveOf, type Model } from './model';
import { workOut } from './working';
import { decide } from './decide';
import { QUICK } from '../inference/hypotheses';

const COLD = { temperatureC: whelk.heat.ambientC, power: 'off', off: new Set<string>() } as const;

describe('nobody renews a part that is probably sound for next to nothing', () => {
  /** With every repair so much longer, and each of them renewing a part, or none; without a check that is left, or with all. */
  const deciding = (symptom: string) => {
    const state = stateOf(whelk, [takenIn(whelk, { symptoms: [symptom], material: 'PLA' })]);
    const { model, suspicion, evidence } = workOut(whelk, catalogue, state, QUICK);
    return (longer: number, renews: boolean, barred = new Set(model.places.map(({ key }) => key))) => {
      const groups = model.groups.map(({ remedy: { replaces: _replaces, ...remedy }, ...group }) => ({
        ...group,
        remedy: { ...remedy, minutes: remedy.minutes + longer, ...(renews ? { replaces: 'a part' } : {}) },
      }));
      return decide({ ...model, groups }, suspicion, COLD, evidence, barred, new Set(), { depth: 1 });
    };
  };
  const longer = Array.from({ length: 18 }, (_, i) => 5 * i);

  test('with no check left a repair is tried while it pays well, then somebody is asked, then nothing is worth its minutes', () => {
    const decided = deciding('not-hot');
    const said = longer.map((min) => {
      const [cleaning, renewing] = [decided(min, false), decided(min, true)];
      if (cleaning.repairOrder.length === 0) return 'nothing';
      if (renewing.repairOrder.length > 0) {
        expect(renewing.repairOrder).toEqual(cleaning.repairOrder);
        return 'tried';
      }
      // What renews nothing would be tried; here it brings less than a sound part that is renewed costs.
      expect(renewing).toMatchObject({ advice: 'repair', carried: 0 });
      const brings = renewing.repairMinutes - cleaning.repairMinutes;
      expect(brings).toBeGreaterThan(0);
      expect(brings).toBeLessThanOrEqual((1 - cleaning.carried) * SOUND_RENEWED_MIN);
      expect(cleaning.carried).toBeLessThan(CARRIED);
      return 'asked';
    });
    expect(said.filter((one, i) => one !== said[i - 1])).toEqual(['tried', 'asked', 'nothing']);
  });

  test('a repair that carries itself is done all the same', () => {
    const decided = deciding('bubbles');
    expect(decided(0, false).carried).toBeGreaterThan(CARRIED);
    for (const min of longer) expect(decided(min, true).repairOrder).toEqual(decided(min, false).repairOrder);
  });

  test('while a check is worth its minutes nobody is asked', () => {
    const decided = deciding('not-hot');
    const asked = longer.filter(
      (min) => decided(min, false).repairOrder.length > 0 && decided(min, true).repairOrder.length === 0,
    );
    expect(asked.length).toBeGreaterThan(0);
    for (const min of asked)
      expect(decided(min, true, new Set())).toMatchObject({
        advice: 'check',
        repairOrder: decided(min, false).repairOrder,
      });
  });
});

const check = (expectedMinutes: number, rest: Partial<CheckForecast> = {}): CheckForecast =>
  ({
    index: 0,
    expectedMinutes,
    bits: 0.5,
    renewsSound: 0,
    done: false,
    price: { opened: [] },
    place: { check: { minutes: 1, heat: 'any' } },
    ...rest,
  }) as unknown as CheckForecast;

describe('whether a check comes before the repair', () => {
  // The bounds are chosen; what is held here is that they are minutes at the bench and not tens of them.
  test.each([
    ['saves a minute of an even bet', 19, 0.5, false, true],
    ['saves nothing to speak of', 19.9, 0.5, false, false],
    ['saves a minute where the fault is as good as found', 19, 0.8, false, false],
    ['saves three minutes where it is as good as found', 17, 0.8, false, true],
    ['costs four minutes before a part is renewed that may be sound', 24, 0.5, true, true],
    ['costs four minutes before a mere cleaning', 24, 0.5, false, false],
    ['costs four minutes where no repair carries itself', 24, 0.2, false, true],
  ])('%s', (_name, minutes, share, replaces, first) => {
    expect(checkFirst(check(minutes), share, { replaces, again: false }, 20, 120)).toBe(first);
  });

  test('one that tells nothing does not, however little carries the repair', () => {
    expect(checkFirst(check(24, { bits: 0.001 }), 0.2, { replaces: false, again: false }, 20, 120)).toBe(false);
  });
});

test('a check spares a sound part only as far as its answers change what is renewed', () => {
  expect(checkFirst(check(20, { renewsSound: 0.5 }), 0.5, { replaces: true, again: false }, 20, 120)).toBe(false);
  expect(checkFirst(check(24, { renewsSound: 0.5 }), 0.5, { replaces: true, again: false }, 20, 120)).toBe(false);
  expect(checkFirst(check(24, { renewsSound: 0.1 }), 0.5, { replaces: true, again: false }, 20, 120)).toBe(true);
  // One that would lead to more sound parts renewed is not held against the repair twice: its minutes alone count.
  expect(checkFirst(check(19, { renewsSound: 0.9 }), 0.5, { replaces: true, again: false }, 20, 120)).toBe(true);
});

test('nothing is given up while a check still tells something and costs little more than giving up', () => {
  expect(checkFirst(check(130, { bits: 0.1 }), 0, { replaces: false, again: false }, 120, 120)).toBe(true);
  expect(checkFirst(check(130, { bits: 0.01 }), 0, { replaces: false, again: false }, 120, 120)).toBe(false);
  expect(checkFirst(check(160, { bits: 0.1 }), 0, { replaces: false, again: false }, 120, 120)).toBe(false);
});

test('before the rest is given up, the quickest check that tells much is asked, also behind one that tells nothing', () => {
  const list = [
    check(100, { index: 1, bits: 0.001 }),
    check(110, { index: 2, bits: 0.1 }),
    check(115, { index: 3, done: true }),
    check(130, { index: 4 }),
    check(140, { index: 5, bits: 0.9 }),
    check(190, { index: 6, bits: 0.9 }),
  ];
  const comesFirst = (one: CheckForecast): boolean => checkFirst(one, 0, { replaces: false, again: false }, 120, 120);
  expect(tellingMuch(list, comesFirst)?.index).toBe(4);
  expect(tellingMuch(list.slice(0, 3), comesFirst)).toBeUndefined();
  // More than half an hour beyond giving up is too much.
  expect(tellingMuch(list.slice(5), comesFirst)).toBeUndefined();
});

test('before a part is renewed the check is weighed with the sound parts that would be renewed after it', () => {
  const [quick, sure, slow] = [
    check(20, { renewsSound: 0.4 }),
    check(24, { renewsSound: 0.05 }),
    check(60, { renewsSound: 0 }),
  ];
  expect(sparing([quick, slow, sure])).toEqual([sure, quick]);
});

describe('after a gentler repair in vain', () => {
  test('a check is worth its minutes as before anything was found', () => {
    const first = (again: boolean) => checkFirst(check(19), 0.8, { replaces: false, again }, 20, 120);
    expect([first(false), first(true)]).toEqual([false, true]);
  });

  test('the quickest look that would speak the place free comes before a new part; a swap, a long or a dull look does not', () => {
    const look = (minutes: number, clean: number, rest: object = {}): CheckForecast =>
      check(60, {
        checkMinutes: minutes,
        outcomes: [
          { probability: 0.7, stations: [0, 0.95] },
          { probability: 0.3, stations: [0, clean] },
        ],
        place: { reach: new Set([1]), check: { reach: 'station', ...rest } },
      } as unknown as Partial<CheckForecast>);
    const [slow, quick] = [look(5, 0.2), look(2, 0.2)];
    const here = new Set([1]);
    expect(lookAgain([slow, quick], here, 0.85)).toBe(quick);
    expect(lookAgain([look(2, 0.8), slow], here, 0.85)).toBe(slow);
    expect(lookAgain([look(2, 0.2, { swap: true }), look(12, 0.2)], here, 0.85)).toBeUndefined();
    expect(lookAgain([quick], new Set([0]), 0.85)).toBeUndefined();
    expect(lookAgain([{ ...quick, done: true }], here, 0.85)).toBeUndefined();
  });
});

describe('before the first touch', () => {
  // Common practice, no source: what would be mended is looked at first, when that costs next to nothing.
  const route = { stops: [{ station: { id: 'spool' } }, { station: { id: 'block' } }] } as unknown as Model['route'];
  const here = new Set([1]);
  const look = (minutes: number, clean: number, rest: Partial<CheckForecast> = {}, of: object = {}): CheckForecast =>
    check(minutes, {
      outcomes: [
        { probability: 0.6, stations: [0, 0.9] },
        { probability: 0.4, stations: [0, clean] },
      ],
      place: { station: 'block', reach: new Set([1]), check: { reach: 'station', ...of } },
      ...rest,
    } as unknown as Partial<CheckForecast>);
  const first = (list: readonly CheckForecast[], share = 0.6, replaces = false): CheckForecast | undefined =>
    lookFirst(list, { route }, here, share, 20, replaces);

  test('the look that leads to the quickest course is had, up to four minutes more; twelve more before a part is renewed', () => {
    const [near, far] = [look(22, 0.1), look(30, 0.1)];
    expect(first([far, near])).toBe(near);
    expect(first([far])).toBeUndefined();
    expect(first([far], 0.6, true)).toBe(far);
    expect(first([look(37, 0.1)], 0.6, true)).toBeUndefined();
  });

  test('not where it tells nothing, where it is sure already, or where somebody looked or swapped before', () => {
    const good = look(22, 0.1);
    const dull = { outcomes: [{ probability: 1, stations: [0, 0.6] }] } as unknown as Partial<CheckForecast>;
    expect(first([look(22, 0.6, dull)])).toBeUndefined();
    expect(first([good], 0.96)).toBeUndefined();
    expect(first([good, look(99, 0.5, { done: true })])).toBeUndefined();
    expect(first([good, look(99, 0.5, { done: true }, { swap: true, reach: 'downstream' })])).toBeUndefined();
    // A push from afar is no look.
    expect(first([good, look(99, 0.5, { done: true }, { reach: 'span' })])).toBe(good);
  });

  test('a list of things to see at the place counts, also where some of them show along the whole path', () => {
    expect(first([look(22, 0.1, {}, { reach: 'path', items: true })])).toBeDefined();
    expect(first([look(22, 0.1, {}, { reach: 'path' })])).toBeUndefined();
  });
});

const seenTwo = workOut(
  whelk,
  catalogue,
  stateOf(whelk, [
    takenIn(whelk, { symptoms: ['thin', 'clicks'], material: 'PLA' }),
    finding('look-soft@sink', 'sagged'),
    finding('look-gears@extruder', 'worn'),
  ]),
);

test('what is as good as found is mended where no other repair carries itself; before anything was found there is no such thing', () => {
  const { model, suspicion } = seenTwo;
  const shares = model.groups.map((_, group) => carried(model, suspicion, group));
  const best = shares.indexOf(Math.max(...shares));
  const small = shares.findIndex((share) => share > 0 && share < 0.1);
  expect(['sink', 'extruder']).toContain(model.groups[best]?.station.id);
  expect([undefined, small, best].map((begin) => mendedAnyway(model, suspicion, begin))).toEqual([
    best,
    best,
    undefined,
  ]);
  const before = workOut(whelk, catalogue, stateOf(whelk, [takenIn(whelk, { symptoms: ['thin', 'clicks'] })]));
  expect(mendedAnyway(before.model, before.suspicion, undefined)).toBeUndefined();
});

test('a repair takes its fault out of several, and leaves what it is not for', () => {
  const { model, suspicion } = seenTwo;
  const { live } = liveOf(model, suspicion);
  const pair = live.findIndex(
    ({ causes: [a, b, ...more] }) =>
      a !== undefined &&
      b !== undefined &&
      more.length === 0 &&
      model.groupOf[a] !== model.groupOf[b] &&
      live.some(({ causes }) => causes.length === 1 && causes[0] === b),
  );
  const [a, b] = live[pair]?.causes ?? [];
  const alone = live.findIndex(({ causes }) => causes.length === 1 && causes[0] === b);
  const group = model.groupOf[a ?? -1] ?? -1;
  const cures = model.groups[group]?.remedy.cures ?? 0;
  const p = new Float64Array(live.length);
  p[pair] = 1;
  const left = new Lookahead(model, new Forecasts(model, suspicion, live)).afterRepair(group, p);
  expect(left[pair]).toBeCloseTo(1 - cures, 9);
  expect(left[alone]).toBeCloseTo(cures, 9);
});

describe('the next stretch to open', () => {
  const stretch = (bits: number, rest: object = {}): CheckForecast =>
    check(100, {
      bits,
      checkMinutes: 4,
      place: { reach: new Set([1]), check: { needs: 'open', reach: 'station', ...rest } },
    } as unknown as Partial<CheckForecast>);
  const suspected = [0, 0.3];

  test('is one where something listed may be seen, or any while much speaks for what is on no list', () => {
    const [dull, telling] = [stretch(0.001), stretch(0.2)];
    expect(nextOpening([dull], suspected, 0.05)).toBeUndefined();
    expect(nextOpening([dull], suspected, 0.4)).toBe(dull);
    expect(nextOpening([telling], suspected, 0.05)).toBe(telling);
  });
  test('is a look: no measuring, no swap, no push from afar, and nothing outside', () => {
    for (const rest of [{ quantity: {} }, { swap: true }, { reach: 'span' }, { needs: 'closed' }])
      expect(nextOpening([stretch(0.2, rest)], suspected, 0.4)).toBeUndefined();
  });
});

test('within half a minute the gentler goes first; a minute apart the quicker does', () => {
  const rough = { price: { opened: ['cover'] } } as unknown as Partial<CheckForecast>;
  expect(ranked([check(20, { index: 1, ...rough }), check(20.4, { index: 2 })]).map(({ index }) => index)).toEqual([
    2, 1,
  ]);
  expect(ranked([check(20, { index: 1, ...rough }), check(21, { index: 2 })]).map(({ index }) => index)).toEqual([
    1, 2,
  ]);
});

test('the same check does not count again as the second of two', () => {
  const state = stateOf(dunlin, [takenIn(dunlin, { material: 'PLA', symptoms: ['thin'] })]);
  const { model, suspicion } = workOut(dunlin, catalogue, state);
  const { live, p } = liveOf(model, suspicion);
  const ahead = new Lookahead(model, new Forecasts(model, suspicion, live));
  const cold = { temperatureC: dunlin.heat.ambientC, power: 'off' as const, off: new Set<string>() };
  const index = model.places.findIndex(({ key }) => key === 'free-air@nozzle');
  const { price } = ahead.price(index, cold);
  // Alone in the list of seconds it adds nothing: what follows an answer is stopping.
  ahead.seconds = [index];
  const stopping = ahead.answers(index, p).map((next) => ahead.stopping(next, price.after).minutes);
  expect(ahead.checkingTwice(index, p, cold).byAnswer).toEqual(stopping);
});
