import { hazardsOf, hotWayOf, placedActions, temperatureOf } from '../bench/action';
import type { Need } from '../bench/price';
import type { Act } from '../bench/state';
import { isKeeping, materialOf, toolById } from '../catalogue/index';
import type { Action, Catalogue, Material, Remedy, Solvent } from '../catalogue/types';
import type { EventBodies } from '../order/events';
import type { Station } from '../path/machine';
import type { Stop } from '../path/route';
import { toolSize } from '../path/toolSizes';
import { cautionsOf } from '../catalogue/cautions';
import { outcomesOfRung } from './ladder';
import { offersOf } from './offers';
import { withRules } from './rules';
import { plain, type Body, type Writing } from './stepTypes';

/** Solvents that take a plastic, the first to be tried first. */
export const solventsOf = (catalogue: Catalogue, material: Material): readonly Solvent[] =>
  (material.solvents ?? []).flatMap((id) => catalogue.solvents.find((solvent) => solvent.id === id) ?? []);

/** Text with the values that this machine, path and filament give. */
export function filled(
  text: string,
  { catalogue, route }: Writing,
  material: Material,
  station: Station | undefined,
  hotC: number,
): string {
  if (!text.includes('{')) return text;
  const solvents = solventsOf(catalogue, material)
    .map(({ name }) => name)
    .join(', or ');
  return withRules(text, route, station)
    .replaceAll('{temp}', `${Math.round(hotC)} °C`)
    .replaceAll('{solvent}', solvents || 'none that spares the metal: replace instead')
    .replaceAll('{dry}', material.dryC === undefined ? 'the temperature on its label' : `${material.dryC} °C`)
    .replaceAll('{station}', station?.name ?? 'the path');
}

/** Words of the tools of an action, with the sizes that this path takes. */
export const toolWords = (
  { catalogue, route }: Writing,
  ids: readonly string[],
  station: Station | undefined,
): readonly string[] => ids.map((id) => withRules(toolById(catalogue, id)?.name ?? id, route, station));

/** The sizes that an action works with. */
const sizedActs = ({ catalogue, route }: Writing, ids: readonly string[], station: Station): readonly Act[] =>
  ids.flatMap((id): Act[] => {
    const sized = toolById(catalogue, id)?.sized;
    const mm = sized && toolSize(sized, route, station);
    return sized && mm !== undefined ? [{ do: 'use', tool: sized, mm, station: station.id }] : [];
  });

/** What an action changes and does, in its order. */
function actsOf(writing: Writing, stop: Stop, action: Action, need: Need, material: Material): readonly Act[] {
  const { machine, route } = writing;
  const does = new Set(action.does ?? []);
  const hotWay = does.has('takes-off') ? hotWayOf(machine, route) : undefined;
  const inHand = need.parts.filter((id) => machine.parts.find((part) => part.id === id)?.heats);
  const acts: Act[] = [];
  if (does.has('empties') || hotWay) acts.push({ do: 'strand', lanes: [route.lane], to: 'remnant' });
  if (does.has('target-zero')) acts.push({ do: 'target', c: 0 });
  if (hotWay) acts.push({ do: 'off', ...hotWay });
  if (action.hands) acts.push({ do: 'touch', station: stop.station.id, with: action.hands });
  acts.push(...sizedActs(writing, action.tools ?? [], stop.station));
  if (action.push)
    acts.push({
      do: 'push',
      station: stop.station.id,
      exit: action.exit ?? 'none',
      ...(action.push === 'hand' ? { inHand: true } : {}),
    });
  if (does.has('wets')) acts.push({ do: 'wet', parts: inHand });
  if (does.has('dries')) acts.push({ do: 'dry', parts: inHand });
  if (does.has('back-to-print'))
    acts.push({
      do: 'target',
      c: Math.round(temperatureOf(machine, route, material, { minutes: 0, target: 'print' })),
    });
  return acts;
}

const setsOf = (acts: readonly Act[]): EventBodies['bench-changed'] | undefined => {
  const sets = acts.reduce(
    (body, act): EventBodies['bench-changed'] => {
      switch (act.do) {
        case 'target':
          return { ...body, targetC: act.c };
        case 'wet':
          return act.parts.length ? { ...body, wet: act.parts } : body;
        case 'dry':
          return act.parts.length ? { ...body, dry: act.parts } : body;
        case 'strand':
          return {
            ...body,
            strand: { ...body.strand, ...Object.fromEntries(act.lanes.map((lane) => [lane, act.to])) },
          };
        case 'service':
          return { ...body, service: [act.part] };
        case 'raise':
        case 'lower':
          return { ...body, supported: act.do === 'raise' };
        default:
          return body;
      }
    },
    {} as EventBodies['bench-changed'],
  );
  return Object.keys(sets).length ? sets : undefined;
};

export function rungStep(
  writing: Writing,
  station: string,
  mode: string,
  remedy: Remedy,
  offerId: string | undefined,
  actionId: string | undefined,
): Body {
  const { machine, catalogue, route, material: id } = writing;
  const stop = route.stops.find((candidate) => candidate.station.id === station);
  const material = materialOf(catalogue, id);
  if (!stop) throw new RangeError(`"${station}" is not on this path.`);
  const placed = placedActions(machine, route, stop, remedy, material) ?? [];
  const found = actionId === undefined ? placed.at(-1) : placed.find(({ action }) => action.id === actionId);
  if (!found) throw new RangeError(`"${remedy.name}" has no action "${actionId ?? ''}" here.`);
  const { action, need } = found;
  const last = actionId === undefined;
  const { heat, power, hotC, parts } = need;
  const offer = offersOf(remedy).find((candidate) => candidate.id === offerId);
  const share = offer && placed.length === 1 ? offer.minutes : undefined;
  const acts = actsOf(writing, stop, action, need, material);
  const sets = setsOf(acts);
  const opens = acts.find((act): act is Act & { do: 'off' } => act.do === 'off');
  const test = action.does?.includes('test-piece');
  return {
    ...plain,
    phase: 'Clear or replace',
    kind: last ? 'rung' : 'act',
    title: `${action.name ?? remedy.name}: ${stop.station.name}`,
    how: filled(action.how, writing, material, stop.station, hotC),
    station,
    mode,
    remedy: remedy.id,
    need: { heat, power, hotC },
    ...(parts.length ? { wants: parts } : {}),
    minutes: share ?? action.minutes,
    waitMinutes: action.waitMinutes ?? 0,
    tools: toolWords(writing, action.tools ?? [], stop.station),
    cautions: cautionsOf(catalogue, action.cautions ?? [], action.tools ?? [], hazardsOf(writing.route, action)),
    acts,
    ...(sets ? { sets } : {}),
    ...(opens ? { opens: opens.part, ...(opens.way === undefined ? {} : { way: opens.way }) } : {}),
    ...(last ? { outcomes: outcomesOfRung(remedy) } : {}),
    ...(last && remedy.measures ? { measures: remedy.measures } : {}),
    ...((action.stop ?? (last ? remedy.stop : undefined))
      ? { stop: filled(action.stop ?? remedy.stop ?? '', writing, material, stop.station, hotC) }
      : {}),
    ...(last && remedy.replaces ? { replaces: remedy.replaces } : {}),
    ...(last && isKeeping(catalogue, remedy.id) ? { fitted: true } : {}),
    ...(offer ? { offer } : {}),
    ...(test ? { solvents: solventsOf(catalogue, material) } : {}),
  };
}
