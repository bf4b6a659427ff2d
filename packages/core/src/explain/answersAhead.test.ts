import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { benchKey } from '../bench/price';
import { benchToDecide } from '../order/bench';
import type { EventBodies, OrderEvent } from '../order/events';
import { dunlin, event, finding, stateOf, takenIn } from '../testing/machines';
import { assess, quickWorking, sightOf } from './assess';
import { tellingOf } from '../decision/working';
import { movedFor } from '../order/moves';
import { answersAhead } from './answersAhead';

const lane = 'lane-a';
const told = takenIn(dunlin, { lane, material: 'PLA', symptoms: ['thin', 'clicks'] });
const assessed = (events: readonly OrderEvent[]) => {
  const state = stateOf(dunlin, events);
  return {
    state,
    ...assess(dunlin, catalogue, state, benchToDecide(dunlin, state, state.lastMs), { depth: 1 }),
  };
};
const telling = (events: readonly OrderEvent[]): string => tellingOf(dunlin, catalogue, stateOf(dunlin, events));

test('what is foreseen of an answer is what is believed and decided once it is recorded', () => {
  const { state, checks } = assessed([told]);
  // One that opens something, one that pushes and leaves the strand drawn out, and the best one.
  const opens = checks.find(({ openIds, heat }) => openIds.length > 0 && heat !== 'hot');
  const pushes = checks.find(({ check }) => check === 'push-strand');
  const ticks = checks.find(({ check }) => catalogue.checks.some(({ id, items }) => id === check && items));
  const chosen = [opens, pushes, ticks].flatMap((check) => check ?? []);
  expect(chosen.length).toBe(3);
  for (const check of chosen) {
    const foreseen = answersAhead(dunlin, catalogue, state, state.lastMs, check);
    expect(foreseen.length).toBeGreaterThan(0);
    for (const next of foreseen) {
      const seen = next.state.findings.at(-1);
      if (!seen) throw new Error('test data');
      const moved = movedFor(dunlin, benchToDecide(dunlin, state, state.lastMs), check.openIds, check.backIds);
      const events = [
        told,
        ...moved.map((body: EventBodies['parts-moved']) => event('parts-moved', body)),
        event('finding-recorded', {
          key: check.key,
          result: seen.result,
          ...(seen.finished ? { finished: true } : {}),
        }),
      ];
      const recorded = stateOf(dunlin, events);
      expect(tellingOf(dunlin, catalogue, next.state)).toBe(tellingOf(dunlin, catalogue, recorded));
      expect(benchKey(next.bench)).toBe(benchKey(benchToDecide(dunlin, recorded, state.lastMs)));
    }
  }
  const [first] = answersAhead(dunlin, catalogue, state, state.lastMs, chosen[0] as (typeof chosen)[0]);
  if (!first) throw new Error('test data');
  const { key = '', result = '', finished } = first.state.findings.at(-1) ?? {};
  const recorded = stateOf(dunlin, [
    told,
    event('finding-recorded', { key, result, ...(finished ? { finished } : {}) }),
  ]);
  const sight = (of: typeof recorded) => sightOf(quickWorking(dunlin, catalogue, of));
  expect(sight(first.state)).toEqual(sight(recorded));
});

test('numbers and depths are not foreseen', () => {
  const { state, checks } = assessed([told]);
  const of = (id: string) => checks.find(({ check }) => check === id);
  const results = (id: string): readonly string[] => {
    const check = of(id);
    if (!check) throw new Error(id);
    return answersAhead(dunlin, catalogue, state, state.lastMs, check).map(
      (next) => next.state.findings.at(-1)?.result ?? '',
    );
  };
  expect(results('feed-100')).toEqual([]);
  expect(results('push-strand')).not.toContain('stops');
  expect(results('push-strand')).toContain('passes');
});

test('who recorded it and when tells nothing; what was found, tried, skipped or marked does', () => {
  const seen = finding('listen@extruder', 'knocks');
  const base = telling([told, seen]);
  expect(telling([told, { ...seen, id: 'another', by: 'bench 2', at: '2026-11-30T10:00:00.000Z' }])).toBe(base);
  const others = [
    telling([told]),
    telling([takenIn(dunlin, { lane, material: 'PLA', symptoms: ['thin'] }), seen]),
    telling([told, finding('listen@extruder', 'silent')]),
    telling([told, seen, event('check-not-done', { key: 'free-air@nozzle', why: 'no' })]),
    telling([told, seen, event('finding-marked', { findingId: seen.id, innocent: true })]),
  ];
  expect(new Set([base, ...others]).size).toBe(others.length + 1);
});

test('of a closed order, and once a cause is chosen, nothing is foreseen', () => {
  const { state, checks } = assessed([told]);
  const best = checks.find((check) => answersAhead(dunlin, catalogue, state, state.lastMs, check).length > 0);
  if (!best) throw new Error('test data');
  const chosen = event('cause-chosen', { station: 'nozzle', mode: 'tip-particles', advised: true });
  const closed = event('closed', { outcome: 'given-back' });
  for (const more of [chosen, closed])
    expect(answersAhead(dunlin, catalogue, stateOf(dunlin, [told, more]), state.lastMs, best)).toEqual([]);
});
