import { remedyById } from '../catalogue/index';
import type { Route } from '../path/route';
import { causesOf, ELSEWHERE_SHARE, onsetLikelihood, type Cause } from './causes';
import { NOT_SURE, type Case, type FailedRepair, type Finding } from './context';
import { answersUnder, overall, symptomGiven, type Answer, type Given } from './likelihood';
import { lookOf, type Look } from './looks';
import { pairsWorthKeeping, PAIR_SHARE, type Pair } from './pairs';
import type { CheckAtPlace } from './places';
import { allWays, mass, observed, type Ways } from './ways';
import { weightsOf, type Witness } from './witness';

/** Something observed, with how likely it is under each cause. */
export interface Evidence extends Witness {
  readonly id: string;
  /** What it looks for; absent when the way in which a cause shows does not matter. */
  readonly look?: Look;
  /** By cause: likelihood for each result that there may be to see, or one number. */
  readonly given: readonly Given[];
  /** By cause, over all ways in which it may show. */
  readonly likelihood: readonly number[];
  readonly elsewhere: number;
  /** How two causes at once answer, where a number a cause does not say it. */
  readonly both?: 'least' | 'most' | 'mean';
  readonly finding?: Finding;
  readonly symptom?: string;
  readonly onset?: string;
  readonly repair?: FailedRepair;
}

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

/** Chance that a fault that nobody knows shows any one symptom (chosen). */
export const UNLISTED_SYMPTOM = 0.3;

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
    flat: number,
    look: Look | undefined,
    l: (cause: Cause) => Given,
    rest: Partial<Evidence>,
  ): Evidence => {
    const given = causes.map(l);
    const likelihood = given.map((g, i) => overall(look, causes[i] as Cause, g));
    const elsewhere = elsewhereLikelihood(likelihood, prior, flat);
    return { id, same: id, method: id, trust: 1, given, likelihood, elsewhere, ...(look ? { look } : {}), ...rest };
  };
  const { catalogue } = kase;
  const evidence: Evidence[] = kase.symptoms.map((symptom) => {
    const { look, given } = symptomGiven(catalogue, symptom);
    return make(`symptom:${symptom}`, UNLISTED_SYMPTOM, look, () => given, { symptom });
  });
  const onset = kase.onset;
  if (onset !== undefined)
    evidence.push(
      make('onset', 1 / catalogue.onsets.length, undefined, (cause) => onsetLikelihood(catalogue, cause.mode, onset), {
        same: 'onset',
        both: 'mean',
        onset,
      }),
    );
  for (const finding of [...hearsay(kase, places), ...findings]) {
    if (finding.result === NOT_SURE) continue;
    const place = places.get(finding.key);
    if (!place) throw new RangeError(`This machine has no check "${finding.key}".`);
    const { check } = place;
    const answer: Answer = {
      result: finding.result,
      ...(finding.value === undefined ? {} : { value: finding.value }),
    };
    evidence.push(
      make(
        finding.id,
        flatLikelihood(place, finding.result, finding.value),
        lookOf(check),
        (cause) => answersUnder(catalogue, place, cause)(answer),
        {
          same: check.asks ?? place.key,
          method: check.id,
          ...(check.source ? { source: check.source } : {}),
          ...(check.asks ? { both: 'mean' } : {}),
          ...(check.swap ? { both: finding.result === check.results[0]?.id ? 'least' : 'most' } : {}),
          trust: finding.trust ?? 1,
          place,
          finding,
        },
      ),
    );
  }
  for (const repair of kase.failed ?? [])
    evidence.push(
      make(`repair:${repair.id}`, 0.9, undefined, (cause) => notCured(kase, repair, cause), { repair, both: 'most' }),
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

/** Bayes in logs: prior and log-likelihood by hypothesis give the posterior, which sums to one. */
export function bayes(prior: readonly number[], logLikelihood: readonly number[]): readonly number[] {
  const logs = prior.map((p, i) => Math.log(p) + (logLikelihood[i] ?? 0));
  const top = Math.max(...logs);
  const raw = logs.map((log) => Math.exp(log - top));
  const total = raw.reduce((sum, x) => sum + x, 0);
  return raw.map((x) => x / total);
}

/** What is believed, given the evidence. */
export interface Suspicion {
  readonly pairs: readonly Pair[];
  /** Single causes, then pairs, then `elsewhere`; sums to one. */
  readonly p: readonly number[];
  /** By cause, that it is the cause or one of two, then `elsewhere`. */
  readonly share: readonly number[];
  /** By cause, the ways in which it may be showing itself. */
  readonly ways: readonly Ways[];
}

const LEAST = 1e-12;

/** Weighs every cause, the pairs worth keeping, and `elsewhere` by the evidence. */
export function weigh(causes: readonly Cause[], prior: readonly number[], known: readonly Evidence[]): Suspicion {
  // Taken in by id: the order in which findings came must not show, not even in the last bit.
  const evidence = [...known].sort((a, b) => (a.id < b.id ? -1 : 1));
  const weightsFor = weightsOf(evidence);
  const logOf = (likelihood: number | undefined, weight: number | undefined): number =>
    (weight ?? 1) * Math.log(Math.max(likelihood ?? LEAST, LEAST));
  const ways: Ways[] = [];
  const single = causes.map((cause, c) => {
    let seen = allWays(cause.mode);
    let log = 0;
    const weights = weightsFor([cause]);
    evidence.forEach(({ look, given }, i) => {
      const g = given[c] ?? LEAST;
      if (typeof g === 'number' || !look) log += logOf(Number(g), weights[i]);
      else
        seen = observed(
          seen,
          look,
          g.map((x) => Math.max(x, LEAST) ** (weights[i] ?? 1)),
        );
    });
    ways.push(seen);
    return log + Math.log(mass(seen));
  });
  const whole = weightsFor([]);
  const elsewhere = evidence.reduce((log, item, i) => log + logOf(item.elsewhere, whole[i]), 0);
  const pairs = pairsWorthKeeping(causes, prior, evidence, single);
  const together = pairs.map((pair) => {
    const weights = weightsFor([causes[pair.first] as Cause, causes[pair.second] as Cause]);
    return evidence.reduce((log, _, i) => log + logOf(pair.likelihood[i], weights[i]), 0);
  });
  const n = causes.length;
  const p = bayes(
    [...prior.slice(0, n).map((x) => x * (1 - PAIR_SHARE)), ...pairs.map((pair) => pair.prior), prior[n] ?? 0],
    [...single, ...together, elsewhere],
  );
  const share = p.slice(0, n);
  pairs.forEach(({ first, second }, k) => {
    share[first] = (share[first] ?? 0) + (p[n + k] ?? 0);
    share[second] = (share[second] ?? 0) + (p[n + k] ?? 0);
  });
  return { pairs, p, share: [...share, p.at(-1) ?? 0], ways };
}

/** Causes of a case on a route, and what is believed of them. */
export function suspect(
  kase: Case,
  route: Route,
  places: ReadonlyMap<string, CheckAtPlace>,
  findings: readonly Finding[],
) {
  const causes = causesOf(kase, route);
  const prior = priorOf(causes);
  const evidence = evidenceOf(kase, causes, places, findings);
  return { causes, prior, evidence, ...weigh(causes, prior, evidence) };
}
