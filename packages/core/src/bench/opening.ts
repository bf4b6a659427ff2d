import type { Machine } from '../path/machine';
import { inTheWayOf, type Bench } from './state';
import { partsToRefit, partsToRemove, partWith, sitsBehind, type OpenPart } from './closure';
import type { Task } from './schedule';

/** Ends the id of a closing that is done twice in one opening; it is no part of the step's key. */
export const AGAIN = '~';
const firstId = (part: OpenPart): string => `${idOf('close', part)}${AGAIN}`;

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
  /** Nothing that parts the path is opened before it: the path is emptied first. */
  readonly first?: boolean;
  /** Nothing at all is opened before it. */
  readonly ahead?: boolean;
  /** It takes no state of the machine: done as soon as it may be. */
  readonly soon?: boolean;
  /** It leaves a part wet with solvent, or dry again. */
  readonly wets?: boolean;
  readonly dries?: boolean;
  /** After everything else. */
  readonly last?: boolean;
  /** It cuts the strand of its lane and accounts for what is left. */
  readonly empties?: boolean;
  /** A part that it takes off by itself, and the way. */
  readonly takesOff?: { readonly part: string; readonly way: string };
  /** A part that it brings into its service position, so that it may be heated there. */
  readonly serves?: string;
  /** What the target goes back to at once when it is done, °C. */
  readonly thenC?: number;
  /** Its temperature is allowed for minutes only: it is set for this alone. */
  readonly brief?: boolean;
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
  bench: Pick<Bench, 'off' | 'service'>,
  goals: readonly Goal[],
  ways: Readonly<Record<string, string>> = {},
  pinned: Readonly<Record<string, string>> = {},
): Opening {
  const taken = goals.flatMap(({ takesOff }) => (takesOff ? [takesOff] : []));
  // What is off and is to come off at heat goes back first.
  const again = taken.filter(({ part }) => bench.off.has(part)).map(({ part }) => partWith(machine, part, ways[part]));
  const before = taken.flatMap(({ part, way }) => partWith(machine, part, way).after ?? []);
  // What one piece of work takes off by itself is not opened for another: that one comes after it.
  const offThen = taken.length ? new Set([...bench.off, ...taken.map(({ part }) => part)]) : bench.off;
  const off = partsToRemove(machine, [...goals.flatMap((goal) => goal.parts), ...before], offThen, pinned);
  const byId = new Map(off.map((part) => [part.id, part]));
  const all = new Set([...bench.off, ...off.map((part) => part.id), ...taken.map(({ part }) => part)]);
  const chosen = {
    ...ways,
    ...Object.fromEntries(off.flatMap(({ id, way }) => (way === undefined ? [] : [[id, way]]))),
    ...Object.fromEntries(taken.map(({ part, way }) => [part, way])),
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
  const wanted = (goal: Goal): readonly string[] => [
    ...goal.parts,
    ...(goal.takesOff ? (refit.get(goal.takesOff.part)?.after ?? []) : []),
  ];
  const firsts = goals.filter((goal) => goal.first).map((goal) => goal.id);
  const ahead = goals.filter((goal) => goal.ahead).map((goal) => goal.id);
  const lasts = goals.filter((goal) => goal.last);
  const others = goals.filter((goal) => !goal.last);
  const side = (part: OpenPart): Partial<Task> => (part.side === undefined ? {} : { side: part.side });
  const guard = (part: OpenPart): Partial<Task> => ({
    part: part.id,
    ...(part.unplug?.length ? { loosens: true } : {}),
    ...(part.heats ? { unheats: true } : {}),
  });
  const closeTask = (part: OpenPart, id: string, after: readonly string[]): Task => ({
    id,
    kind: 'close',
    minutes: part.minutesOn,
    heat: part.heat === 'hot' ? 'cold' : part.heat,
    power: part.power,
    hotC: 0,
    after,
    ...side(part),
    ...guard(part),
  });
  const opens = off.map((part): Task => ({
    id: idOf('open', part),
    kind: 'open',
    minutes: part.minutesOff,
    heat: part.heat,
    power: part.power,
    hotC: 0,
    after: [
      ...(part.after ?? []).flatMap((id) => {
        const held = byId.get(id);
        return held ? [idOf('open', held)] : [];
      }),
      // What may be opened at any heat and does not part the path need not wait until it is empty.
      ...(part.heat === 'any' && part.power === 'any' && !part.severs ? ahead : firsts),
    ],
    ...side(part),
    ...guard(part),
  }));
  const works = others.map((goal): Task => {
    const needed = behind(wanted(goal));
    const takes = goal.takesOff && taken.some(({ part }) => part === goal.takesOff?.part);
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
        ...again.filter(({ id }) => id === goal.takesOff?.part).map((part) => firstId(part)),
        ...goals.flatMap((other) =>
          other !== goal && other.takesOff && needed.has(other.takesOff.part) && taken.includes(other.takesOff)
            ? [other.id]
            : [],
        ),
        ...(goal.first ? [] : firsts),
      ],
      ...(takes && goal.takesOff ? { part: goal.takesOff.part, unheats: true } : {}),
      ...(goal.serves === undefined ? {} : { serves: goal.serves }),
      ...(goal.thenC === undefined ? {} : { thenC: goal.thenC }),
      ...(goal.brief ? { brief: true } : {}),
      ...(goal.soon ? { soon: true } : {}),
      ...(goal.wets ? { wets: true } : {}),
      ...(goal.dries ? { dries: true } : {}),
    };
  });
  const closes = on.map((part): Task => {
    const mine = others.filter((goal) => behind(wanted(goal)).has(part.id) || goal.takesOff?.part === part.id);
    // What keeps heat or power from some of the work goes back as soon as its own work is done.
    const inTheWay = others.some(
      (goal) => inTheWayOf(machine, { off: new Set([part.id]), ways: chosen }, goal).length > 0 && !mine.includes(goal),
    );
    return closeTask(part, idOf('close', part), [
      ...(byId.has(part.id) ? [idOf('open', byId.get(part.id) as OpenPart)] : []),
      ...mine.map((goal) => goal.id),
      ...on.filter((other) => other.after?.includes(part.id)).map((other) => idOf('close', other)),
      // Something else that is off stays until the work is done: it may be wanted again.
      ...(bench.off.has(part.id) && !inTheWay && !holdsOne(part.id, on, others, machine, chosen)
        ? others.map((goal) => goal.id)
        : []),
    ]);
  });
  const first = again.map((part) =>
    closeTask(
      part,
      firstId(part),
      on
        .filter((other) => other.after?.includes(part.id) && bench.off.has(other.id))
        .map((other) => idOf('close', other)),
    ),
  );
  const body = [...opens, ...first, ...works, ...closes];
  const ends = lasts.map((goal): Task => ({
    id: goal.id,
    kind: 'work',
    minutes: goal.minutes,
    heat: goal.heat,
    power: goal.power,
    hotC: goal.hotC,
    after: body.map((task) => task.id),
  }));
  return { tasks: [...body, ...ends], off, on };
}

/** Whether a part sits under one that must go back before some of the work: then it goes back before that. */
function holdsOne(
  id: string,
  on: readonly OpenPart[],
  goals: readonly Goal[],
  machine: Machine,
  ways: Readonly<Record<string, string>>,
): boolean {
  return on.some(
    (other) =>
      other.id !== id &&
      sitsBehind(id, other.id, on) &&
      goals.some((goal) => inTheWayOf(machine, { off: new Set([other.id]), ways }, goal).length > 0),
  );
}
