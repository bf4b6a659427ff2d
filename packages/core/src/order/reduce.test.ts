import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { assess } from '../explain/assess';
import { dunlin, event, finding, START, stateOf, takenIn, whelk } from '../testing/machines';
import { benchAt } from './bench';
import type { EventBodies, EventType, OrderEvent } from './events';
import { judge, RefusedEvent, reduceOrder } from './reduce';
import { temperatureAt } from './state';
import { lastStepEvents } from './undo';

const begun = (): OrderEvent[] => [takenIn(dunlin, { lane: 'lane-a', material: 'PLA', symptoms: ['not-reach'] })];
const refusal = (events: readonly OrderEvent[], next: OrderEvent): RefusedEvent => {
  try {
    judge(dunlin, catalogue, events, next);
  } catch (error) {
    if (error instanceof RefusedEvent) return error;
    throw error;
  }
  throw new Error('was not refused');
};
const push = 'push-strand@gate-a>end';

describe('what the order refuses, with the field and what to do', () => {
  const refused: readonly [string, OrderEvent, string, RegExp][] = [
    ['an unknown check', finding('guess@hub', 'yes'), '/body/key', /no check "guess"/],
    ['a station that is not on this path', finding('lift-hub@nozzle', 'clear'), '/body/key', /no place "nozzle"/],
    ['a result that the check does not give', finding('glide@hub', 'wobbles'), '/body/result', /no result "wobbles"/],
    ['a number check without its number', finding('feed-100@extruder', 'mm'), '/body/value', /Enter the value in mm/],
    ['a number out of range', finding('feed-100@extruder', 'mm', 400), '/body/value', /between 0 and 150 mm/],
    ['a depth longer than the path', finding(push, 'stops', 9000), '/body/value', /between 0 and \d+ mm/],
    ['an unknown part', event('parts-moved', { off: ['lid'] }), '/body/off/0', /no part "lid"/],
    [
      'an unknown station as cause',
      event('cause-chosen', { station: 'attic', mode: 'stub', advised: false }),
      '/body/station',
      /no station "attic"/,
    ],
    ['a step without a plan', event('step-done', { stepId: 'open:hub' }), '/type', /choose a cause/],
    ['a proof before a repair', event('proof-recorded', { proof: 'feed', passed: true }), '/type', /nothing to prove/],
    [
      'closing as cured without a proof',
      event('closed', { outcome: 'cured' }),
      '/body/outcome',
      /cannot be closed as cured\. Nothing was repaired/,
    ],
    ['taking in twice', takenIn(dunlin), '/type', /already/],
    [
      'withdrawing what is not there',
      event('event-withdrawn', { eventId: '00000000-0000-4000-8000-00000000ffff' }),
      '/body/eventId',
      /no such event/,
    ],
    [
      'a mark on a finding that is not there',
      event('finding-marked', { findingId: '00000000-0000-4000-8000-00000000ffff', innocent: true }),
      '/body/findingId',
      /no such finding/,
    ],
    [
      'a second thing seen where the check has one result at a time',
      event('finding-recorded', { key: 'glide@hub', result: 'stiff', also: ['stiff'] }),
      '/body/also',
      /one result at a time/,
    ],
    [
      'a second thing that the look does not know',
      event('finding-recorded', { key: 'lift-hub@hub', result: 'stub', also: ['ghost'] }),
      '/body/also/0',
      /no result "ghost"/,
    ],
    [
      'the normal result beside an abnormal one',
      event('finding-recorded', { key: 'lift-hub@hub', result: 'stub', also: ['clear'] }),
      '/body/also/0',
      /no result "clear" beside others/,
    ],
  ];
  test.each(refused)('%s', (_name, next, path, message) => {
    const error = refusal(begun(), next);
    expect(error.path).toBe(path);
    expect(error.message).toMatch(message);
  });

  test('anything before the taking in, and anything but a note after closing', () => {
    expect(refusal([], finding(push, 'passes')).message).toMatch(/not been taken in/);
    const closed = [...begun(), event('closed', { outcome: 'given-back' })];
    expect(refusal(closed, finding(push, 'passes')).message).toMatch(/closed/);
    expect(judge(dunlin, catalogue, closed, event('note-added', { text: 'came back' })).notes).toHaveLength(1);
  });

  test('an unknown symptom at taking in', () => {
    expect(refusal([], takenIn(dunlin, { symptoms: ['ghost'] })).path).toBe('/body/symptoms/0');
  });
});

describe('withdrawing', () => {
  test('restores state and suspicion exactly, bit for bit', () => {
    const events = [...begun(), finding('turn-spool@spool-a', 'free')];
    const wrong = finding(push, 'stops', 640);
    const undone = [...events, wrong, event('event-withdrawn', { eventId: wrong.id })];
    const view = (list: readonly OrderEvent[]) => {
      const state = reduceOrder(dunlin, catalogue, list);
      return assess(dunlin, catalogue, state, benchAt(dunlin, state, Date.parse(START)));
    };
    expect(view([...events, wrong])).not.toEqual(view(events));
    expect(view(undone)).toEqual(view(events));
  });

  test('what stood on the withdrawn event is passed over, not half applied', () => {
    const cause = event('cause-chosen', { station: 'hub', mode: 'stub', advised: true });
    const events = [
      ...begun(),
      cause,
      event('step-done', { stepId: 'unload' }),
      event('event-withdrawn', { eventId: cause.id }),
    ];
    const state = reduceOrder(dunlin, catalogue, events);
    expect(state.cause).toBeUndefined();
    expect(state.steps).toEqual({});
  });
});

test('the last step is taken back with what its tap said of the machine, and nothing else', () => {
  const begin = [
    ...begun(),
    event('parts-moved', { off: ['sock'] }, 1),
    event('cause-chosen', { station: 'hub', mode: 'latch-open', advised: true }, 2),
  ];
  const first = event('step-done', { stepId: 'unload' }, 3);
  const tap = [
    event('parts-moved', { off: ['front-cover'] }, 4),
    event('step-done', { stepId: 'open:front-cover' }, 4),
  ];
  const undone = (list: readonly OrderEvent[]): OrderEvent[] => [
    ...list,
    ...lastStepEvents(list).map((eventId) => event('event-withdrawn', { eventId }, 5)),
  ];
  const once = undone([...begin, first, ...tap]);
  expect(stateOf(dunlin, once)).toMatchObject({ off: ['sock'], steps: { unload: expect.anything() } });
  expect(Object.keys(stateOf(dunlin, once).steps)).toEqual(['unload']);
  const twice = undone(once);
  expect(stateOf(dunlin, twice).steps).toEqual({});
  expect(lastStepEvents(twice)).toEqual([]);
});

describe('heat and timers', () => {
  test('a machine set to zero cools by its own time constant; a reading corrects the reckoning', () => {
    const state = stateOf(whelk, [
      takenIn(whelk),
      event('bench-changed', { targetC: 208, power: 'on', readingC: 208 }, 1),
      event('bench-changed', { targetC: 0 }, 2),
    ]);
    const at = (min: number): number => temperatureAt(whelk, state.heat, Date.parse(START) + min * 60_000);
    // T = Ta + (T0 − Ta) e^(−t/τ), Ta 21, τ 185 s.
    expect(at(5)).toBeCloseTo(21 + 187 * Math.exp(-180 / 185), 6);
    const read = stateOf(whelk, [takenIn(whelk), event('bench-changed', { readingC: 90 }, 3)]);
    expect(temperatureAt(whelk, read.heat, Date.parse(START) + 180_000)).toBe(90);
  });

  test('heating rises at the machine’s rate and stops at the target', () => {
    const state = stateOf(whelk, [takenIn(whelk), event('bench-changed', { targetC: 208, power: 'on' }, 0)]);
    expect(temperatureAt(whelk, state.heat, Date.parse(START) + 60_000)).toBeCloseTo(21 + 1.6 * 60, 6);
    expect(temperatureAt(whelk, state.heat, Date.parse(START) + 3_600_000)).toBe(208);
  });

  test('a timer runs from its own event and ends with stop or closing', () => {
    const timer = event('timer-started', { timerId: 'soak', label: 'Soak', minutes: 90 }, 5);
    expect(stateOf(dunlin, [...begun(), timer]).timers[0]?.endsMs).toBe(Date.parse(START) + 95 * 60_000);
    expect(stateOf(dunlin, [...begun(), timer, event('timer-stopped', { timerId: 'soak' })]).timers).toEqual([]);
  });
});

test('not cured goes back to tracing with the remedies that failed', () => {
  const add = <T extends EventType>(type: T, body: EventBodies[T]): OrderEvent => event(type, body);
  const state = stateOf(dunlin, [
    ...begun(),
    add('cause-chosen', { station: 'hub', mode: 'stub', advised: true }),
    add('rung-tried', { stepId: 'rung:push-through', remedy: 'push-through', outcome: 'cleared' }),
    add('proof-recorded', { proof: 'sensor', passed: true }),
    add('not-cured', { proof: 'cold-pass' }),
  ]);
  expect(state.cause).toBeUndefined();
  expect(state.failures).toEqual([
    expect.objectContaining({ station: 'hub', mode: 'stub', remedies: ['push-through'], proof: 'cold-pass' }),
  ]);
  // What the tests showed is kept with it, the one that is named as failed too.
  expect(state.failures[0]?.proved).toEqual([
    { proof: 'sensor', passed: true },
    { proof: 'cold-pass', passed: false },
  ]);
});

test('readings while it cools refit the constant; one above the last begins a new stretch', () => {
  const reading = (readingC: number, minute: number) => event('bench-changed', { targetC: 0, readingC }, minute);
  const start = [takenIn(dunlin), event('bench-changed', { targetC: 208, power: 'on', readingC: 208 }, 0)];
  const cooling = [reading(208, 1), reading(120, 4), reading(75, 7)];
  const fitted = stateOf(dunlin, [...start, ...cooling]).heat;
  expect(fitted.cooling?.readings).toBe(3);
  expect(fitted.readings).toHaveLength(3);
  // 22 + 186 e^(−180/τ) = 120 gives τ near 281 s.
  expect(fitted.cooling?.tauS).toBeGreaterThan(dunlin.heat.coolTauS);
  const again = stateOf(dunlin, [...start, ...cooling, reading(190, 8)]).heat;
  expect(again.readings).toEqual([{ temperatureC: 190, atS: expect.any(Number) }]);
  expect(again.cooling).toEqual(fitted.cooling);
  // A bound is no reading.
  const bound = event('bench-changed', { readingC: 48, atMost: true }, 20);
  expect(stateOf(dunlin, [...start, ...cooling, bound]).heat).toMatchObject({
    coldSure: true,
    readings: fitted.readings,
  });
});

describe('what was given at the taking-in is put right', () => {
  const right = (body: Partial<EventBodies['intake-corrected']>): OrderEvent =>
    event('intake-corrected', { symptoms: ['not-reach'], before: [], lane: 'lane-a', ...body });

  test('the whole of it anew; number, machine, day and person stay', () => {
    const before = stateOf(dunlin, begun()).intake;
    const { intake } = stateOf(dunlin, [
      ...begun(),
      { ...right({ material: 'PETG', symptoms: ['clicks'] }), at: '2026-12-02T08:00:00Z' },
    ]);
    expect(intake).toEqual({
      number: before?.number,
      machineId: 'dunlin',
      at: before?.at,
      by: before?.by,
      askedAt: '2026-12-02T08:00:00Z',
      lane: 'lane-a',
      material: 'PETG',
      symptoms: ['clicks'],
      before: [],
    });
  });

  test('another lane only while nothing was found on this one', () => {
    expect(judge(dunlin, catalogue, begun(), right({ lane: 'lane-b' })).intake?.lane).toBe('lane-b');
    const fault = refusal([...begun(), finding(push, 'stops', 901)], right({ lane: 'lane-b' }));
    expect([fault.path, fault.message]).toEqual(['/body/lane', expect.stringMatching(/take them back first/)]);
  });

  test('what the catalogue or the machine has not got is refused as at the taking-in', () => {
    expect(refusal(begun(), right({ symptoms: ['odd'] })).path).toBe('/body/symptoms/0');
    expect(refusal(begun(), right({ noticedAt: 'attic' })).path).toBe('/body/noticedAt/0');
  });
});

test('from the state that is known it says the same as from all entries, entry by entry, also over a withdrawal', () => {
  const seen = finding('lift-hub@hub', 'stub');
  const entries = [
    ...begun(),
    event('bench-changed', { readingC: 21 }),
    seen,
    finding('glide@hub', 'stiff'),
    event('event-withdrawn', { eventId: seen.id }),
    event('finding-marked', { findingId: seen.id, innocent: true }),
    event('note-added', { text: 'as it was' }),
  ];
  let known: readonly OrderEvent[] = [];
  let state = reduceOrder(dunlin, catalogue, known);
  for (const entry of entries) {
    const said = (from?: typeof state): unknown => {
      try {
        return judge(dunlin, catalogue, known, entry, from);
      } catch (error) {
        return (error as RefusedEvent).message;
      }
    };
    expect(said(state)).toEqual(said());
    if (typeof said(state) === 'string') continue;
    known = [...known, entry];
    state = said(state) as typeof state;
    expect(state).toEqual(reduceOrder(dunlin, catalogue, known));
  }
  expect(known).toHaveLength(entries.length - 1);
});
