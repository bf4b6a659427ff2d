import type { Machine } from './machine';
import { PARAM_FIELDS } from './params';

/** Fields of a machine, its stations and its parts, as the builder calls them. */
const FIELDS: Readonly<Record<string, string>> = {
  id: 'short name in files',
  name: 'name',
  strandMm: 'filament diameter',
  heat: 'heat',
  limitC: 'heat limit',
  ambientC: 'room temperature',
  kind: 'kind',
  params: 'figures',
  access: 'how it is reached',
  open: 'what must be off to look inside',
  mouth: 'what must be off to put a strand in',
  after: 'what must be off first',
  into: 'where it leads',
  fasteners: 'screws',
  unplug: 'plugs',
};

/**
 * A place in a machine's file in the words of the bench: the station, part or run by its name, then the field.
 *
 * @param path JSON pointer (RFC 6901), with or without `/machine` ahead of it
 * @returns undefined where it names nothing of this machine
 */
export function placeInMachine(machine: Machine, path: string): string | undefined {
  const [list, index, inner, at, ...rest] = path
    .replace(/^\/machine(?=\/|$)/, '')
    .split('/')
    .slice(1);
  const field = (names: readonly (string | undefined)[], kind?: keyof typeof PARAM_FIELDS): string | undefined => {
    const last = names.filter((name) => name !== undefined && !/^\d+$/.test(name)).at(-1);
    const asked = kind && PARAM_FIELDS[kind].find(({ name }) => name === last)?.label.toLowerCase();
    return asked ?? (last === undefined ? undefined : (FIELDS[last] ?? last));
  };
  const told = (name: string, what: string | undefined): string => (what === undefined ? name : `${name}, ${what}`);
  if (list === 'runs') {
    const run = machine.runs[Number(index)];
    const station = inner === 'stations' ? run?.stations[Number(at)] : undefined;
    if (station) return told(station.name, field(rest, station.kind));
    return run && told(run.name, field([inner, at, ...rest]));
  }
  if (list === 'parts') {
    const part = machine.parts[Number(index)];
    return part && told(part.name, field([inner, at, ...rest]));
  }
  const what = field([list, index, inner, at, ...rest]);
  return what === undefined ? undefined : `the machine’s ${what}`;
}
