import type { PlayedStep } from './types';

/** Temperatures that may be named in any state: thresholds of touching and of switching off. */
const THRESHOLDS = [48, 100];
/** Names of things in which a word of state stands for no state. */
const NAMES = /cold (pull|zone|side)|hot[- ]end( fan)?|hot[- ]surface|heat (break|block|sink)|hotter/gi;

/**
 * What the text of a step says against the state it is done in; undefined when nothing. A text may name its own temperature and
 * the thresholds; a step at heat does not tell to do it cold, and a cold one not to do it hot.
 *
 * @param targetC what the machine is heating to when the step begins
 */
export function wordsAgainst(step: PlayedStep, targetC: number): string | undefined {
  const text = `${step.title}. ${step.how} ${step.stop ?? ''}`;
  const { heat, power, hotC } = step.need;
  const sets = step.acts.flatMap((deed) => (deed.do === 'target' || deed.do === 'reads' ? [deed.c] : []));
  if (heat !== 'any' || sets.length > 0)
    for (const [, said] of text.matchAll(/(\d{2,3}) °C/g)) {
      const c = Number(said);
      const own = [hotC, targetC, ...sets, ...THRESHOLDS].some((known) => known > 0 && Math.abs(known - c) <= 1);
      if (!own) return `it says ${c} °C, and it is done at ${heat === 'hot' ? `${hotC} °C` : 'room temperature'}`;
    }
  const plain = text.replace(NAMES, '');
  if (heat === 'hot' && /\b(cold|unplugged|switched off|room temperature)\b/i.test(plain))
    return 'it is done at heat, and its text says cold or off';
  if (heat === 'cold' && /\b(at heat|while (it is )?hot|heat to|hot nozzle|at print heat|tightened hot)\b/i.test(plain))
    return 'it is done cold, and its text says hot';
  if (power === 'off' && /\b(by machine|in its menu|watch the signal)\b/i.test(plain))
    return 'the power is off, and its text asks the machine to do something';
  return undefined;
}
