import type { Machine } from '../path/machine';
import type { Bench } from './price';
import { partsToRefit, partsToRemove, type OpenPart } from './closure';
import type { Task } from './schedule';

/** Something to be done at the machine: once these parts are off, in this state. */
export interface Goal {
  readonly id: string;
  readonly parts: readonly string[];
  readonly minutes: number;
  readonly heat: Task['heat'];
  readonly power: Task['power'];
  readonly hotC: number;
  /** Ids of goals that come before it. */
  readonly after?: readonly string[];
  /** Nothing is opened before it: the path is emptied first. */
  readonly first?: boolean;
}

export interface Opening {
  readonly tasks: readonly Task[];
  /** What comes off, with its way, in an order in which it can; then what goes back, with its way. */
  readonly off: readonly OpenPart[];
  readonly on: readonly OpenPart[];
}

const idOf = (kind: 'open' | 'close', part: OpenPart): string =>
  `${kind}:${part.id}${part.way === undefined ? '' : `/${part.way}`}`;

/**
 * The tasks of several goals in one opening: what must come off for all of them together, once, by the cheapest ways; the
 * work; and everything closed again, also what was off before. A part goes back when no work behind it is left and
 * nothing that it holds is still off.
 */
export function openingFor(
  machine: Machine,
  bench: Pick<Bench, 'off'>,
  goals: readonly Goal[],
  ways: Readonly<Record<string, string>> = {},
  pinned: Readonly<Record<string, string>> = {},
): Opening {
  const off = partsToRemove(
    machine,
    goals.flatMap((goal) => goal.parts),
    bench.off,
    pinned,
  );
  const byId = new Map(off.map((part) => [part.id, part]));
  const all = new Set([...bench.off, ...off.map((part) => part.id)]);
  const chosen = {
    ...ways,
    ...Object.fromEntries(off.flatMap(({ id, way }) => (way === undefined ? [] : [[id, way]]))),
  };
  const on = partsToRefit(machine, all, chosen);
  const refit = new Map(on.map((part) => [part.id, part]));
  /** The parts themselves and all that had to be off before them. */
  const behind = (ids: readonly string[], seen = new Set<string>()): ReadonlySet<string> => {
    for (const id of ids) {
      if (seen.has(id) || !all.has(id)) continue;
      seen.add(id);
      behind(refit.get(id)?.after ?? [], seen);
    }
    return seen;
  };
  const firsts = goals.filter((goal) => goal.first).map((goal) => goal.id);
  const side = (part: OpenPart): Partial<Task> => (part.side === undefined ? {} : { side: part.side });
  const opens = off.map((part): Task => ({
    id: idOf('open', part),
    kind: 'open',
    minutes: part.minutesOff,
    heat: part.heat,
    power: part.power,
    hotC: 0,
    after: [
      ...(part.after ?? []).flatMap((id) => {
        const before = byId.get(id);
        return before ? [idOf('open', before)] : [];
      }),
      // What may be opened at any heat need not wait until the path is empty.
      ...(part.heat === 'any' && part.power === 'any' ? [] : firsts),
    ],
    ...side(part),
  }));
  const works = goals.map((goal): Task => {
    const needed = behind(goal.parts);
    return {
      id: goal.id,
      kind: 'work',
      minutes: goal.minutes,
      heat: goal.heat,
      power: goal.power,
      hotC: goal.hotC,
      after: [
        ...off.filter((part) => needed.has(part.id)).map((part) => idOf('open', part)),
        ...(goal.after ?? []),
        ...(goal.first ? [] : firsts),
      ],
    };
  });
  const closes = on.map((part): Task => ({
    id: idOf('close', part),
    kind: 'close',
    minutes: part.minutesOn,
    heat: part.heat,
    power: part.power,
    hotC: 0,
    after: [
      ...(byId.has(part.id) ? [idOf('open', byId.get(part.id) as OpenPart)] : []),
      ...goals.filter((goal) => behind(goal.parts).has(part.id)).map((goal) => goal.id),
      ...on.filter((other) => other.after?.includes(part.id)).map((other) => idOf('close', other)),
      // Something that is off without being needed any more stays until the work is done: it may be wanted again.
      ...(bench.off.has(part.id) ? goals.map((goal) => goal.id) : []),
    ],
    ...side(part),
  }));
  return { tasks: [...opens, ...works, ...closes], off, on };
}
