import type { CheckAtPlace } from '../bench/places';
import { needOfCheck } from '../bench/places';
import { partsToRemove, waysOf } from '../bench/closure';
import { POWER_MIN, RAISE_MIN, UNLOAD_MIN, unmet } from '../bench/price';
import {
  heaterOff,
  lanesThrough,
  looseConnectors,
  removalOf,
  strandSettled,
  type Act,
  type Bench,
  type Strand,
} from '../bench/state';
import type { Catalogue } from '../catalogue/types';
import type { Machine } from '../path/machine';
import { cooledTo, SAFE_TO_TOUCH_C, secondsToCool, SWITCH_OFF_BELOW_C } from '../physics/heat';
import { playPlan, type Accident, type PlayedStep, type Scene } from '../referee';

/**
 * What somebody does with their own hands at the bench of a practice round. The referee that checks plans watches every move;
 * what it calls an accident is told and not done, and what simply cannot be done is refused with the reason.
 */
export type HandMove =
  | { readonly do: 'heat' }
  | { readonly do: 'cool'; readonly to: 'touch' | 'switch-off' }
  | { readonly do: 'power'; readonly to: 'on' | 'off' }
  | { readonly do: 'unplug' | 'plug'; readonly connector: string }
  | { readonly do: 'off' | 'on' | 'service'; readonly part: string }
  | { readonly do: 'unload' }
  | { readonly do: 'raise' };

/** A bench in hand, with what has been done on it as the referee sees it. */
export interface HandsOn {
  readonly bench: Bench;
  readonly steps: readonly PlayedStep[];
}

export interface Tried {
  readonly after: HandsOn;
  readonly handsMin: number;
  readonly waitMin: number;
  readonly accident?: Accident;
  /** Why it cannot be done, in words. */
  readonly refused?: string;
}

/** A strand leaves a nozzle only as melt (the referee's own threshold). */
const MELT_C = 150;
/** Accidents of the referee that hurt nobody: the machine simply does not let it be done. */
const HARMLESS: ReadonlySet<Accident['id']> = new Set(['open-held', 'state-unmet', 'words-against-state']);

export const startOf = (machine: Machine, lane: string): HandsOn => ({
  bench: {
    temperatureC: machine.heat.ambientC,
    targetC: 0,
    power: 'on',
    off: new Set(),
    pulled: new Set(),
    strand: { [lane]: 'in' },
    supported: false,
    service: new Set(),
  },
  steps: [],
});

const sceneOf = (machine: Machine, lane: string): Scene => ({
  temperatureC: machine.heat.ambientC,
  targetC: 0,
  power: 'on',
  off: {},
  strand: { [lane]: 'in' },
  supported: false,
  wet: [],
  service: [],
});

/** The caution texts are the plan's business: here every hazard counts as said, and only the deed is judged. */
const stepOf = (
  n: number,
  acts: readonly Act[],
  catalogue: Catalogue,
  machine: Machine,
  minutes: number,
  waitMinutes: number,
  tools: readonly string[],
): PlayedStep => ({
  id: `move-${n}`,
  title: '',
  how: '',
  cautions: [
    ...new Set([...catalogue.cautions.map(({ id }) => id), ...machine.parts.flatMap((p) => p.cautions ?? [])]),
  ],
  tools,
  minutes,
  waitMinutes,
  need: { heat: 'any', power: 'any', hotC: 0 },
  fasteners: [],
  acts,
});

interface Doing {
  readonly acts: readonly Act[];
  readonly after: Bench;
  readonly handsMin?: number;
  readonly waitMin?: number;
  readonly refused?: string | undefined;
  readonly tools?: readonly string[];
}

const withOut = (set: ReadonlySet<string> | undefined, id: string): ReadonlySet<string> =>
  new Set([...(set ?? [])].filter((one) => one !== id));
const withOne = (set: ReadonlySet<string> | undefined, id: string): ReadonlySet<string> =>
  new Set([...(set ?? []), id]);

/** Where the heater leaves the hot end after some minutes: on its target, or cooling. */
function after(machine: Machine, bench: Bench, minutes: number): Bench {
  const { ambientC, coolTauS, heatUpCPerS } = machine.heat;
  const aim = bench.power === 'on' ? (bench.targetC ?? 0) : 0;
  const seconds = 60 * minutes;
  const temperatureC =
    aim > bench.temperatureC
      ? Math.min(aim, bench.temperatureC + heatUpCPerS * seconds)
      : Math.max(Math.min(aim, bench.temperatureC), cooledTo(bench.temperatureC, ambientC, coolTauS, seconds));
  return { ...bench, temperatureC };
}

function doingOf(machine: Machine, lane: string, bench: Bench, move: HandMove, hotC: number): Doing {
  const { heat } = machine;
  switch (move.do) {
    case 'heat':
      return {
        acts: [{ do: 'target', c: hotC }],
        after: { ...bench, targetC: hotC },
        waitMin: Math.max(0, (hotC - bench.temperatureC) / heat.heatUpCPerS / 60),
        refused: bench.power === 'off' ? 'The machine is switched off: nothing heats.' : undefined,
      };
    case 'cool': {
      const toC = move.to === 'touch' ? SAFE_TO_TOUCH_C : SWITCH_OFF_BELOW_C;
      return {
        acts: [{ do: 'target', c: 0 }],
        after: { ...bench, targetC: 0 },
        waitMin: secondsToCool(bench.temperatureC, toC, heat.ambientC, heat.coolTauS) / 60,
      };
    }
    case 'power':
      return {
        acts: [{ do: 'power', to: move.to }],
        after: { ...bench, power: move.to, ...(move.to === 'off' ? { targetC: 0 } : {}) },
        handsMin: POWER_MIN,
      };
    case 'unplug':
    case 'plug':
      return {
        acts: [{ do: move.do, connectors: [move.connector] }],
        after: { ...bench, pulled: (move.do === 'unplug' ? withOne : withOut)(bench.pulled, move.connector) },
        handsMin: POWER_MIN,
      };
    case 'off':
      return takingOff(machine, bench, move.part);
    case 'on': {
      const removal = removalOf(machine, move.part);
      const { [move.part]: _, ...ways } = bench.ways ?? {};
      return {
        acts: [{ do: 'on', part: move.part }],
        after: {
          ...bench,
          off: withOut(bench.off, move.part),
          service: withOut(bench.service, move.part),
          ways,
        },
        handsMin: removal?.minutesOn ?? 0,
        tools: removal?.heat === 'hot' ? ['spanner'] : [],
        refused: bench.off.has(move.part) ? undefined : 'It is on already.',
      };
    }
    case 'service':
      return {
        acts: [{ do: 'service', part: move.part }],
        after: { ...bench, service: withOne(bench.service, move.part) },
        handsMin: 1,
        refused: bench.off.has(move.part) ? undefined : 'It is on its mount: it comes off first.',
      };
    case 'unload':
      return {
        acts: [{ do: 'strand', lanes: lanesToClear(machine, lane), to: 'out' }],
        after: { ...bench, strand: cleared(machine, lane, bench) },
        handsMin: UNLOAD_MIN,
        refused:
          bench.strand?.[lane] === 'in' && bench.temperatureC < MELT_C
            ? `It sits frozen in the nozzle at ${Math.round(bench.temperatureC)} °C: it comes out hot.`
            : undefined,
      };
    case 'raise':
      return { acts: [{ do: 'raise' }], after: { ...bench, supported: true }, handsMin: RAISE_MIN };
  }
}

/** All lanes that run through what the lane in hand opens are taken out together. */
const lanesToClear = (machine: Machine, lane: string): readonly string[] => [
  ...new Set([lane, ...machine.parts.flatMap(({ id, severs }) => (severs ? lanesThrough(machine, id) : []))]),
];

const cleared = (machine: Machine, lane: string, bench: Bench): Readonly<Record<string, Strand>> => ({
  ...bench.strand,
  ...Object.fromEntries(lanesToClear(machine, lane).map((one) => [one, 'out' as const])),
});

/** A part comes off by the first of its ways that nothing else holds. */
function takingOff(machine: Machine, bench: Bench, id: string): Doing {
  const nameOf = (other: string): string =>
    [...machine.parts, ...machine.connectors].find((one) => one.id === other)?.name ?? other;
  const part = machine.parts.find((one) => one.id === id);
  const free = part && waysOf(part).find((way) => (way.after ?? []).every((other) => bench.off.has(other)));
  const loose = new Set(looseConnectors(machine, bench).map((plug) => plug.id));
  const plugged = (free?.unplug ?? []).filter((plug) => !loose.has(plug));
  const held = (part?.after ?? []).filter((other) => !bench.off.has(other));
  const hot = free?.heat === 'hot';
  const why = (): string | undefined => {
    if (bench.off.has(id)) return 'It is off already.';
    if (!free) return `It is held: ${held.map(nameOf).join(', ')} must be off first.`;
    if (plugged.length > 0) return `It hangs on its cable: pull ${plugged.map(nameOf).join(', ')} first.`;
    return hot && bench.temperatureC < MELT_C ? 'It is bound by frozen plastic and comes off hot.' : undefined;
  };
  return {
    acts: [{ do: 'off', part: id, ...(free?.way === undefined ? {} : { way: free.way }) }],
    after: {
      ...bench,
      off: withOne(bench.off, id),
      ...(free?.way === undefined ? {} : { ways: { ...bench.ways, [id]: free.way } }),
    },
    handsMin: free?.minutesOff ?? 0,
    tools: hot ? ['spanner'] : [],
    refused: why(),
  };
}

function judged(machine: Machine, lane: string, catalogue: Catalogue, hands: HandsOn, doing: Doing): Tried {
  const { acts, handsMin = 0, waitMin = 0, tools = [] } = doing;
  const step = stepOf(hands.steps.length, acts, catalogue, machine, handsMin, waitMin, tools);
  const accident = playPlan(machine, lane, sceneOf(machine, lane), [...hands.steps, step]);
  const harm = accident && !HARMLESS.has(accident.id) ? accident : undefined;
  if (harm) return { after: hands, handsMin: 0, waitMin: 0, accident: harm };
  const refused = doing.refused ?? accident?.text;
  if (refused !== undefined) return { after: hands, handsMin: 0, waitMin: 0, refused };
  return {
    after: { bench: after(machine, doing.after, handsMin + waitMin), steps: [...hands.steps, step] },
    handsMin,
    waitMin,
  };
}

/** One move at the bench. */
export const moveAt = (
  machine: Machine,
  lane: string,
  catalogue: Catalogue,
  hands: HandsOn,
  move: HandMove,
  hotC: number,
): Tried => judged(machine, lane, catalogue, hands, doingOf(machine, lane, hands.bench, move, hotC));

/** A look with one's own hands, on the bench as it stands: what is touched and pushed is judged first, then whether it can be seen at all. */
export function lookAt(
  machine: Machine,
  lane: string,
  catalogue: Catalogue,
  hands: HandsOn,
  place: CheckAtPlace,
  hotC: number,
): Tried {
  const { check } = place;
  const { bench } = hands;
  const need = needOfCheck(place, hotC);
  const covered = partsToRemove(machine, place.parts, bench.off).filter(({ id }) => place.parts.includes(id));
  const away = check.heat === 'hot' ? heaterOff(machine, bench) : [];
  const blocked = (place.clear ?? []).filter((one) => !strandSettled(bench, one));
  const bare = check.hands === 'bare' || (check.hands === undefined && check.heat === 'cold');
  const acts: Act[] = [
    ...(check.push
      ? [
          {
            do: 'push' as const,
            station: place.station,
            exit: check.exit ?? ('none' as const),
            ...(check.push === 'hand' ? { inHand: true } : {}),
          },
        ]
      : []),
    ...(bare && covered.length === 0 ? [{ do: 'touch' as const, station: place.station, with: 'bare' as const }] : []),
  ];
  const refused =
    covered.length > 0
      ? `It cannot be seen: ${covered.map(({ name }) => name).join(', ')} covers it.`
      : away.length > 0
        ? `It is done at heat, and ${away.map(({ name }) => name).join(', ')} is off its mount.`
        : blocked.length > 0
          ? 'Filament is still in the path: it comes out first.'
          : unmet(need, bench, machine);
  return judged(machine, lane, catalogue, hands, {
    acts,
    after: bench,
    handsMin: check.minutes,
    refused: refused?.replace(/^needs/, 'It needs'),
  });
}
