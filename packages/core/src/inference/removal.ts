import { HOT_KINDS } from '../bench/action';
import { isKeeping, remedyById } from '../catalogue/index';
import type { Cause } from '../observation/causes';
import type { Case, FailedRepair } from '../observation/context';

/** A remedy that was done in vain cures so much less often when it is done again, with another part or with more care (chosen). */
export const AGAIN = 0.5;

/** How often a remedy had been done in vain at a repair's station before it. */
function timesBefore({ failed = [] }: Case, repair: FailedRepair): (remedy: string) => number {
  const before = failed
    .slice(0, Math.max(0, failed.indexOf(repair)))
    .filter(({ station }) => station === repair.station);
  return (id) => before.filter(({ remedies }) => remedies.includes(id)).length;
}

/** Chance that a repair took a fault away: at its own station, and where its remedies reach further. */
export function chanceRemoved(kase: Case, repair: FailedRepair, cause: Cause, causes: readonly Cause[]): number {
  const at = causes.find(({ stop }) => stop.station.id === repair.station)?.stop;
  if (!at) return 0;
  const same = cause.stop.index === at.index;
  const next = Math.abs(cause.stop.index - at.index) === 1;
  const times = timesBefore(kase, repair);
  let left = 1;
  for (const id of repair.remedies) {
    const remedy = remedyById(kase.catalogue, id);
    if (!remedy) continue;
    const share = AGAIN ** times(id);
    // A good part that is left in takes whatever was wrong with the old one.
    if (same && (cause.mode.remedies.includes(id) || isKeeping(kase.catalogue, id))) left *= 1 - share * remedy.cures;
    else
      for (const { place, modes, cures } of remedy.takes ?? []) {
        const there = place === 'path' || (place === 'ends' ? next : HOT_KINDS.includes(cause.stop.station.kind));
        if (there && (modes === undefined || modes.includes(cause.mode.id))) left *= 1 - share * cures;
      }
  }
  return 1 - left;
}

/** By repair in vain and cause, the chance that it took the fault away. */
export const removedBy = (kase: Case, causes: readonly Cause[]): readonly (readonly number[])[] =>
  (kase.failed ?? []).map((repair) => causes.map((cause) => chanceRemoved(kase, repair, cause, causes)));
