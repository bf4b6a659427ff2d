import type { PracticeCase } from './practiceCase';
import { benchOf, type Hidden } from './roundBench';
import { playRound, benchMinutesOf, type Level, type RoundPlayed } from './round';

/** Name of what is hidden in a round, by which it is known again. */
export const hiddenId = (hidden: Hidden): string =>
  hidden.from === 'case' ? hidden.case.id : `${hidden.family}#${hidden.seed}`;

/** Whether a case belongs on the first level: one listed fault, nothing innocent beside it, no repair in vain before it. */
export const plain = ({ faults, innocent, tried, before }: PracticeCase): boolean =>
  faults.length === 1 &&
  faults[0]?.mode !== undefined &&
  !innocent?.length &&
  !tried?.length &&
  !before?.length &&
  !faults.some(({ vain }) => vain?.length);

/** The cases of a level; the third takes all. */
export const casesOf = (cases: readonly PracticeCase[], level: Level): readonly PracticeCase[] =>
  level === 'hands' ? cases : cases.filter((one) => plain(one) === (level === 'signs'));

/**
 * The next case for somebody: of those of the level and family the ones done least often, among these by chance.
 *
 * @param chance uniform on [0, 1)
 * @returns undefined when there is none of this family
 */
export function nextCase(
  cases: readonly PracticeCase[],
  level: Level,
  done: readonly string[],
  chance: number,
  family?: string,
): PracticeCase | undefined {
  const fit = casesOf(cases, level).filter((one) => family === undefined || one.family === family);
  const times = (id: string): number => done.filter((other) => other === id).length;
  const least = Math.min(...fit.map(({ id }) => times(id)));
  const fresh = fit.filter(({ id }) => times(id) === least);
  return fresh[Math.floor(chance * fresh.length)];
}

/** A seed whose fault fits a level: on the first one thing is wrong, else whatever is drawn. */
export function seedFor(level: Level, family: string, from: number): number {
  const fits = (seed: number): boolean =>
    level !== 'signs' || benchOf({ from: 'catalogue', family, seed }).faults.length === 1;
  for (let seed = from; seed < from + MOST_SEEDS; seed++) if (fits(seed)) return seed;
  return from;
}
const MOST_SEEDS = 60;

/** A finished round as it stands in somebody's record. */
export interface RoundRecord {
  readonly id: string;
  readonly person: string;
  /** ISO 8601. */
  readonly at: string;
  readonly level: Level;
  readonly hidden: string;
  readonly family: string;
  readonly outcome: 'cured' | 'gave-up' | 'called';
  readonly minutes: number;
  readonly tracerMinutes?: number;
  readonly looks: number;
  readonly repairs: number;
  readonly soundRenewed: number;
  readonly accidents: readonly string[];
}

/** The record of a round that is over. @throws Error while it is not */
export function recordOf(
  played: RoundPlayed,
  said: { readonly id: string; readonly person: string; readonly at: string; readonly tracerMinutes?: number },
): RoundRecord {
  const { entries, over, bench } = playRound(played);
  if (!over) throw new Error('The round is not over.');
  const count = (what: 'look' | 'repair'): number =>
    entries.filter(({ move, refused, accident }) => move.do === what && refused === undefined && !accident).length;
  return {
    ...said,
    level: played.level,
    hidden: hiddenId(played.hidden),
    family: bench.machine.family ?? '',
    outcome: over,
    minutes: Math.round(10 * entries.reduce((sum, entry) => sum + benchMinutesOf(entry), 0)) / 10,
    looks: count('look'),
    repairs: count('repair'),
    soundRenewed: entries.filter(({ soundRenewed }) => soundRenewed).length,
    accidents: entries.flatMap(({ accident }) => accident ?? []),
  };
}
