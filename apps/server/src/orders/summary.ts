import {
  assess,
  benchAt,
  benchToDecide,
  heldBecause,
  modeById,
  phaseOf,
  planFor,
  proofsFor,
  stationById,
  type Catalogue,
  type Machine,
  type OrderState,
  type Phase,
} from '@zealous/core';
import type { OrderIndex } from '../db/entities';

function nextOf(
  machine: Machine,
  catalogue: Catalogue,
  state: OrderState,
  phase: Phase,
): Pick<OrderIndex, 'next' | 'lead'> {
  if (phase === 'trace') {
    const bench = benchToDecide(machine, state, state.lastMs);
    // The answer that a phone shows first when the order is opened: an eighth of the work of the longer look.
    const { advice, checks, causes } = assess(machine, catalogue, state, bench, { depth: 1, quick: true });
    const top = causes[0];
    const name = top && `${stationById(machine, top.station)?.name ?? top.station}: ${top.name.toLowerCase()}`;
    return {
      next: advice.kind === 'check' ? (checks[0]?.name ?? 'Choose a cause') : 'Repair: enough is known',
      ...(top && name ? { lead: { name, share: top.suspicion } } : {}),
    };
  }
  const { cause } = state;
  const lead = cause
    ? {
        lead: {
          name: `${stationById(machine, cause.station)?.name ?? cause.station}: ${(modeById(catalogue, cause.mode)?.name ?? cause.mode).toLowerCase()}`,
        },
      }
    : {};
  if (phase === 'plan') {
    const bench = benchAt(machine, state, state.lastMs);
    const plan = planFor(machine, catalogue, state, bench);
    const step = plan.steps[plan.done];
    const held = step && heldBecause(step, bench, machine);
    return { next: step ? `${step.title}${held ? ' (waits)' : ''}` : 'Prove the repair', ...lead };
  }
  if (phase === 'prove') {
    const proof = proofsFor(machine, catalogue, state).find((item) => !state.proofs[item.id]?.passed);
    return { next: proof?.name ?? 'Close the order', ...lead };
  }
  return { next: state.closed ? 'Closed' : 'Close the order', ...lead };
}

const PHASE_WORDS: Readonly<Record<Phase, string>> = {
  trace: 'Go on tracing',
  plan: 'Go on with the work',
  prove: 'Prove the repair',
  record: 'Close the order',
};

/** What a list can show at once, until the rest is worked out: where the order stands, and what was to be done next if it still stands there. */
export function bareIndex(
  machine: Machine,
  catalogue: Catalogue,
  state: OrderState,
  before?: Partial<OrderIndex>,
): OrderIndex {
  const phase = phaseOf(machine, catalogue, state);
  const same = before?.phase === phase && !state.closed ? before : undefined;
  return {
    ...plainIndex(machine, state, phase),
    next: state.closed ? 'Closed' : (same?.next ?? PHASE_WORDS[phase]),
    ...(same?.lead ? { lead: same.lead } : {}),
  };
}

/** What the bench list shows of an order. */
export function indexOf(machine: Machine, catalogue: Catalogue, state: OrderState): OrderIndex {
  const phase = phaseOf(machine, catalogue, state);
  return { ...plainIndex(machine, state, phase), ...nextOf(machine, catalogue, state, phase) };
}

function plainIndex(machine: Machine, state: OrderState, phase: Phase): Omit<OrderIndex, 'next' | 'lead'> {
  const { material, colour } = state.intake ?? {};
  return {
    machineName: machine.name,
    phase,
    ...(material ? { material } : {}),
    ...(colour ? { colour } : {}),
    timers: state.timers,
    heat: state.heat,
    power: state.power,
    machineHeat: machine.heat,
    ...(state.closed ? { outcome: state.closed.outcome } : {}),
  };
}
