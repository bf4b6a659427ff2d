import type { PracticeCase } from '@zealous/core/practice';
import { luckOf } from '../worlds';

/** Signs that are there and are not seen; further complaints that the owner forgets; beginnings that nobody knows (chosen). */
const UNSEEN = 0.2;
const FORGOTTEN = 0.5;
const UNKNOWN = 0.3;

/** A case as a worse day would have it: a check whose sign is missed says that all is well. The same case misses the same, whoever asks. */
export function withMisses(of: PracticeCase): PracticeCase {
  const luck = luckOf(1);
  const at = (what: string): number => luck(`${of.id} ${what}`);
  const faults = of.faults.map((truth, t) => {
    const kept = Object.entries(truth.sees).filter(([key]) => at(`sees ${t} ${key}`) >= UNSEEN);
    // Something of it can be seen: else it were another case.
    return kept.length > 0 ? { ...truth, sees: Object.fromEntries(kept) } : truth;
  });
  const gone = of.symptoms.length > 1 && at('forgets') < FORGOTTEN ? Math.floor(at('which') * of.symptoms.length) : -1;
  return {
    ...of,
    faults,
    symptoms: of.symptoms.filter((_, i) => i !== gone),
    onsets: at('onset') < UNKNOWN ? [] : of.onsets,
  };
}

/** Checks that cannot be done on a day: no tool for it, a part that does not come off, a risk that nobody takes (chosen). */
const UNABLE = 0.2;

/** Whether a check of a case, by its key, cannot be done: the same whoever asks. */
export const unableIn = (of: PracticeCase): ((key: string) => boolean) => {
  const luck = luckOf(2);
  return (key) => luck(`${of.id} ${key}`) < UNABLE;
};
