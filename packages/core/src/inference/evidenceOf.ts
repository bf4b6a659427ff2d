import { remedyById } from '../catalogue/index';
import type { CheckResult, Proved, Tried } from '../catalogue/types';
import { onsetLikelihood, type Cause } from '../observation/causes';
import type { Case, FailedRepair, Finding } from '../observation/context';
import { NOT_SURE, type CheckAtPlace } from '../bench/places';
import {
  answersUnder,
  itemGiven,
  metFirst,
  overall,
  soundAnswer,
  soundUnder,
  symptomGiven,
  type Answer,
  type Given,
} from '../observation/likelihood';
import { itemLook, lookOf, proofLook, proofReaches, type Look } from '../observation/looks';
import { resultShares, allWays } from '../observation/ways';
import { byItself, HEARSAY, PROOF_ALARM, STILL_ILL, UNTICKED, type Evidence } from './evidence';
import { priorOf } from './prior';
import { flatLikelihood, looksByEye, unlistedLikelihood, UNLISTED_SYMPTOM } from './unlisted';
import { chanceRemoved } from './removal';

/** How likely a message names a place ahead of the fault, against one at it or behind it (chosen). */
const NOTICED_BEYOND = 0.45;
/** Chance that what a technician calls real but not the cause is the cause after all (chosen). */
const MISJUDGED = 0.12;

type Places = ReadonlyMap<string, CheckAtPlace>;

/** Makes evidence for one case. */
class Maker {
  private readonly prior: readonly number[];

  constructor(
    private readonly kase: Case,
    private readonly causes: readonly Cause[],
    private readonly places: Places,
  ) {
    this.prior = priorOf(causes).slice(0, -1);
  }

  private make(
    id: string,
    flat: number,
    sound: number,
    look: Look | undefined,
    l: (cause: Cause) => Given,
    rest: Partial<Evidence>,
  ): Evidence {
    const given = this.causes.map(l);
    const likelihood = given.map((g, i) => overall(look, this.causes[i] as Cause, g));
    const whole = this.prior.reduce((sum, p) => sum + p, 0);
    const average = likelihood.reduce((sum, x, i) => sum + x * (this.prior[i] ?? 0), 0) / whole;
    const eye = rest.place !== undefined && looksByEye(this.kase.catalogue, look);
    const elsewhere = unlistedLikelihood(average, { flat, sound, eye });
    return {
      ...byItself(id),
      given,
      likelihood,
      sound,
      eye,
      flat,
      elsewhere,
      aside: elsewhere,
      ...(look ? { look } : {}),
      ...rest,
    };
  }

  symptom(symptom: string, seen: boolean): Evidence {
    const { look, given } = symptomGiven(this.kase.catalogue, symptom, seen);
    const flat = seen ? UNLISTED_SYMPTOM : 1 - UNLISTED_SYMPTOM;
    return this.make(`symptom:${symptom}`, flat, given[1] ?? 0, look, () => given, {
      symptom,
      ...(seen ? {} : { unseen: true, trust: UNTICKED }),
    });
  }

  onset(onset: string): Evidence {
    const { catalogue } = this.kase;
    const flat = 1 / catalogue.onsets.length;
    return this.make(
      `onset:${onset}`,
      flat,
      flat,
      undefined,
      (cause) => onsetLikelihood(catalogue, cause.mode, onset),
      { same: 'onset', combine: 'mean', onset },
    );
  }

  /** What a finding says: one piece of evidence, or one for each thing that the look tells of. */
  finding(finding: Finding, epoch: number): readonly Evidence[] {
    if (finding.result === NOT_SURE) return [];
    const place = this.places.get(finding.key);
    if (!place) throw new RangeError(`This machine has no check "${finding.key}".`);
    if (finding.innocent) return [this.innocent(finding, place, epoch)];
    // An answer that is given no more names none of the things that are ticked today.
    const earlier = place.check.earlier?.some(({ id }) => id === finding.result) === true;
    return place.check.items && !earlier ? this.items(finding, place, epoch) : [this.answer(finding, place, epoch)];
  }

  private answer(finding: Finding, place: CheckAtPlace, epoch: number): Evidence {
    const { catalogue } = this.kase;
    const { check } = place;
    const answer: Answer = {
      result: finding.result,
      ...(finding.value === undefined ? {} : { value: finding.value }),
    };
    const cured = check.swap && finding.result === check.results[0]?.id;
    const look = lookOf(check);
    const met = look && metFirst(place, this.causes);
    return this.make(
      finding.id,
      flatLikelihood(place, finding.result),
      soundUnder(place, answer),
      look,
      (cause) => answersUnder(catalogue, place, cause)(answer),
      {
        same: check.asks ?? place.key,
        method: check.id,
        ...(check.source ? { source: check.source } : {}),
        ...(check.asks ? { combine: 'mean' } : {}),
        ...(check.swap ? { combine: cured ? 'all' : 'any' } : {}),
        ...(met ? { metFirst: met } : {}),
        ...(check.asks ? {} : { aside: soundAnswer(place, answer) }),
        trust: finding.trust ?? 1,
        epoch,
        place,
        finding,
      },
    );
  }

  /** Each thing that was ticked is there; where the look was finished, what was not ticked is not. */
  private items(finding: Finding, place: CheckAtPlace, epoch: number): readonly Evidence[] {
    const { check } = place;
    const known = check.results.some(({ id }) => id === finding.result);
    if (!known) throw new RangeError(`"${place.name}" has no result "${finding.result}".`);
    const normal = check.results.at(-1)?.id;
    const ticked = new Set([finding.result, ...(finding.also ?? [])]);
    const finished = finding.finished === true || finding.result === normal;
    return check.results.slice(0, -1).flatMap((result): Evidence[] => {
      const there = ticked.has(result.id);
      if (!there && !finished) return [];
      return [this.item(finding, place, result, there, epoch)];
    });
  }

  private item(finding: Finding, place: CheckAtPlace, result: CheckResult, there: boolean, epoch: number): Evidence {
    const { check } = place;
    const [present, absent] = itemGiven(check, result, there);
    const look = itemLook(result);
    const reached = (cause: Cause): boolean => place.reach.has(cause.stop.index);
    return this.make(
      `${finding.id}#${result.id}`,
      there ? flatLikelihood(place) : 1 - flatLikelihood(place),
      absent,
      look,
      (cause) => (reached(cause) ? [present, absent] : absent),
      {
        same: `${place.key}#${result.id}`,
        method: `${check.id}#${result.id}`,
        trust: finding.trust ?? 1,
        epoch,
        place,
        finding,
        item: { result: result.id, there },
        aside: absent,
      },
    );
  }

  /** Real, but not the cause: what was seen speaks of no fault, and against the faults that would look so. */
  private innocent(finding: Finding, place: CheckAtPlace, epoch: number): Evidence {
    const { check } = place;
    const ticked = new Set([finding.result, ...(finding.also ?? [])]);
    const shown = check.results.filter(({ id }) => ticked.has(id));
    const looksSo = (cause: Cause): boolean =>
      place.reach.has(cause.stop.index) &&
      shown.some((result) => (resultShares(allWays(cause.mode), itemLook(result))[0] ?? 0) > 0.05);
    return this.make(finding.id, 1, 1, undefined, (cause) => (looksSo(cause) ? MISJUDGED : 1), {
      same: `${place.key}#innocent`,
      combine: 'all',
      aside: 1,
      epoch,
      place,
      finding,
    });
  }

  repair(repair: FailedRepair, epoch: number): Evidence {
    return this.make(
      `repair:${repair.id}`,
      STILL_ILL.left,
      STILL_ILL.none,
      undefined,
      (cause) => {
        const cured = chanceRemoved(this.kase, repair, cause, this.causes);
        return (1 - cured) * STILL_ILL.left + cured * STILL_ILL.none;
      },
      { repair, epoch },
    );
  }

  /**
   * A proof after a repair that did not cure: passed, nothing of what it would fail at is there; failed, something of it is.
   */
  proof(proved: Proved, repair: FailedRepair, epoch: number): readonly Evidence[] {
    const proof = this.kase.catalogue.proofs.find(({ id }) => id === proved.proof);
    if (!proof?.fails) return [];
    const at = this.causes.find(({ stop }) => stop.station.id === repair.station)?.stop.index ?? -1;
    const miss = proof.miss ?? 0;
    const [present, absent] = proved.passed ? [miss, 1 - PROOF_ALARM] : [1 - miss, PROOF_ALARM];
    return [
      this.make(
        `proof:${repair.id}:${proof.id}`,
        0.5,
        absent,
        proofLook(proof),
        (cause) => (proofReaches(proof, at, cause.stop) ? [present, absent] : absent),
        {
          same: `proof:${proof.id}`,
          method: proof.like ?? `proof:${proof.id}`,
          proof: proved,
          epoch,
          // The job fails on a fault that lies aside of the path as on any other.
          ...(proof.onsets ? {} : { aside: absent }),
        },
      ),
    ];
  }

  /** What the owner did before, and what came of it. */
  hearsay(): readonly Evidence[] {
    const { before, catalogue, tried = [] } = this.kase;
    return before.flatMap((id): readonly Evidence[] => {
      const item = catalogue.before.find((known) => known.id === id);
      const result = tried.find((known) => known.id === id)?.result;
      const told = item?.finding;
      const place = told && this.placeOf(told.check);
      const swap = place?.check.swap === true;
      if (told && place && (result === undefined || result === 'same' || (swap && result === 'cured'))) {
        const answer = swap && result === 'cured' ? (place.check.results[0]?.id ?? told.result) : told.result;
        return this.finding({ id: `before:${id}`, key: place.key, result: answer, trust: HEARSAY }, 0);
      }
      return item?.tried && result !== undefined ? [this.tried(id, item.tried, result)] : [];
    });
  }

  private placeOf(check: string): CheckAtPlace | undefined {
    return [...this.places.values()].find((candidate) => candidate.check.id === check);
  }

  /** A remedy before it came in: what helped for a while was near the cause; what changed nothing was not, or not enough. */
  private tried(id: string, remedies: readonly string[], result: Tried['result']): Evidence {
    const { catalogue } = this.kase;
    const treats = (cause: Cause): number =>
      cause.mode.remedies
        .filter((remedy) => remedies.includes(remedy))
        .reduce((most, remedy) => Math.max(most, remedyById(catalogue, remedy)?.cures ?? 0), 0);
    const chance = (t: number): number =>
      result === 'same'
        ? 1 - 0.8 * t
        : result === 'worse'
          ? 0.1 + 0.1 * t
          : result === 'better'
            ? 0.1 + 0.5 * t
            : 0.05 + 0.6 * t;
    return this.make(`tried:${id}`, chance(0.3), chance(0), undefined, (cause) => chance(treats(cause)), {
      combine: 'any',
      trust: HEARSAY,
      tried: { id, result },
    });
  }

  /** Numbers that were told at take-in, as answers of the checks that ask for them. */
  told(): readonly Evidence[] {
    return [...this.places.values()].flatMap((place) => {
      const field = place.check.intake;
      const value = field && this.kase[field];
      const { quantity, results } = place.check;
      if (value === undefined || !quantity) return [];
      const within = Math.min(quantity.max, Math.max(quantity.min, value));
      return this.finding(
        { id: `told:${place.key}`, key: place.key, result: results[0]?.id ?? '', value: within, trust: HEARSAY },
        0,
      );
    });
  }

  /** A message names where the machine noticed it: the fault lies there or ahead of it on the path, sooner than behind it. */
  noticed(station: string): readonly Evidence[] {
    const at = this.causes.find(({ stop }) => stop.station.id === station)?.stop.index;
    if (at === undefined) return [];
    return [
      this.make(`noticed:${station}`, 0.7, 0.7, undefined, ({ stop }) => (stop.index <= at ? 1 : NOTICED_BEYOND), {
        combine: 'any',
        trust: HEARSAY,
        noticed: station,
      }),
    ];
  }
}

/** All that is known, as evidence, in the order in which it came. "Not sure" is no evidence. */
export function evidenceOf(
  kase: Case,
  causes: readonly Cause[],
  places: Places,
  findings: readonly Finding[],
): readonly Evidence[] {
  const maker = new Maker(kase, causes, places);
  const failed = kase.failed ?? [];
  const epochAt = (n: number): number => failed.filter(({ after = Infinity }) => after <= n).length;
  const onsets = [...new Set([...(kase.onset === undefined ? [] : [kase.onset]), ...(kase.onsets ?? [])])];
  return [
    ...kase.symptoms.map((symptom) => maker.symptom(symptom, true)),
    ...(kase.unseen ?? []).map((symptom) => maker.symptom(symptom, false)),
    ...onsets.map((onset) => maker.onset(onset)),
    ...maker.hearsay(),
    ...maker.told(),
    ...(kase.noticedAt === undefined ? [] : maker.noticed(kase.noticedAt)),
    ...findings.flatMap((finding, i) => maker.finding(finding, epochAt(i))),
    ...failed.map((repair, k) => maker.repair(repair, k + 1)),
    ...failed.flatMap((repair) =>
      (repair.proved ?? []).flatMap((proved) => maker.proof(proved, repair, epochAt(repair.after ?? findings.length))),
    ),
  ];
}
