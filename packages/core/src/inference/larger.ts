import type { Larger, Sized } from './foreseen';

/** So many sets, in one class or in several that follow one another, say how far what was expected of them comes true. */
const ENOUGH_TO_TELL = 50;
/** However far off the most expected classes are: sets that are expected to hold little are foreseen better (chosen). */
const LEAST_TRUE = 0.3;

/** Makes sets larger and weighs them. */
export interface Weighs {
  with(set: readonly number[], c: number): readonly number[];
  weigh(set: readonly number[]): Sized;
}

/** Class by class, until what the rest may be expected to hold, as far as expectations came true so far, may be left out. */
export function weighLarger(
  weighing: Weighs,
  foreseen: Larger,
  whole: number,
  leftOut: number,
  most: number,
): { readonly level: readonly Sized[]; readonly rest: number } {
  const level: Sized[] = [];
  const { classes } = foreseen;
  let rest = classes.reduce((sum, { expected }) => sum + expected, 0);
  let last = 1;
  // Nothing is known of it before some have been weighed: where little is expected, more may be there.
  let comesTrue: number | undefined;
  let told = { sets: 0, held: 0, expected: 0 };
  for (const { sets, expected } of classes) {
    const enough = comesTrue !== undefined && rest * comesTrue <= leftOut;
    if (enough || level.length + sets.length > most) break;
    if (sets.length === 0) continue;
    let { held } = told;
    for (const code of sets) {
      const { set, add } = foreseen.at(code);
      const weighed = weighing.weigh(weighing.with(set, add));
      level.push(weighed);
      held += Math.exp(weighed.log - whole);
    }
    rest = Math.max(0, rest - expected);
    told = { sets: told.sets + sets.length, held, expected: told.expected + expected };
    if (told.sets < ENOUGH_TO_TELL) continue;
    const now = told.held / told.expected;
    comesTrue = Math.max(LEAST_TRUE, last, now);
    last = now;
    told = { sets: 0, held: 0, expected: 0 };
  }
  return { level, rest: rest * (comesTrue ?? 1) };
}
