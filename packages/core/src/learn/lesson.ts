import type { Machine } from '../path/machine';
import type { Cause } from '../observation/causes';
import { facetsOf, lookOf, type Look } from '../observation/looks';
import type { Evidence } from '../inference/evidence';
import { resultShares, toldShares, type Ways } from '../observation/ways';
import type { CheckCount, Counts, Lesson } from './counts';

export interface Taught {
  readonly machine: Machine;
  readonly causes: readonly Cause[];
  readonly prior: readonly number[];
  readonly evidence: readonly Evidence[];
  /** Index of the cause that the proof confirmed. */
  readonly cause: number;
  /** How it may have been showing itself. */
  readonly ways: Ways;
}

/** Expected share of each value of the facets that something has looked at. */
function shown(ways: Ways): Readonly<Record<string, Readonly<Record<string, number>>>> {
  const all = facetsOf(ways.mode);
  return Object.fromEntries(
    toldShares(ways).flatMap(({ facet: index, p }) => {
      const facet = all[index];
      return facet
        ? [[facet.dimension, Object.fromEntries(facet.values.map((value, v) => [value ?? '', p[v] ?? 0]))]]
        : [];
    }),
  );
}

const none: CheckCount = { present: 0, missed: 0, absent: 0, false: 0 };

/** What a finding says of its check, once the cause is known: expected counts over what there was to be seen. */
function judged(item: Evidence, cause: Cause, ways: Ways): CheckCount | undefined {
  const { place, finding } = item;
  if (!place || !finding || place.check.quantity || place.check.swap || place.check.asks) return undefined;
  const look = lookOf(place.check) as Look;
  const normal = look.results.length - 1;
  const reported = place.check.results.findIndex((result) => result.id === finding.result) !== normal;
  const present = place.reach.has(cause.stop.index) ? 1 - (resultShares(ways, look)[normal] ?? 0) : 0;
  return {
    present,
    missed: reported ? 0 : present,
    absent: 1 - present,
    false: reported ? 1 - present : 0,
  };
}

/**
 * What a proved order teaches: which cause it was against what the catalogue expected, how it showed itself, and how
 * far each check was right. What was not looked at teaches nothing; what is not certain counts by its share (the
 * expectation step of Dempster, Laird and Rubin 1977).
 */
export function lessonOf({ machine, causes, prior, evidence, ways, cause }: Taught): Lesson {
  const it = causes[cause] as Cause;
  const listed = prior.slice(0, causes.length).reduce((sum, p) => sum + p, 0) || 1;
  const modes: Record<string, { found: number; expected: number }> = {};
  causes.forEach(({ mode }, i) => {
    const known = (modes[mode.id] ??= { found: 0, expected: 0 });
    known.expected += (prior[i] ?? 0) / listed;
    if (i === cause) known.found += 1;
  });
  const checks: Record<string, CheckCount> = {};
  for (const item of evidence) {
    const count = judged(item, it, ways);
    const id = item.place?.check.id;
    if (!count || !id) continue;
    const known = checks[id] ?? none;
    checks[id] = {
      present: known.present + count.present,
      missed: known.missed + count.missed,
      absent: known.absent + count.absent,
      false: known.false + count.false,
    };
  }
  const counts: Counts = { orders: 1, modes, shows: { [it.mode.id]: shown(ways) }, checks };
  return { family: machine.family, machine: machine.id, counts };
}
