import { HOT_KINDS } from '../bench/action';
import { isKeeping, remedyById } from '../catalogue/index';
import type { Cause } from '../observation/causes';
import type { Case, FailedRepair } from '../observation/context';

/** Chance that a repair took a fault away: at its own station, and where its remedies reach further. */
export function chanceRemoved(kase: Case, repair: FailedRepair, cause: Cause, causes: readonly Cause[]): number {
  const at = causes.find(({ stop }) => stop.station.id === repair.station)?.stop;
  if (!at) return 0;
  const same = cause.stop.index === at.index;
  const next = Math.abs(cause.stop.index - at.index) === 1;
  let left = 1;
  for (const id of repair.remedies) {
    const remedy = remedyById(kase.catalogue, id);
    if (!remedy) continue;
    // A good part that is left in takes whatever was wrong with the old one.
    if (same && (cause.mode.remedies.includes(id) || isKeeping(kase.catalogue, id))) left *= 1 - remedy.cures;
    else
      for (const { place, modes, cures } of remedy.takes ?? []) {
        const there = place === 'path' || (place === 'ends' ? next : HOT_KINDS.includes(cause.stop.station.kind));
        if (there && (modes === undefined || modes.includes(cause.mode.id))) left *= 1 - cures;
      }
  }
  return 1 - left;
}

/** By repair in vain and cause, the chance that it took the fault away. */
export const removedBy = (kase: Case, causes: readonly Cause[]): readonly (readonly number[])[] =>
  (kase.failed ?? []).map((repair) => causes.map((cause) => chanceRemoved(kase, repair, cause, causes)));
