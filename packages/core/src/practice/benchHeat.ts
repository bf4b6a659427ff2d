import type { CheckAtPlace } from '../bench/places';
import type { Bench } from '../bench/state';
import type { Finding } from '../observation/context';

/** Whether what was found keeps heat away until it is mended: of each check, what it told last. */
export function keepsHeatAway(findings: readonly Finding[], places: readonly CheckAtPlace[]): boolean {
  const last = new Map(findings.map((finding) => [finding.key, finding]));
  return places.some(({ key, check }) => {
    const { result, also = [] } = last.get(key) ?? {};
    return check.results.some(({ id, spoilsHeat }) => spoilsHeat && (id === result || also.includes(id)));
  });
}

/** A bench at which a policy that does not ask may heat all the same; only the tracer is told. */
export const heatable = (bench: Bench): Bench => (bench.heatSpoiled ? { ...bench, heatSpoiled: false } : bench);
