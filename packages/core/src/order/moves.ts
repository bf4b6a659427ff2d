import { pinsThatComeOut } from '../bench/fastenerMap';
import { partsToRemove } from '../bench/closure';
import { removalOf, type Bench } from '../bench/state';
import type { Machine } from '../path/machine';
import { laneRuns } from '../path/route';
import type { EventBodies } from './events';
import { refuse } from './refuse';
import type { OrderState } from './state';

type Kept = Pick<OrderState, 'strand' | 'supported' | 'wet' | 'service' | 'pulled'>;

const without = (list: readonly string[], gone: readonly string[]): readonly string[] =>
  list.filter((id) => !gone.includes(id));
const joined = (list: readonly string[], more: readonly string[]): readonly string[] => [
  ...new Set([...list, ...more]),
];

/** Strand, head, solvent, service position and plugs after a change. @throws RefusedEvent */
export function stateChanged(
  state: OrderState,
  { strand, supported, wet = [], dry = [], service = [], pulled = [], plugged = [] }: EventBodies['bench-changed'],
  machine: Machine,
): Kept {
  const parts = new Set(machine.parts.map(({ id }) => id));
  const plugs = new Set(machine.connectors.map(({ id }) => id));
  const lanes = new Set(laneRuns(machine).map(({ id }) => id));
  for (const [field, ids, known, what] of [
    ['wet', wet, parts, 'part'],
    ['dry', dry, parts, 'part'],
    ['service', service, parts, 'part'],
    ['pulled', pulled, plugs, 'connector'],
    ['plugged', plugged, plugs, 'connector'],
    ['strand', Object.keys(strand ?? {}), lanes, 'lane'],
  ] as const) {
    const wrong = ids.find((id) => !known.has(id));
    if (wrong !== undefined) refuse(`/body/${field}`, `This machine has no ${what} "${wrong}".`);
  }
  for (const id of service)
    if (machine.parts.find((part) => part.id === id)?.service === undefined)
      refuse('/body/service', `"${id}" has no service position on this machine.`);
  return {
    strand: { ...state.strand, ...strand },
    supported: supported ?? state.supported,
    wet: without(joined(state.wet, wet), dry),
    service: joined(state.service, service),
    pulled: without(joined(state.pulled, pulled), plugged),
  };
}

/**
 * Parts off and on: what comes off has its screws on the mat. What goes back, and what comes off only now, is in no service
 * position. @throws RefusedEvent
 */
export function partsMoved(state: OrderState, body: EventBodies['parts-moved'], machine: Machine): OrderState {
  const { off = [], on = [], ways = {} } = body;
  [...off, ...on].forEach((id, i) => {
    if (!machine.parts.some((part) => part.id === id))
      refuse(i < off.length ? `/body/off/${i}` : `/body/on/${i - off.length}`, `This machine has no part "${id}".`);
  });
  for (const [id, way] of Object.entries(ways))
    if (!machine.parts.find((part) => part.id === id)?.ways?.some((known) => known.id === way))
      refuse(`/body/ways/${id}`, `"${id}" does not come off "${way}".`);
  const fasteners = { ...state.fasteners };
  for (const id of off) {
    const key = ways[id] === undefined ? id : `${id}/${ways[id]}`;
    const record = fasteners[key] ?? {};
    const pins = pinsThatComeOut(removalOf(machine, id, ways[id])?.fasteners ?? []);
    fasteners[key] = {
      ...record,
      ...Object.fromEntries(
        pins.filter((pin) => record[pin]?.now !== 'left').map((pin) => [pin, { now: 'out' as const }]),
      ),
    };
  }
  return {
    ...state,
    off: joined(state.off, off).filter((id) => !on.includes(id)),
    opened: joined(state.opened, off),
    ways: Object.fromEntries(Object.entries({ ...state.ways, ...ways }).filter(([id]) => !on.includes(id))),
    service: without(state.service, [...on, ...off.filter((id) => !state.off.includes(id))]),
    fasteners,
    // What was proved before it was opened again is not proved any more.
    ...(off.length ? { proofs: {} } : {}),
  };
}

/** What is moved for a check, as it is recorded before its answer: what goes back first, and what comes off. */
export function movedFor(
  machine: Machine,
  bench: Pick<Bench, 'off'>,
  opens: readonly string[],
  back: readonly string[] = [],
): readonly EventBodies['parts-moved'][] {
  const ways = partsToRemove(machine, opens, bench.off).flatMap(({ id, way }) =>
    way === undefined ? [] : [[id, way]],
  );
  return [
    ...(back.length > 0 ? [{ on: back }] : []),
    ...(opens.length > 0 ? [{ off: opens, ...(ways.length > 0 ? { ways: Object.fromEntries(ways) } : {}) }] : []),
  ];
}
