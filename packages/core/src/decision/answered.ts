import { NOT_SURE } from '../bench/places';
import type { Finding } from '../observation/context';
import type { Model } from './model';

/**
 * Keys of the checks whose answer still stands: also with "not sure". After a repair in vain those may be asked again that see the
 * repaired place, since it may show otherwise now; a look at another place would only show the same once more.
 */
export function answeredKeys(
  { places, route, kase }: Pick<Model, 'places' | 'route' | 'kase'>,
  findings: readonly Pick<Finding, 'key'>[],
): ReadonlySet<string> {
  const repairs = (kase.failed ?? []).map(({ station, after = findings.length }) => ({
    after,
    at: route.stops.findIndex((stop) => stop.station.id === station),
  }));
  const byKey = new Map(places.map((place) => [place.key, place]));
  return new Set(
    findings.flatMap(({ key }, i) => {
      const place = byKey.get(key);
      return place && repairs.some(({ after, at }) => after > i && place.reach.has(at)) ? [] : [key];
    }),
  );
}

/** Of those, the ones that were last answered with something: who is not sure has opened the place, and seen nothing there. */
export function lookedAtKeys(
  model: Pick<Model, 'places' | 'route' | 'kase'>,
  findings: readonly Pick<Finding, 'key' | 'result'>[],
): ReadonlySet<string> {
  const last = new Map(findings.map(({ key, result }) => [key, result]));
  return new Set([...answeredKeys(model, findings)].filter((key) => last.get(key) !== NOT_SURE));
}
