import { deliveredCatalogue as catalogue } from '../catalogue/index';
import type { OrderEvent } from '../order/events';
import { judge } from '../order/reduce';
import { phaseOf } from '../record/phase';
import { dunlin, event, stateOf, takenIn, whelk } from '../testing/machines';
import type { Machine } from '../path/machine';
import { priceBet } from './bet';
import { confounded } from './confounded';
import { proofsFor } from '../order/proofs';
import { planFor } from './plan';
import { benchAt } from '../order/bench';

const asked = (machine: Machine, events: readonly OrderEvent[]) =>
  proofsFor(machine, catalogue, stateOf(machine, events));
const ids = (machine: Machine, events: readonly OrderEvent[]): readonly string[] =>
  asked(machine, events).map((proof) => proof.id);
const chosen = (station: string, mode: string, intake = {}): OrderEvent[] => [
  takenIn(dunlin, intake),
  event('cause-chosen', { station, mode, advised: true }),
];

describe('the proof ladder follows what was touched and how the fault showed', () => {
  test('a stub in the hub asks for no bed, no tuning and no print', () => {
    expect(ids(dunlin, chosen('hub', 'stub', { onset: 'loading' }))).toEqual([
      'sensor',
      'hub-floats',
      'both-empty',
      'cold-pass',
      'power-cycle',
      'load-twice',
      'straight',
      'feed',
    ]);
  });

  test('the nozzle touched asks for its height; a heater for its tuning; a hot end that came off for its height', () => {
    expect(ids(dunlin, chosen('nozzle', 'tip-particles'))).toContain('height');
    expect(ids(dunlin, chosen('block', 'heater-fault'))).toContain('tuning');
    expect(ids(dunlin, chosen('block', 'heater-fault'))).not.toContain('height');
    const guide = chosen('guide', 'guide-missing');
    expect(ids(dunlin, guide)).not.toContain('height');
    const off = [...guide, event('parts-moved', { off: ['hot-end'] }), event('parts-moved', { on: ['hot-end'] })];
    expect(ids(dunlin, off)).toContain('height');
    // It counts as well when it came off while tracing, before a cause was chosen.
    const [intake, ...then] = guide;
    const traced = [intake as OrderEvent, event('parts-moved', { off: ['hot-end'] }), ...then];
    expect(ids(dunlin, traced)).toContain('height');
    // Skipped is not touched.
    expect(ids(dunlin, [...guide, event('step-skipped', { stepId: 'open:hot-end', why: 'not needed' })])).not.toContain(
      'height',
    );
  });

  test('a fault that took four hours is proved only after more than four', () => {
    const events = chosen('sink', 'heat-creep', { onset: 'after-hours', failedAfterMinutes: 240 });
    expect(asked(dunlin, events).find((proof) => proof.id === 'failed-job')?.longerThanMin).toBe(240);
    const short = event('proof-recorded', { proof: 'failed-job', passed: true, ranMinutes: 240 });
    expect(() => judge(dunlin, catalogue, events, short)).toThrow(/needed 240 min to show/);
    // At the very last layer no height is past it: the job run to its end is.
    const whole = event('proof-recorded', { proof: 'failed-job', passed: true, wholeJob: true });
    expect(judge(dunlin, catalogue, events, whole).proofs['failed-job']?.passed).toBe(true);
    const long = event('proof-recorded', { proof: 'failed-job', passed: true, ranMinutes: 255 });
    expect(judge(dunlin, catalogue, events, long).proofs['failed-job']?.ranMinutes).toBe(255);
  });

  test('a height or a time at which it failed calls for the failed job, however it began; without either it does not', () => {
    const began = (more: object) => ids(dunlin, chosen('nozzle', 'tip-particles', { onset: 'loading', ...more }));
    expect(began({})).not.toContain('failed-job');
    expect(began({ failedAtMm: 8.4 })).toContain('failed-job');
    expect(began({ failedAfterMinutes: 35 })).toContain('failed-job');
  });

  test('what is smaller comes before what is larger, and all must pass', () => {
    const events = chosen('nozzle', 'tip-particles', { onset: 'after-hours' });
    const list = ids(dunlin, events);
    expect(list.indexOf('cold-pass')).toBeLessThan(list.indexOf('feed'));
    expect(list.at(-1)).toBe('failed-job');
    const cleared = event('rung-tried', {
      stepId: 'r',
      remedy: 'needle',
      outcome: 'cleared',
      station: 'nozzle',
      mode: 'tip-particles',
    });
    const passed = list.slice(0, -1).map((proof) => event('proof-recorded', { proof, passed: true }));
    const phase = (more: readonly OrderEvent[]) =>
      phaseOf(dunlin, catalogue, stateOf(dunlin, [...events, cleared, ...passed, ...more]));
    expect(phase([])).toBe('prove');
    expect(phase([event('proof-recorded', { proof: 'failed-job', passed: true, ranMinutes: 300 })])).toBe('record');
  });
});

describe('the bet on the long print', () => {
  const bet = {
    pFail: 0.1,
    printHours: 12,
    filamentGrams: 250,
    pricePerKg: 24,
    machineRate: 3,
    pieceMinutes: 30,
    pieceMiss: 0,
  };

  test('break-even by hand: 30 min at 3 an hour is 1.50; the print is worth 36 + 6 = 42; 1.5 / 42', () => {
    const { breakEven, straight, pieceFirst, advice } = priceBet(bet);
    expect(breakEven).toBeCloseTo(1.5 / 42, 12);
    expect(straight).toBeCloseTo(4.2, 12);
    expect(pieceFirst).toBeCloseTo(1.5, 12);
    expect(advice).toBe('piece first');
  });

  test('at the break-even both cost the same, also with a piece that misses; a piece that misses all is never worth it', () => {
    const miss = { ...bet, pieceMiss: 0.4 };
    const even = priceBet({ ...miss, pFail: priceBet(miss).breakEven });
    expect(even.straight).toBeCloseTo(even.pieceFirst, 12);
    expect(priceBet({ ...bet, pieceMiss: 1, pFail: 0.9 }).advice).toBe('straight away');
    expect(() => priceBet({ ...bet, pFail: 1.2 })).toThrow(RangeError);
    expect(() => priceBet({ ...bet, printHours: -1 })).toThrow(/printHours/);
  });
});

describe('several changes at once', () => {
  const bench = { temperatureC: 22, power: 'off' as const, off: new Set<string>() };
  const cleared = (station: string, mode: string, remedy: string): OrderEvent =>
    event('rung-tried', { stepId: remedy, remedy, outcome: 'cleared', station, mode });

  test('the changes are named; a worn part is never put back to learn which it was, a setting may be', () => {
    const events = [
      ...chosen('extruder', 'gears-worn'),
      event('cause-added', { station: 'extruder', mode: 'arm-cracked' }),
      cleared('extruder', 'gears-worn', 'renew-gears'),
      cleared('extruder', 'arm-cracked', 'renew-arm'),
    ];
    const found = confounded(dunlin, catalogue, stateOf(dunlin, events), bench);
    expect(found?.changes).toHaveLength(2);
    expect(found?.tells).toBeUndefined();
    const setting = [
      ...events,
      event('cause-added', { station: 'job', mode: 'flow-beyond' }),
      cleared('job', 'flow-beyond', 'slow-job'),
    ];
    expect(confounded(dunlin, catalogue, stateOf(dunlin, setting), bench)?.tells?.text).toMatch(/slow the fast parts/);
    expect(confounded(dunlin, catalogue, stateOf(dunlin, events.slice(0, 2)), bench)).toBeUndefined();
  });

  test('cleaning cannot be undone: then nothing cheap would tell', () => {
    const events = [
      takenIn(whelk),
      event('cause-chosen', { station: 'nozzle', mode: 'tip-particles', advised: true }),
      cleared('nozzle', 'tip-particles', 'needle'),
      event('cause-chosen', { station: 'extruder', mode: 'gears-fouled', advised: true }),
      cleared('extruder', 'gears-fouled', 'brush-gears'),
    ];
    const found = confounded(whelk, catalogue, stateOf(whelk, events), bench);
    expect(found?.changes).toHaveLength(2);
    expect(found?.tells).toBeUndefined();
  });
});

test('where it smelled burnt, every step and proof with heat or power is warned of it, and no other', () => {
  const of = (symptoms: readonly string[]) => {
    const events = chosen('nozzle', 'tip-particles', { symptoms });
    const state = stateOf(dunlin, events);
    const { steps } = planFor(dunlin, catalogue, state, benchAt(dunlin, state, state.lastMs));
    const powered = steps.filter(({ need, sets }) => need.power === 'on' || sets?.power === 'on' || sets?.targetC);
    const proofs = proofsFor(dunlin, catalogue, state).filter(({ power }) => power === 'on');
    const warned = [...steps, ...proofs].filter(({ cautions }) => cautions.includes('burnt-smell'));
    return { due: [...powered, ...proofs], warned };
  };
  const told = of(['thin', 'smell']);
  expect(told.due.length).toBeGreaterThan(3);
  expect(new Set(told.warned)).toEqual(new Set(told.due));
  expect(of(['thin']).warned).toEqual([]);
});
