import { partWith } from '../bench/closure';
import { hazardsOf } from '../bench/action';
import type { Act } from '../bench/state';
import { materialOf, remedyById, standingAction } from '../catalogue/index';
import type { Hazard, StandingAction } from '../catalogue/types';
import type { EventBodies } from '../order/events';
import type { Loss, Station } from '../path/machine';
import { stationById } from '../path/machine';
import { SAFE_TO_TOUCH_C, SWITCH_OFF_BELOW_C } from '../physics/heat';
import { filled, rungStep, toolWords } from './actionStep';
import { cautionsOf } from '../catalogue/cautions';
import { closingNotes, lookMeanwhile, openingNotes } from './notes';
import { keyOf } from '../bench/stepKeys';
import { anyNeed, plain, type Body, type PlanStep, type Writing } from './stepTypes';

export * from '../bench/stepKeys';
export * from './stepTypes';

const heatStep = ({ catalogue, route }: Writing, toC: number): Body => ({
  ...plain,
  phase: 'Make ready',
  kind: 'heat',
  title: `Set the hot end to ${toC} °C`,
  how: 'Look at actual and target: a low reading with target 0 means that nobody set it.',
  need: { heat: 'any', power: 'on', hotC: toC },
  sets: { targetC: toC },
  acts: [{ do: 'target', c: toC }],
  cautions: cautionsOf(catalogue, [], [], hazardsOf(route, { heat: 'hot' })),
});

const warmStep = ({ catalogue, route }: Writing, toC: number): Body => ({
  ...plain,
  phase: 'Make ready',
  kind: 'wait',
  title: `Wait until it reads ${toC} °C`,
  how: 'Actual beside target, and steady.',
  need: { heat: 'any', power: 'on', hotC: toC },
  sets: { readingC: toC },
  acts: [{ do: 'reads', c: toC }],
  cautions: cautionsOf(catalogue, [], [], hazardsOf(route, { heat: 'hot' })),
});

function coolStep({ catalogue }: Writing, toC: number | undefined): Body {
  const base = {
    ...plain,
    phase: 'Make ready' as const,
    need: anyNeed,
    cautions: cautionsOf(catalogue, [], [], ['heat']),
  };
  if (toC === undefined)
    return {
      ...base,
      kind: 'heat',
      title: 'Target to zero, fans running',
      how: 'It cools while the next steps are done. Heat left in the block would soften the strand in the upper zone.',
      sets: { targetC: 0 },
      acts: [{ do: 'target', c: 0 }],
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
      : 'Target to zero, fans running: heat left in the block would soften the strand in the upper zone.',
    sets: { targetC: 0, readingC: toC, atMost: true },
    acts: [
      { do: 'target', c: 0 },
      { do: 'reads', c: toC, atMost: true },
    ],
  };
}

const powerStep = ({ catalogue }: Writing, to: 'on' | 'off'): Body => ({
  ...plain,
  phase: 'Make ready',
  kind: 'power',
  title: to === 'off' ? 'Switch off and unplug' : 'Plug in and switch on',
  how:
    to === 'off'
      ? `Below ${SWITCH_OFF_BELOW_C} °C only; pull the plug by its body.`
      : 'Every plug in its socket, nothing loose near belts and fan. Hands clear; it does not home onto a support.',
  need: anyNeed,
  sets: { power: to },
  acts: [{ do: 'power', to }],
  cautions: to === 'off' ? cautionsOf(catalogue, [], [], ['plugs']) : cautionsOf(catalogue, [], [], ['homing']),
});

const partHazards = (part: {
  readonly loses?: readonly Loss[];
  readonly parked?: boolean;
  readonly unplug?: readonly string[];
  readonly hot?: boolean;
}): readonly Hazard[] => [
  ...((part.loses ?? []).some(({ what }) => what === 'spring') ? (['spring'] as const) : []),
  ...((part.loses ?? []).some(({ what }) => what !== 'spring') ? (['small-parts'] as const) : []),
  ...(part.parked ? (['cable'] as const) : []),
  ...(part.unplug?.length ? (['plugs'] as const) : []),
  ...(part.hot ? (['heat'] as const) : []),
];

function partStep(writing: Writing, kind: 'open' | 'close', id: string, way: string | undefined): Body {
  const { machine, catalogue } = writing;
  const part = partWith(machine, id, way);
  const opens = kind === 'open';
  const moved: Act = { do: opens ? 'off' : 'on', part: part.id, ...(way === undefined ? {} : { way }) };
  const plugs: readonly Act[] = part.unplug?.length ? [{ do: opens ? 'unplug' : 'plug', connectors: part.unplug }] : [];
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
    cautions: cautionsOf(catalogue, part.cautions ?? [], [], partHazards(part)),
    notes: opens ? openingNotes(machine, part) : closingNotes(machine, part),
    loses: part.loses ?? [],
    looks: opens ? lookMeanwhile(machine, catalogue, part.id) : [],
    acts: opens ? [...plugs, moved] : [moved, ...plugs],
    ...(opens ? { opens: part.id } : { closes: part.id }),
  };
}

const STRAND_CHOICES: readonly (readonly [string, 'in' | 'tube' | 'out' | 'remnant', string])[] = [
  ['empty', 'out', 'The path is empty'],
  ['in', 'in', 'Loaded, down into the head'],
  ['tube', 'tube', 'In the tube only'],
  ['piece', 'remnant', 'A piece is left, and I know where'],
];

const strandSet = (lanes: readonly string[], to: 'in' | 'tube' | 'out' | 'remnant'): EventBodies['bench-changed'] => ({
  strand: Object.fromEntries(lanes.map((lane) => [lane, to])),
});

const laneWords = ({ machine }: Writing, lanes: readonly string[]): string =>
  lanes.length > 1 ? ` (${lanes.map((id) => machine.runs.find((run) => run.id === id)?.name ?? id).join(', ')})` : '';

function standing(writing: Writing, id: StandingAction['purpose'], station?: Station, hotC = 0) {
  const action = standingAction(writing.catalogue, id);
  const material = materialOf(writing.catalogue, writing.material);
  return {
    ...plain,
    phase: 'Make ready' as const,
    title: action.name ?? action.id,
    how: filled(action.how, writing, material, station, hotC),
    need: { heat: action.heat, power: action.power, hotC },
    minutes: action.minutes,
    tools: toolWords(writing, action.tools ?? [], station),
    cautions: cautionsOf(
      writing.catalogue,
      action.cautions ?? [],
      action.tools ?? [],
      hazardsOf(writing.route, action),
    ),
  };
}

function lookStep(writing: Writing, lanes: readonly string[]): Body {
  const body = standing(writing, 'look');
  return {
    ...body,
    kind: 'look',
    title: `${body.title}${laneWords(writing, lanes)}`,
    choices: STRAND_CHOICES.map(([id, to, label]) => ({ id, label, sets: strandSet(lanes, to) })),
  };
}

function unloadStep(writing: Writing, how: string, lanes: readonly string[]): Body {
  const hotC = Number(how) || 0;
  const id = hotC > 0 ? 'unload-hot' : how === 'cut' ? 'unload-cut' : 'unload-cold';
  const body = standing(writing, id, undefined, hotC);
  const to = how === 'cut' ? 'remnant' : 'out';
  return {
    ...body,
    kind: 'unload',
    title: `${body.title}${laneWords(writing, lanes)}`,
    acts: lanes.length ? [{ do: 'strand', lanes, to }] : [],
    ...(lanes.length
      ? {
          choices: [
            ...(how === 'cut' ? [] : [{ id: 'out', label: 'It came out whole', sets: strandSet(lanes, 'out') }]),
            { id: 'rest', label: 'Cut and held; what is left is noted', sets: strandSet(lanes, 'remnant') },
            { id: 'empty', label: 'It was empty', sets: strandSet(lanes, 'out') },
          ],
        }
      : {}),
  };
}

function headStep(writing: Writing, kind: 'raise' | 'lower'): Body {
  const body = standing(writing, kind);
  return {
    ...body,
    kind,
    phase: kind === 'raise' ? 'Make ready' : 'Close',
    cautions: cautionsOf(writing.catalogue, [], [], [kind === 'raise' ? 'push' : 'homing']),
    sets: { supported: kind === 'raise' },
    acts: [{ do: kind }],
  };
}

function serviceStep(writing: Writing, part: string): Body {
  const found = partWith(writing.machine, part);
  const body = standing(writing, 'service');
  return {
    ...body,
    kind: 'service',
    phase: 'Open',
    title: `${body.title}: ${found.name}`,
    how: body.how.replaceAll('{service}', found.service ?? ''),
    part,
    wants: [part],
    cautions: cautionsOf(writing.catalogue, body.cautions, [], ['heat', 'cable']),
    sets: { service: [part] },
    acts: [{ do: 'service', part }],
  };
}

/** A step of an older order whose kind is no longer known: it stays in the record under its own name. */
const unknownStep = (key: string): Body => ({
  ...plain,
  phase: 'Make ready',
  kind: 'keep',
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
        case 'look':
          return lookStep(writing, rest.split('+'));
        case 'heat':
          return heatStep(writing, Number(rest) || materialOf(writing.catalogue, writing.material).printC);
        case 'wait':
          if (Number(rest) > SWITCH_OFF_BELOW_C) return warmStep(writing, Number(rest));
          return coolStep(writing, Number(rest));
        case 'warm':
          return warmStep(writing, Number(rest));
        case 'cool':
          return coolStep(writing, rest === '' ? undefined : Number(rest));
        case 'on':
        case 'off':
          return powerStep(writing, kind);
        case 'unload': {
          const [how = '', lanes = ''] = rest.split('@');
          return unloadStep(writing, how, lanes === '' ? [] : lanes.split('+'));
        }
        case 'raise':
        case 'lower':
          return headStep(writing, kind);
        case 'service':
          return serviceStep(writing, rest);
        case 'dry': {
          const parts = rest.split('+');
          const body = standing(writing, 'dry');
          const names = parts.map((id) => partWith(writing.machine, id).name).join(', ');
          return {
            ...body,
            kind: 'dry',
            title: `${body.title}: ${names}`,
            waitMinutes: standingAction(writing.catalogue, 'dry').waitMinutes ?? 0,
            sets: { dry: parts },
            acts: [{ do: 'dry', parts }],
          };
        }
        case 'spares':
          return { ...standing(writing, 'spares'), kind: 'spares' };
        case 'keep':
          return {
            ...standing(writing, 'keep'),
            kind: 'keep',
            phase: 'Close',
            ...(stationById(writing.machine, rest) ? { station: rest } : {}),
          };
        case 'open':
        case 'close': {
          const [part = '', way] = rest.split('/');
          return partStep(writing, kind, part, way);
        }
        case 'act':
        case 'rung': {
          const [station = '', mode = '', what = '', action] = rest.split(':');
          const [remedyId = '', offerId] = what.split('/');
          const remedy = remedyById(writing.catalogue, remedyId);
          return remedy && stationById(writing.machine, station)
            ? rungStep(writing, station, mode, remedy, offerId, kind === 'act' ? action : undefined)
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
  const powered = body.need.power === 'on' || body.sets?.power === 'on' || (body.sets?.targetC ?? 0) > 0;
  const cautions = powered ? [...new Set([...(writing.told ?? []), ...body.cautions])] : body.cautions;
  return { ...body, cautions, id };
}
