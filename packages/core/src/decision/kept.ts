import type { CheckAtPlace } from '../bench/places';
import type { Finding, FailedRepair, Kept } from '../observation/context';
import type { Route } from '../path/route';

/** What swaps that cured have left in the machine: by the last answer of each, unless a proof refuted it since. */
export function keptOf(
  places: readonly CheckAtPlace[],
  route: Route,
  findings: readonly Finding[],
  failed: readonly FailedRepair[] = [],
): readonly Kept[] {
  const last = new Map(findings.map(({ key, result }, at) => [key, { result, at }]));
  return places.flatMap(({ key, check, reach }): Kept[] => {
    const remedy = check.keeps;
    const said = last.get(key);
    if (!check.swap || remedy === undefined || said?.result !== check.results[0]?.id) return [];
    const stations = [...reach].flatMap((index) => route.stops[index]?.station.id ?? []);
    const refuted = failed.some(
      ({ station, remedies, after = findings.length }) =>
        after > (said?.at ?? 0) && stations.includes(station) && remedies.includes(remedy),
    );
    return refuted ? [] : [{ remedy, stations }];
  });
}
