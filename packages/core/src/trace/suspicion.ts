import type { Route } from '../path/route';
import { causesOf, ELSEWHERE_SHARE, onsetLikelihood, type Cause } from './causes';
import { remedyById } from '../catalogue/index';
import { NOT_SURE, type Case, type FailedRepair, type Finding } from './context';
import { findingLikelihood, symptomLikelihood } from './likelihood';
import { errorSource, type CheckAtPlace } from './places';

/** Something observed, as a likelihood for each cause. */
export interface Evidence {
  readonly id: string;
  /** Evidence of one group has one source of error and is not independent. */
  readonly group: string;
  readonly likelihood: readonly number[];
  readonly elsewhere: number;
  readonly trust: number;
  readonly place?: CheckAtPlace;
  readonly finding?: Finding;
  readonly symptom?: string;
  readonly onset?: string;
  readonly repair?: FailedRepair;
}

/** How much of a repeated check merely repeats its own error (chosen). */
const REPEAT_CORRELATION = 0.7;
/** How far what the owner did before, and says of it, is believed (chosen). */
export const HEARSAY = 0.6;

/**
 * How likely an answer is if nothing on the list is the cause: such a fault is taken to behave like an average one of
 * the list, flattened, so that it neither gains nor loses while single places are cleared and wins when no listed cause fits.
 */
export function elsewhereLikelihood(likelihood: readonly number[], prior: readonly number[], flat: number): number {
  const average = likelihood.reduce((sum, l, i) => sum + l * (prior[i] ?? 0), 0) / prior.reduce((sum, p) => sum + p, 0);
  return 0.8 * average + 0.2 * flat;
}

/** Prior over the causes, then `elsewhere` last. Sums to one. */
export function priorOf(causes: readonly Cause[]): readonly number[] {
  const total = causes.reduce((sum, cause) => sum + cause.weight, 0);
  return [
    ...causes.map((cause) => (total > 0 ? ((1 - ELSEWHERE_SHARE) * cause.weight) / total : 0)),
    total > 0 ? ELSEWHERE_SHARE : 1,
  ];
}

/** One over the number of answers, or over the range of a number: what a fault that nobody knows would show. */
export function flatLikelihood(place: CheckAtPlace, result: string, value: number | undefined): number {
  const { check } = place;
  if (check.quantity) return 1 / (check.quantity.max - check.quantity.min);
  const one = 1 / Math.max(2, check.results.length);
  const depth = check.results.find((candidate) => candidate.id === result)?.depth === true && value !== undefined;
  const [from, to] = place.reachMm ?? [0, 1];
  return depth ? one / Math.max(1, to - from) : one;
}

/** All that is known, as evidence, in the order in which it came. "Not sure" is no evidence. */
export function evidenceOf(
  kase: Case,
  causes: readonly Cause[],
  places: ReadonlyMap<string, CheckAtPlace>,
  findings: readonly Finding[],
): readonly Evidence[] {
  const prior = priorOf(causes).slice(0, -1);
  const make = (
    id: string,
    group: string,
    flat: number,
    l: (cause: Cause) => number,
    rest: Partial<Evidence>,
  ): Evidence => {
    const likelihood = causes.map(l);
    return { id, group, likelihood, elsewhere: elsewhereLikelihood(likelihood, prior, flat), trust: 1, ...rest };
  };
  const { catalogue } = kase;
  const evidence: Evidence[] = kase.symptoms.map((symptom) =>
    make(`symptom:${symptom}`, `symptom:${symptom}`, 0.3, (cause) => symptomLikelihood(catalogue, symptom, cause), {
      symptom,
    }),
  );
  const onset = kase.onset;
  if (onset !== undefined)
    evidence.push(
      make('onset', 'onset', 1 / catalogue.onsets.length, (cause) => onsetLikelihood(catalogue, cause.mode, onset), {
        onset,
      }),
    );
  for (const finding of [...hearsay(kase, places), ...findings]) {
    if (finding.result === NOT_SURE) continue;
    const place = places.get(finding.key);
    if (!place) throw new RangeError(`This machine has no check "${finding.key}".`);
    evidence.push(
      make(
        finding.id,
        errorSource(place),
        flatLikelihood(place, finding.result, finding.value),
        (cause) => findingLikelihood(catalogue, place, finding.result, finding.value, cause),
        { trust: finding.trust ?? 1, place, finding },
      ),
    );
  }
  for (const repair of kase.failed ?? [])
    evidence.push(
      make(`repair:${repair.id}`, `repair:${repair.id}`, 0.9, (cause) => notCured(kase, repair, cause), { repair }),
    );
  return evidence;
}

/** P(still ill | cause): the remedies that would have cured this cause at this station all failed. */
function notCured(kase: Case, repair: FailedRepair, cause: Cause): number {
  if (cause.stop.station.id !== repair.station) return 1;
  return cause.mode.remedies
    .filter((id) => repair.remedies.includes(id))
    .reduce((p, id) => p * (1 - (remedyById(kase.catalogue, id)?.cures ?? 0)), 1);
}

function hearsay(kase: Case, places: ReadonlyMap<string, CheckAtPlace>): Finding[] {
  return kase.before.flatMap((id) => {
    const told = kase.catalogue.before.find((item) => item.id === id)?.finding;
    const place = told && [...places.values()].find((candidate) => candidate.check.id === told.check);
    return told && place ? [{ id: `before:${id}`, key: place.key, result: told.result, trust: HEARSAY }] : [];
  });
}

/** Weight of each piece of evidence: n repeats of one check count as 1 + (n − 1)(1 − ρ), shared evenly, whatever their order. */
export function evidenceWeights(evidence: readonly Evidence[]): readonly number[] {
  const size = new Map<string, number>();
  for (const { group } of evidence) size.set(group, (size.get(group) ?? 0) + 1);
  return evidence.map(({ group, trust }) => {
    const n = size.get(group) ?? 1;
    return (trust * (1 + (n - 1) * (1 - REPEAT_CORRELATION))) / n;
  });
}

/** Bayes in logs: posterior over the causes, `elsewhere` last. Sums to one. */
export function posterior(prior: readonly number[], evidence: readonly Evidence[]): readonly number[] {
  const weights = evidenceWeights(evidence);
  // Summed per cause over evidence sorted by id: the order in which findings came must not show, not even in the last bit.
  const order = evidence
    .map((_, i) => i)
    .sort((a, b) => ((evidence[a] as Evidence).id < (evidence[b] as Evidence).id ? -1 : 1));
  const logs = prior.map((p, cause) => {
    let log = Math.log(p);
    for (const i of order) {
      const item = evidence[i] as Evidence;
      const l = cause === prior.length - 1 ? item.elsewhere : (item.likelihood[cause] ?? 0);
      log += (weights[i] ?? 1) * Math.log(Math.max(l, 1e-12));
    }
    return log;
  });
  const top = Math.max(...logs);
  const raw = logs.map((log) => Math.exp(log - top));
  const total = raw.reduce((sum, x) => sum + x, 0);
  return raw.map((x) => x / total);
}

/** Convenience for callers that only want the numbers. */
export function suspect(
  kase: Case,
  route: Route,
  places: ReadonlyMap<string, CheckAtPlace>,
  findings: readonly Finding[],
) {
  const causes = causesOf(kase, route);
  const prior = priorOf(causes);
  const evidence = evidenceOf(kase, causes, places, findings);
  return { causes, prior, evidence, posterior: posterior(prior, evidence) };
}
