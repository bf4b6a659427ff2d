import { familyName } from '../path/families';
import { materialOf } from '../catalogue/index';
import { stationById } from '../path/machine';
import type { AccidentId } from '../referee';
import { ACCIDENT_WORDS } from './accidentWords';
import { entryStep, type WayStep } from './review';
import { benchMinutesOf, faultWords, playRound, repairChoices, type RoundPlayed, type RoundState } from './round';

/** What the owner tells, in the catalogue's words. */
export interface Complaint {
  readonly seen: readonly string[];
  readonly began: readonly string[];
  readonly before: readonly string[];
  readonly filament: string;
  readonly more: readonly string[];
}

export interface ViewedEntry extends WayStep {
  /** What would have happened, and what is done instead. */
  readonly accident?: { readonly id: AccidentId; readonly what: string; readonly instead: string };
  readonly refused?: string;
}

/** A round as a screen shows it: plain data. What is hidden is in it only when the round is over. */
export interface RoundView {
  readonly family: string;
  readonly complaint: Complaint;
  readonly bench: {
    readonly temperatureC: number;
    readonly targetC: number;
    readonly hotC: number;
    readonly power: 'on' | 'off';
    readonly loaded: boolean;
    readonly raised: boolean;
    readonly parts: readonly {
      readonly id: string;
      readonly name: string;
      readonly off: boolean;
      readonly service?: 'can' | 'is';
    }[];
    readonly connectors: readonly { readonly id: string; readonly name: string; readonly loose: boolean }[];
  };
  readonly minutes: number;
  readonly entries: readonly ViewedEntry[];
  readonly looks: readonly {
    readonly key: string;
    readonly name: string;
    readonly how: string;
    readonly station: string;
    readonly minutes: number;
    /** Heat and power that it is done at, and what must be off, in words; empty when nothing is asked. */
    readonly at: string;
  }[];
  readonly stations: readonly { readonly id: string; readonly name: string }[];
  readonly repairs: readonly {
    readonly station: string;
    readonly stationName: string;
    readonly causes: readonly {
      readonly mode: string;
      readonly name: string;
      readonly remedies: readonly { readonly id: string; readonly name: string }[];
    }[];
  }[];
  readonly over?: RoundState['over'];
  readonly faults?: readonly string[];
  readonly story?: string;
  readonly reason?: string;
}

function complaintOf({ bench }: RoundState): Complaint {
  const { catalogue, machine } = bench;
  const kase = bench.kase();
  const label = (list: readonly { readonly id: string; readonly label: string }[], id: string): string =>
    list.find((one) => one.id === id)?.label ?? id;
  const came = { same: 'no change', better: 'better', cured: 'cured for a while', worse: 'worse' } as const;
  const tried = new Map((kase.tried ?? []).map(({ id, result }) => [id, came[result]]));
  const noticed = kase.noticedAt === undefined ? undefined : stationById(machine, kase.noticedAt)?.name;
  return {
    seen: kase.symptoms.map((id) => label(catalogue.symptoms, id)),
    began: [kase.onset, ...(kase.onsets ?? [])].flatMap((id) =>
      id === undefined ? [] : [label(catalogue.onsets, id)],
    ),
    before: [...new Set([...kase.before, ...tried.keys()])].map(
      (id) => `${label(catalogue.before, id)}${tried.has(id) ? `: ${tried.get(id)}` : ''}`,
    ),
    filament: materialOf(catalogue, kase.material).name,
    more: [
      ...(kase.weeksLoaded === undefined
        ? []
        : [`Loaded for ${kase.weeksLoaded} ${kase.weeksLoaded === 1 ? 'week' : 'weeks'}`]),
      ...(kase.hotterBefore ? ['A hotter filament was printed before this one'] : []),
      ...(kase.failedAfterMinutes === undefined ? [] : [`It failed after ${kase.failedAfterMinutes} min`]),
      ...(noticed === undefined ? [] : [`The machine’s message names: ${noticed}`]),
    ],
  };
}

const told = (id: AccidentId): NonNullable<ViewedEntry['accident']> => ({
  id,
  ...(ACCIDENT_WORDS[id] ?? { what: 'That would have ended badly.', instead: 'Do it as the machine’s manual says.' }),
});

const wanted = (heat: 'any' | 'cold' | 'hot', power: 'any' | 'off' | 'on', covers: readonly string[]): string =>
  [
    heat === 'hot' ? 'at print heat' : heat === 'cold' ? 'cold' : '',
    power === 'any' || heat === 'hot' ? '' : `power ${power}`,
    covers.length ? `under ${covers.join(', ')}` : '',
  ]
    .filter(Boolean)
    .join(', ');

/** A round from its moves, for a screen. */
export function viewRound(played: RoundPlayed): RoundView {
  const state = playRound(played);
  const { bench, places, hands, hotC, entries, over } = state;
  const { machine, route } = bench;
  const at = hands.bench;
  const partName = (id: string): string => machine.parts.find((part) => part.id === id)?.name ?? id;
  return {
    family: familyName(machine.family ?? ''),
    complaint: complaintOf(state),
    bench: {
      temperatureC: at.temperatureC,
      targetC: at.targetC ?? 0,
      hotC,
      power: at.power,
      loaded: at.strand?.[route.lane] === 'in',
      raised: at.supported === true,
      parts: machine.parts.map(({ id, name, service }) => ({
        id,
        name,
        off: at.off.has(id),
        ...(service === undefined ? {} : { service: at.service?.has(id) ? ('is' as const) : ('can' as const) }),
      })),
      connectors: machine.connectors.map(({ id, name }) => ({ id, name, loose: at.pulled?.has(id) === true })),
    },
    minutes: entries.reduce((sum, entry) => sum + benchMinutesOf(entry), 0),
    entries: entries.map((entry) => ({
      ...entryStep(state, entry),
      ...(entry.accident ? { accident: told(entry.accident) } : {}),
      ...(entry.refused === undefined ? {} : { refused: entry.refused }),
    })),
    looks: places.map(({ key, name, check, station, parts }) => ({
      key,
      name,
      how: check.how,
      station,
      minutes: check.minutes,
      at: wanted(check.heat, check.power, parts.map(partName)),
    })),
    stations: route.stops.map(({ station: { id, name } }) => ({ id, name })),
    repairs: repairChoices(state).map(({ station, stationName, causes }) => ({
      station,
      stationName,
      causes: causes.map(({ mode, name, remedies }) => ({
        mode,
        name,
        remedies: remedies.map((remedy) => ({ id: remedy.id, name: remedy.name })),
      })),
    })),
    ...(over
      ? {
          over,
          faults: faultWords(state),
          ...(bench.story === undefined ? {} : { story: bench.story }),
          ...(bench.reason === undefined ? {} : { reason: bench.reason }),
        }
      : {}),
  };
}
