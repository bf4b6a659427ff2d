import type { Need } from '../bench/price';
import { partWith } from '../bench/closure';
import { materialOf, remedyById } from '../catalogue/index';
import type { Catalogue, Material, Offer, Remedy, RungOutcome, Solvent } from '../catalogue/types';
import type { EventBodies } from '../order/events';
import type { Fastener, Machine, Station } from '../path/machine';
import { stationById } from '../path/machine';
import type { Route } from '../path/route';
import { SAFE_TO_TOUCH_C, SWITCH_OFF_BELOW_C } from '../physics/heat';
import { mouthFor } from '../trace/places';
import { needOf } from '../trace/repairs';
import { outcomesOfRung } from './ladder';
import { offersOf } from './offers';
import { withRules } from './rules';

export type StepKind = 'heat' | 'cool' | 'wait' | 'power' | 'unload' | 'raise' | 'open' | 'rung' | 'close';
export type StepPhase = 'Make ready' | 'Open' | 'Clear or replace' | 'Close';

export interface PlanStep {
  /** What it is, in the order once done; a repeat has `#2` behind it. */
  readonly id: string;
  readonly phase: StepPhase;
  readonly kind: StepKind;
  readonly title: string;
  readonly how: string;
  readonly station?: string;
  readonly mode?: string;
  readonly part?: string;
  readonly way?: string;
  readonly remedy?: string;
  readonly need: Omit<Need, 'parts'>;
  readonly minutes: number;
  /** Waiting that goes on by itself, minutes. */
  readonly waitMinutes: number;
  readonly tools: readonly string[];
  readonly fasteners: readonly Fastener[];
  readonly cautions: readonly string[];
  readonly stop?: string;
  /** What may come of a rung. */
  readonly outcomes?: readonly RungOutcome[];
  readonly measures?: 'depth';
  /** What ticking the step says about the bench. */
  readonly sets?: EventBodies['bench-changed'];
  readonly opens?: string;
  readonly closes?: string;
  readonly replaces?: string;
  /** What is fitted. */
  readonly offer?: Offer;
  /** What may take the plastic, to be tried on a piece first. */
  readonly solvents?: readonly Solvent[];
}

/** Hands-on minutes of the steps that every plan shares (estimates of this project). */
export const UNLOAD_MIN = 2;
export const RAISE_MIN = 1;
export const TICK_MIN = 0.5;

/** Everything that a step is written from. */
export interface Writing {
  readonly machine: Machine;
  readonly catalogue: Catalogue;
  readonly route: Route;
  readonly material?: string;
}

const anyNeed = { heat: 'any', power: 'any', hotC: 0 } as const;
const plain = { minutes: TICK_MIN, waitMinutes: 0, tools: [], fasteners: [], cautions: [] } as const;

/** Id of a step, from what it does; `history` are the ids used already. */
export function stepId(key: string, history: Iterable<string>): string {
  let n = 1;
  for (const id of history) if (keyOf(id) === key) n++;
  return n === 1 ? key : `${key}#${n}`;
}

export const keyOf = (id: string): string => id.replace(/#\d+$/, '');

/** Solvents that take a plastic, the first to be tried first. */
export const solventsOf = (catalogue: Catalogue, material: Material): readonly Solvent[] =>
  (material.solvents ?? []).flatMap((id) => catalogue.solvents.find((solvent) => solvent.id === id) ?? []);

/** Text with the values that this machine and filament give. */
function filled(
  text: string,
  { machine, catalogue }: Writing,
  material: Material,
  station: Station,
  hotC: number,
): string {
  const solvents = solventsOf(catalogue, material)
    .map(({ name }) => name)
    .join(', or ');
  const pull = `${Math.min(material.pullC, machine.heat.limitC)} °C (nylon about 150 °C)`;
  return text
    .replaceAll('{temp}', `${Math.round(hotC)} °C`)
    .replaceAll('{pull}', pull)
    .replaceAll('{solvent}', solvents || 'none that spares the metal: replace instead')
    .replaceAll('{station}', station.name);
}

type Body = Omit<PlanStep, 'id'>;

const heatStep = (toC: number): Body => ({
  ...plain,
  phase: 'Make ready',
  kind: 'heat',
  title: `Set the hot end to ${toC} °C`,
  how: 'Look at actual and target: a low reading with target 0 means that nobody set it.',
  need: { heat: 'any', power: 'on', hotC: toC },
  sets: { targetC: toC },
  cautions: ['hot'],
});

const warmStep = (toC: number): Body => ({
  ...plain,
  phase: 'Make ready',
  kind: 'wait',
  title: `Wait until it reads ${toC} °C`,
  how: 'Actual beside target, and steady.',
  need: { heat: 'any', power: 'on', hotC: toC },
  sets: { readingC: toC },
  cautions: ['hot'],
});

function coolStep(toC: number | undefined): Body {
  const base = { ...plain, phase: 'Make ready' as const, need: anyNeed, cautions: ['hot'] };
  if (toC === undefined)
    return {
      ...base,
      kind: 'heat',
      title: 'Target to zero, fans running',
      how: 'It cools while the next steps are done. Heat left in the block would soften the strand in the cold zone.',
      sets: { targetC: 0 },
    };
  const touch = toC <= SAFE_TO_TOUCH_C;
  return {
    ...base,
    kind: 'cool',
    title: touch
      ? `Cool to safe to touch, below ${SAFE_TO_TOUCH_C} °C`
      : `Cool below ${SWITCH_OFF_BELOW_C} °C before switching off`,
    how: touch
      ? 'Target to zero, fans running. Confirm by a reading, never by a trial touch.'
      : 'Target to zero, fans running: heat left in the block would soften the strand in the cold zone.',
    sets: { targetC: 0, readingC: toC, atMost: true },
  };
}

const powerStep = (to: 'on' | 'off'): Body => ({
  ...plain,
  phase: 'Make ready',
  kind: 'power',
  title: to === 'off' ? 'Switch off and unplug' : 'Plug in and switch on',
  how:
    to === 'off'
      ? 'Below 100 °C only; pull the plug by its body.'
      : 'Nothing loose near belts and fan. Hands clear while it homes.',
  need: anyNeed,
  sets: { power: to },
  cautions: to === 'off' ? ['unplug'] : [],
});

function partStep(machine: Machine, kind: 'open' | 'close', id: string, way: string | undefined): Body {
  const part = partWith(machine, id, way);
  const opens = kind === 'open';
  return {
    ...plain,
    phase: opens ? 'Open' : 'Close',
    kind,
    title: `${opens ? 'Off' : 'Back on'}: ${part.name}${part.wayName ? ` (${part.wayName})` : ''}`,
    how: opens ? part.off : part.on,
    part: part.id,
    ...(way === undefined ? {} : { way }),
    need: { heat: part.heat, power: part.power, hotC: 0 },
    minutes: opens ? part.minutesOff : part.minutesOn,
    tools: part.tool ? [part.tool] : [],
    fasteners: part.fasteners ?? [],
    cautions: part.cautions ?? [],
    ...(opens ? { opens: part.id } : { closes: part.id }),
  };
}

function rungStep(writing: Writing, station: string, mode: string, remedy: Remedy, offerId: string | undefined): Body {
  const { machine, catalogue, route, material: id } = writing;
  const stop = route.stops.find((candidate) => candidate.station.id === station);
  const material = materialOf(catalogue, id);
  if (!stop) throw new RangeError(`"${station}" is not on this path.`);
  const need = needOf(machine, route, { stop }, remedy, material);
  const mouth = remedy.needs === 'mouth' ? mouthFor(route, stop.index)?.station.name : undefined;
  const { heat, power, hotC } = need;
  const offer = offersOf(remedy).find((candidate) => candidate.id === offerId);
  return {
    ...plain,
    phase: 'Clear or replace',
    kind: 'rung',
    title: `${remedy.name}: ${stop.station.name}`,
    how: `${mouth && mouth !== stop.station.name ? `In at ${mouth}. ` : ''}${withRules(filled(remedy.how, writing, material, stop.station, hotC), route)}`,
    station,
    mode,
    remedy: remedy.id,
    need: { heat, power, hotC },
    minutes: offer?.minutes ?? remedy.minutes,
    waitMinutes: remedy.waitMinutes ?? 0,
    tools: (remedy.tools ?? []).map((tool) => withRules(tool, route)),
    cautions: remedy.cautions ?? [],
    outcomes: outcomesOfRung(remedy),
    ...(remedy.measures ? { measures: remedy.measures } : {}),
    ...(remedy.stop ? { stop: remedy.stop } : {}),
    ...(remedy.replaces ? { replaces: remedy.replaces } : {}),
    ...(offer ? { offer } : {}),
    ...(remedy.needsSolvent ? { solvents: solventsOf(catalogue, material) } : {}),
  };
}

function unloadStep(hotC: number): Body {
  if (hotC === 0)
    return {
      ...plain,
      phase: 'Make ready',
      kind: 'unload',
      title: 'Draw the strand back cold',
      how: 'Lever open, draw it back from the spool. Look at the end: what is missing is still inside. Note its length.',
      need: anyNeed,
      minutes: UNLOAD_MIN,
    };
  return {
    ...plain,
    phase: 'Make ready',
    kind: 'unload',
    title: 'Unload the filament',
    how: 'At print heat push a little in so that the melt is one piece, then pull out in one go. If it does not come, cut it at the head and leave the rest.',
    need: { heat: 'hot', power: 'on', hotC },
    minutes: UNLOAD_MIN,
    tools: ['side cutters'],
    cautions: ['hot'],
  };
}

const raiseStep: Body = {
  ...plain,
  phase: 'Make ready',
  kind: 'raise',
  title: 'Raise the head and support it',
  how: 'Well clear of the bed, something firm under it. Lift axis held, only the extruder released. Pad a glass bed.',
  need: anyNeed,
  minutes: RAISE_MIN,
  tools: ['padding for the bed'],
  cautions: ['support-head'],
};

/** A step of an older order whose kind is no longer known: it stays in the record under its own name. */
const unknownStep = (key: string): Body => ({
  ...plain,
  phase: 'Make ready',
  kind: 'raise',
  title: key,
  how: '',
  need: anyNeed,
});

/** A step from its id alone: what it says depends on machine, catalogue and path, never on how the order went. */
export function stepOf(id: string, writing: Writing): PlanStep {
  const key = keyOf(id);
  const [kind = '', rest = ''] = key.split(/:(.*)/s);
  const body = ((): Body => {
    try {
      switch (kind) {
        case 'heat':
          return heatStep(Number(rest) || materialOf(writing.catalogue, writing.material).printC);
        case 'wait':
          if (Number(rest) > SWITCH_OFF_BELOW_C) return warmStep(Number(rest));
          return coolStep(Number(rest));
        case 'cool':
          return coolStep(rest === '' ? undefined : Number(rest));
        case 'on':
        case 'off':
          return powerStep(kind);
        case 'unload':
          return unloadStep(rest === '' ? 0 : Number(rest));
        case 'raise':
          return raiseStep;
        case 'open':
        case 'close': {
          const [part = '', way] = rest.split('/');
          return partStep(writing.machine, kind, part, way);
        }
        case 'rung': {
          const [station = '', mode = '', what = ''] = rest.split(':');
          const [remedyId = '', offerId] = what.split('/');
          const remedy = remedyById(writing.catalogue, remedyId);
          return remedy && stationById(writing.machine, station)
            ? rungStep(writing, station, mode, remedy, offerId)
            : unknownStep(key);
        }
        default:
          return unknownStep(key);
      }
    } catch (error) {
      if (error instanceof RangeError) return unknownStep(key);
      throw error;
    }
  })();
  return { ...body, id };
}
