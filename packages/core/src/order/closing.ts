import { onTheMat, fastenerMap } from '../bench/fastenerMap';
import { looseConnectors, removalOf } from '../bench/state';
import { modeById } from '../catalogue/index';
import type { Catalogue } from '../catalogue/types';
import { stationById, type Machine } from '../path/machine';
import { proofsFor } from './proofs';
import { causesUnderWork, isCleared } from './causes';
import { leftOffOf } from './leftOff';
import type { OrderState } from './state';

/** Something that keeps an order from being proved or closed as cured, with what to do. */
export interface ClosingFault {
  readonly kind: 'cause' | 'part-off' | 'loose' | 'fasteners' | 'wet' | 'supported' | 'proof' | 'failed';
  readonly text: string;
}

/** What stands open on the machine: parts off, plugs loose, screws on the mat, a part wet, the support under the head. */
export function openFaults(machine: Machine, state: OrderState): readonly ClosingFault[] {
  const left = leftOffOf(state);
  const name = (id: string): string => machine.parts.find((part) => part.id === id)?.name ?? id;
  // What carries plugs or the heater is never left off.
  const away = state.off.filter((id) => {
    const removal = removalOf(machine, id, state.ways[id]);
    return (
      left[id] === undefined || (removal?.unplug?.length ?? 0) > 0 || machine.parts.some((p) => p.id === id && p.heats)
    );
  });
  const loose = looseConnectors(machine, {
    off: new Set(state.off),
    ways: state.ways,
    pulled: new Set(state.pulled),
  });
  const mat = Object.entries(state.fasteners).flatMap(([key, record]) => {
    const [part = '', way] = key.split('/');
    if (state.off.includes(part) && left[part] !== undefined) return [];
    const pins = onTheMat(fastenerMap(removalOf(machine, part, way)?.fasteners ?? []), record);
    return pins.length ? [`${pins.length} of ${name(part)}`] : [];
  });
  return [
    ...away.map((id): ClosingFault => ({
      kind: 'part-off',
      text: `${name(id)} is off: put it back, or say why it stays off.`,
    })),
    ...(loose.length
      ? [{ kind: 'loose' as const, text: `Not plugged in: ${loose.map((one) => one.name).join(', ')}.` }]
      : []),
    ...(mat.length
      ? [{ kind: 'fasteners' as const, text: `Fasteners on the mat without a reason: ${mat.join(', ')}.` }]
      : []),
    ...state.wet.map((id): ClosingFault => ({ kind: 'wet', text: `${name(id)} is wet with solvent: dry it first.` })),
    ...(state.supported
      ? [{ kind: 'supported' as const, text: 'The support is still under the head: take it away.' }]
      : []),
  ];
}

/** Why an order cannot be closed as cured; empty when it can. */
export function closingFaults(machine: Machine, catalogue: Catalogue, state: OrderState): readonly ClosingFault[] {
  const open = openFaults(machine, state);
  const asked = proofsFor(machine, catalogue, state);
  const failed = asked.filter(({ id }) => state.proofs[id]?.passed === false);
  const missing = asked.filter(({ id }) => state.proofs[id] === undefined);
  const uncleared = state.cause ? causesUnderWork(state).filter((cause) => !isCleared(state, cause)) : [];
  return [
    ...(state.cause ? [] : [{ kind: 'cause' as const, text: 'Nothing was repaired in this visit.' }]),
    ...uncleared.map(({ station, mode }): ClosingFault => ({
      kind: 'cause',
      text: `Not cleared: ${modeById(catalogue, mode)?.name.toLowerCase() ?? mode}, at ${stationById(machine, station)?.name ?? station}.`,
    })),
    ...open,
    ...failed.map(({ name }): ClosingFault => ({
      kind: 'failed',
      text: `A proof failed: ${name}. Repeat it, or say that the repair did not cure.`,
    })),
    ...missing.map(({ name }): ClosingFault => ({ kind: 'proof', text: `Not proved yet: ${name}.` })),
  ];
}
