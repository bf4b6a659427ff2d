import type { AccessPart, Machine } from '../path/machine';

/** A part with the way in which it comes off; `way` is absent for its usual one. */
export interface OpenPart extends AccessPart {
  readonly way?: string;
  readonly wayName?: string;
}

/** The ways of a part, its usual one first. */
export const waysOf = (part: AccessPart): readonly OpenPart[] => [
  part,
  ...(part.ways ?? []).map(({ id, name, ...removal }): OpenPart => {
    const { after: _usual, tool: _tool, fasteners: _fasteners, cautions: _cautions, ...rest } = part;
    return { ...rest, ...removal, way: id, wayName: name };
  }),
];

/** A part with one of its ways. @throws RangeError when there is no such part or way. */
export function partWith(machine: Machine, id: string, way?: string): OpenPart {
  const part = machine.parts.find((candidate) => candidate.id === id);
  if (!part) throw new RangeError(`The machine has no part "${id}".`);
  const found = waysOf(part).find((candidate) => candidate.way === way);
  if (!found) throw new RangeError(`"${part.name}" does not come off "${way}".`);
  return found;
}

const costOf = (part: OpenPart): number => part.minutesOff + part.minutesOn;

/** In an order in which they can come off; undefined when they hold each other. */
function ordered(wanted: readonly string[], chosen: ReadonlyMap<string, OpenPart>): readonly OpenPart[] | undefined {
  const order: OpenPart[] = [];
  const state = new Map<string, 'begun' | 'done'>();
  const visit = (id: string): boolean => {
    const part = chosen.get(id);
    if (!part || state.get(id) === 'done') return true;
    if (state.get(id) === 'begun') return false;
    state.set(id, 'begun');
    if (!(part.after ?? []).every(visit)) return false;
    state.set(id, 'done');
    order.push(part);
    return true;
  };
  return [...wanted, ...chosen.keys()].every(visit) ? order : undefined;
}

/**
 * The cheapest set of parts, by minutes off and on, that brings the wanted ones off, with the way of each: an AND/OR
 * search (all that a way asks for, one of the ways), exact by branch and bound. Parts shared by several wanted ones
 * count once. In an order in which they can come off.
 *
 * @throws RangeError when a part is not in the machine, or all ways lead in a circle.
 */
function cheapest(
  machine: Machine,
  wanted: readonly string[],
  off: ReadonlySet<string>,
  pinned: Readonly<Record<string, string>>,
): readonly OpenPart[] {
  const allowed = (part: AccessPart): readonly OpenPart[] =>
    waysOf(part).filter(({ way = '' }) => pinned[part.id] === undefined || pinned[part.id] === way);
  const byId = new Map(machine.parts.map((part) => [part.id, allowed(part)]));
  const least = (id: string): number => Math.min(...(byId.get(id) ?? []).map(costOf));
  for (const id of wanted) if (!byId.has(id)) throw new RangeError(`The machine has no part "${id}".`);
  let best: readonly OpenPart[] | undefined;
  let bestMinutes = Infinity;
  const go = (pending: readonly string[], chosen: ReadonlyMap<string, OpenPart>, minutes: number): void => {
    const open = [...new Set(pending)].filter((id) => !off.has(id) && !chosen.has(id));
    if (minutes + open.reduce((sum, id) => sum + least(id), 0) >= bestMinutes) return;
    const [next, ...rest] = open;
    if (next === undefined) {
      const order = ordered(wanted, chosen);
      if (!order) return;
      best = order;
      bestMinutes = minutes;
      return;
    }
    for (const way of [...(byId.get(next) ?? [])].sort((a, b) => costOf(a) - costOf(b)))
      go([...rest, ...(way.after ?? [])], new Map([...chosen, [next, way]]), minutes + costOf(way));
  };
  go(wanted, new Map(), 0);
  if (!best) throw new RangeError(`No way leads to ${wanted.join(', ')}: each would have to be off before another.`);
  return best;
}

const kept = new WeakMap<Machine, Map<string, readonly OpenPart[]>>();

/**
 * Parts that must come off to have the wanted ones off, each after what holds it, leaving out what is off already; the
 * cheapest of the ways there. Kept by machine: the tracer asks for the same parts thousands of times.
 *
 * @param pinned by part, the way that the technician wants, empty for its usual one
 * @throws RangeError when a part is not in the machine, or all ways lead in a circle.
 */
export function partsToRemove(
  machine: Machine,
  wanted: readonly string[],
  off: ReadonlySet<string>,
  pinned: Readonly<Record<string, string>> = {},
): readonly OpenPart[] {
  if (wanted.every((id) => off.has(id))) return [];
  const known = kept.get(machine) ?? new Map<string, readonly OpenPart[]>();
  kept.set(machine, known);
  const pins = Object.entries(pinned).map(([part, way]) => `${part}/${way}`);
  const key = `${wanted.join()}|${[...off].sort().join()}|${pins.sort().join()}`;
  const found = known.get(key) ?? cheapest(machine, wanted, off, pinned);
  known.set(key, found);
  return found;
}

/** One of the ways to have a part off, with the minutes of the whole opening off and on. */
export interface WayTo {
  /** Empty for the usual way. */
  readonly way: string;
  readonly name: string;
  readonly minutes: number;
}

/** The ways of a part that lead anywhere from here, quickest first. */
export function waysTo(machine: Machine, part: string, off: ReadonlySet<string>): readonly WayTo[] {
  return waysOf(partWith(machine, part))
    .flatMap(({ way = '', wayName }): WayTo[] => {
      try {
        const parts = partsToRemove(machine, [part], off, { [part]: way });
        const minutes = parts.reduce((sum, one) => sum + costOf(one), 0);
        return [{ way, name: wayName ?? 'the usual way', minutes }];
      } catch (error) {
        if (error instanceof RangeError) return [];
        throw error;
      }
    })
    .sort((a, b) => a.minutes - b.minutes);
}

/** Parts that are off, with the ways they came off, in an order in which they can go back. */
export function partsToRefit(
  machine: Machine,
  off: ReadonlySet<string>,
  ways: Readonly<Record<string, string>> = {},
): readonly OpenPart[] {
  const chosen = new Map([...off].map((id) => [id, partWith(machine, id, ways[id])]));
  return [...(ordered([...off], chosen) ?? chosen.values())].reverse();
}

/** Whether one part can only go back before another, which came off before it; `on` are the parts with their ways. */
export const sitsBehind = (id: string, outer: string, on: readonly OpenPart[]): boolean =>
  (on.find((part) => part.id === id)?.after ?? []).some((held) => held === outer || sitsBehind(held, outer, on));
