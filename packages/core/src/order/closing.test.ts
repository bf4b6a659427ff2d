import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { parseOrder } from '../formats/index';
import { proofsFor } from './proofs';
import { allFasteners } from '../plan/record';
import { dunlin, event, stateOf, takenIn } from '../testing/machines';
import { closingFaults, openFaults } from './closing';
import type { OrderEvent } from './events';
import { judge, reduceOrder } from './reduce';

const begun = (): OrderEvent[] => [
  takenIn(dunlin, { material: 'PLA', lane: 'lane-a' }),
  event('cause-chosen', { station: 'hub', mode: 'stub', advised: true }),
];
const cleared = event('rung-tried', {
  stepId: 'rung:hub:stub:take-out',
  remedy: 'take-out',
  station: 'hub',
  mode: 'stub',
  outcome: 'cleared',
});
const proved = (events: readonly OrderEvent[]): OrderEvent[] =>
  proofsFor(dunlin, catalogue, stateOf(dunlin, events)).map(({ id }) =>
    event('proof-recorded', { proof: id, passed: true }),
  );
const kinds = (events: readonly OrderEvent[]): readonly string[] => [
  ...new Set(closingFaults(dunlin, catalogue, stateOf(dunlin, events)).map(({ kind }) => kind)),
];
const cured = event('closed', { outcome: 'cured' });

test('cleared, closed and proved it may be closed as cured, and each thing left undone is named', () => {
  const whole = [...begun(), cleared];
  expect(kinds(begun())).toEqual(['cause', 'proof']);
  expect(kinds(whole)).toEqual(['proof']);
  expect(kinds([...whole, ...proved(whole)])).toEqual([]);
  expect(judge(dunlin, catalogue, [...whole, ...proved(whole)], cured).closed?.outcome).toBe('cured');
  const failed = [...whole, ...proved(whole), event('proof-recorded', { proof: 'feed', passed: false })];
  expect(kinds(failed)).toEqual(['failed']);
});

describe('what stands open', () => {
  const open = (more: readonly OrderEvent[]): readonly string[] =>
    openFaults(dunlin, stateOf(dunlin, [...begun(), cleared, ...more])).map(({ kind }) => kind);

  test('a part off, its plugs loose and its screws on the mat, until it is back and counted', () => {
    const off = event('parts-moved', { off: ['extruder-cover'] });
    expect(open([off])).toEqual(['part-off', 'loose', 'fasteners']);
    const on = event('parts-moved', { on: ['extruder-cover'] });
    expect(open([off, on])).toEqual(['fasteners']);
    const counted = allFasteners(dunlin, 'extruder-cover', undefined, 'in').map(({ type, body }) => event(type, body));
    expect(open([off, on, ...counted])).toEqual([]);
    // A screw may be missing for a reason; one without is not.
    const left = event('fasteners-moved', { part: 'extruder-cover', left: [{ index: 0, why: 'stripped' }] });
    const rest = event('fasteners-moved', { part: 'extruder-cover', in: [1, 2] });
    expect(open([off, on, left, rest])).toEqual(['fasteners']);
    expect(open([off, on, left, rest, event('fasteners-moved', { part: 'extruder-cover', in: [3] })])).toEqual([]);
  });

  test('a plain cover may stay off for a reason, what carries plugs may not', () => {
    const stays = (part: string): OrderEvent[] => [
      event('parts-moved', { off: [part] }),
      event('step-skipped', { stepId: `close:${part}`, why: 'a magnet is on order' }),
    ];
    expect(open(stays('front-cover'))).toEqual([]);
    expect(open(stays('extruder-cover'))).toContain('part-off');
    expect(open(stays('hot-end'))).toContain('part-off');
  });

  test('solvent, the support under the head, and a plug pulled by itself', () => {
    expect(open([event('bench-changed', { wet: ['hot-end'] })])).toEqual(['wet']);
    expect(open([event('bench-changed', { wet: ['hot-end'] }), event('bench-changed', { dry: ['hot-end'] })])).toEqual(
      [],
    );
    expect(open([event('bench-changed', { supported: true })])).toEqual(['supported']);
    expect(open([event('bench-changed', { pulled: ['heater'] })])).toEqual(['loose']);
    expect(
      open([event('bench-changed', { pulled: ['heater'] }), event('bench-changed', { plugged: ['heater'] })]),
    ).toEqual([]);
  });

  test('no proof is taken meanwhile, by any client', () => {
    const events = [...begun(), cleared, event('parts-moved', { off: ['front-cover'] })];
    const proof = event('proof-recorded', { proof: 'cold-pass', passed: true });
    expect(() => judge(dunlin, catalogue, events, proof)).toThrow(/closed machine\. Front cover of the head is off/);
    expect(() =>
      judge(dunlin, catalogue, events, event('proof-recorded', { proof: 'feed', passed: false })),
    ).not.toThrow();
  });
});

test('opening again, another try or another part takes back what was proved', () => {
  const whole = [...begun(), cleared];
  const all = [...whole, ...proved(whole)];
  for (const again of [
    event('parts-moved', { off: ['front-cover'] }),
    cleared,
    event('part-replaced', { station: 'hub', part: 'part' }),
  ])
    expect(stateOf(dunlin, [...all, again]).proofs).toEqual({});
});

test('what the machine has not is refused with its field', () => {
  for (const [body, field] of [
    [{ wet: ['lid'] }, '/body/wet'],
    [{ pulled: ['lid'] }, '/body/pulled'],
    [{ strand: { attic: 'out' } }, '/body/strand'],
    [{ service: ['hot-end'] }, '/body/service'],
  ] as const)
    expect(() => judge(dunlin, catalogue, begun(), event('bench-changed', body as never))).toThrow(
      expect.objectContaining({ path: field }),
    );
});

test('an order that was closed under older rules stays closed, with all that it says', () => {
  const file = parseOrder(
    JSON.parse(readFileSync(join(__dirname, '../testing/old/order-machine-2-whelk.json'), 'utf8')),
  );
  const state = reduceOrder(file.machine, catalogue, file.events);
  expect(state.closed?.outcome).toBe('cured');
  expect(state.parts.map(({ batch }) => batch)).toEqual(['ST-44']);
  expect(state.tries.map(({ remedy }) => remedy)).toEqual(['heat-and-pull', 'renew-liner']);
});
