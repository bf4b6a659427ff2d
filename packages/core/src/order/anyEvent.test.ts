import fc from 'fast-check';
import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { planFor } from '../plan/plan';
import { proofsFor } from './proofs';
import { allStations } from '../path/machine';
import { laneRuns } from '../path/route';
import { dunlin, event, START, takenIn, whelk } from '../testing/machines';
import { assess } from '../explain/assess';
import { benchAt } from './bench';
import type { EventBodies, EventType, OrderEvent } from './events';
import { phaseOf } from '../record/phase';
import { judge, placesOf, reduceOrder, RefusedEvent } from './reduce';
import { recordOf } from '../record/report';
import { emptyOrder } from './state';

/** Every word that this machine and the catalogue know, with some that nobody knows, in whatever place. */
const wordsOf = (machine: typeof dunlin) => ({
  stations: [...allStations(machine).map(({ id }) => id), 'attic'],
  parts: [...machine.parts.map(({ id }) => id), 'lid'],
  plugs: [...machine.connectors.map(({ id }) => id), 'plug'],
  lanes: [...laneRuns(machine).map(({ id }) => id), 'lane-z'],
  modes: [...catalogue.modes.map(({ id }) => id), 'ghost'],
  remedies: [...catalogue.remedies.map(({ id }) => id), 'prayer'],
  proofs: [...catalogue.proofs.map(({ id }) => id), 'oath'],
  keys: [
    ...placesOf(emptyOrder(machine), machine, catalogue).map(({ key, check }) => ({ key, check })),
    { key: 'glide@attic', check: undefined },
  ],
});

function anyEvent(machine: typeof dunlin): fc.Arbitrary<OrderEvent> {
  const words = wordsOf(machine);
  const of = <T>(list: readonly T[]) => fc.constantFrom(...list);
  const some = (list: readonly string[]) => fc.subarray([...list], { maxLength: Math.min(3, list.length) });
  const cause = { station: of(words.stations), mode: of(words.modes) };
  const make = <T extends EventType>(type: T, body: fc.Arbitrary<unknown>) =>
    body.map((made) => event(type, made as EventBodies[T], 1));
  return fc.oneof(
    make(
      'finding-recorded',
      of(words.keys).chain(({ key, check }) =>
        fc.record(
          {
            key: fc.constant(key),
            result: of([...(check?.results.map(({ id }) => id) ?? []), 'not-sure', 'odd']),
            value: fc.integer({ min: -5, max: 900 }),
          },
          { requiredKeys: ['key', 'result'] },
        ),
      ),
    ),
    make('check-not-done', fc.record({ key: of(words.keys.map(({ key }) => key)), why: fc.constant('no tool') })),
    make(
      'bench-changed',
      fc.record(
        {
          targetC: of([0, 208, 260]),
          readingC: of([21, 208, 300]),
          power: of(['on', 'off']),
          strand: fc.dictionary(of(words.lanes), of(['in', 'out', 'tube', 'remnant']), { maxKeys: 2 }),
          supported: fc.boolean(),
          wet: some(words.parts),
          dry: some(words.parts),
          service: some(words.parts),
          pulled: some(words.plugs),
          plugged: some(words.plugs),
        },
        { requiredKeys: [] },
      ),
    ),
    make('parts-moved', fc.record({ off: some(words.parts), on: some(words.parts) }, { requiredKeys: [] })),
    make('fasteners-moved', fc.record({ part: of(words.parts), out: some(['0']).map((l) => l.map(Number)) })),
    make('cause-chosen', fc.record({ ...cause, advised: fc.boolean() })),
    make('cause-added', fc.record(cause)),
    make(
      'intake-corrected',
      fc.record(
        {
          symptoms: of(['not-reach', 'odd']).map((id) => [id]),
          before: fc.constant([]),
          lane: of(words.lanes),
          noticedAt: of(words.stations),
          material: of(['PLA', 'odd']),
        },
        { requiredKeys: ['symptoms', 'before'] },
      ),
    ),
    make('cause-dropped', fc.constant({})),
    make('rung-picked', fc.record({ ...cause, remedy: of(words.remedies) })),
    make(
      'rung-tried',
      fc.record({
        ...cause,
        remedy: of(words.remedies),
        stepId: fc.constant('rung:x'),
        outcome: of(['cleared', 'better', 'no-change', 'worse']),
      }),
    ),
    make('step-done', fc.record({ stepId: of([...words.parts.map((id) => `open:${id}`), 'odd:step']) })),
    make(
      'step-skipped',
      fc.record({ stepId: of(words.parts.map((id) => `open:${id}`)), why: fc.constant('not there') }),
    ),
    make('way-picked', fc.record({ part: of(words.parts), way: of(['', 'hot', 'odd']) })),
    make('solvent-tried', fc.record({ solvent: of(['acetone', 'odd']), softened: fc.boolean() })),
    make('part-replaced', fc.record({ station: of(words.stations), part: fc.constant('nozzle') })),
    make('proof-recorded', fc.record({ proof: of(words.proofs), passed: fc.boolean() })),
    make('not-cured', fc.constant({})),
    make(
      'finding-marked',
      fc.record({ findingId: fc.constant('00000000-0000-4000-8000-000000000000'), innocent: fc.boolean() }),
    ),
    make(
      'photo-marked',
      fc.record({ photoId: fc.constant('00000000-0000-4000-8000-000000000000'), markers: fc.constant([]) }),
    ),
    make('closed', fc.record({ outcome: of(['cured', 'not-cured', 'scrapped', 'given-back', 'mistake']) })),
  );
}

test.each([
  ['Whelk', whelk],
  ['Dunlin', dunlin],
])(
  '%s: whatever entry comes with whatever word, it is taken or refused in words, and everything can be worked out afterwards',
  (_name, machine) => {
    const lanes: readonly (string | undefined)[] = [undefined, ...laneRuns(machine).map(({ id }) => id)];
    fc.assert(
      fc.property(
        fc.constantFrom(...lanes),
        fc.array(anyEvent(machine), { minLength: 1, maxLength: 12 }),
        (lane, events) => {
          let taken: readonly OrderEvent[] = [takenIn(machine, { material: 'PLA', ...(lane ? { lane } : {}) })];
          for (const one of events) {
            try {
              judge(machine, catalogue, taken, one);
              taken = [...taken, one];
            } catch (error) {
              if (!(error instanceof RefusedEvent)) throw error;
              expect(error.message).toMatch(/[.!?]$/);
              expect(error.path).toMatch(/^\//);
            }
          }
          const state = reduceOrder(machine, catalogue, taken);
          const bench = benchAt(machine, state, Date.parse(START));
          phaseOf(machine, catalogue, state);
          proofsFor(machine, catalogue, state);
          recordOf(machine, catalogue, taken);
          if (state.cause && !state.closed) planFor(machine, catalogue, state, bench);
          if (!state.cause) assess(machine, catalogue, state, bench, { depth: 1, quick: true });
        },
      ),
      { numRuns: 120 },
    );
  },
);

test('a cause of another lane, or one that its station cannot have, is refused with what to do', () => {
  const [first, second] = laneRuns(dunlin);
  const route = new Set(laneRuns(dunlin)[0]?.stations.map(({ id }) => id));
  const other = second?.stations.find(({ id }) => !route.has(id));
  const intake = [takenIn(dunlin, { lane: first?.id ?? '' })];
  const choose = (station: string, mode: string) =>
    judge(dunlin, catalogue, intake, event('cause-chosen', { station, mode, advised: false }));
  expect(() => choose(other?.id ?? '', 'spool-drags')).toThrow(/not on the path of this order/);
  expect(() => choose('hub', 'tip-particles')).toThrow(/no failure of/);
  expect(choose('hub', 'stub').cause?.mode).toBe('stub');
  // One that an older catalogue had let in stays in its order.
  const stored = [...intake, event('cause-chosen', { station: 'hub', mode: 'tip-particles', advised: false })];
  expect(reduceOrder(dunlin, catalogue, stored).cause?.mode).toBe('tip-particles');
});
