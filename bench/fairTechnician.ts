/**
 * A fair technician for the simulated worlds, written apart from the engine's own decisions: knows what is common and how well each
 * answer fits each fault (well, so-so, badly: thirds), nothing finer. Takes the cheapest check that splits what is still suspected,
 * repairs at an even bet, by the ladder, and goes on; after some ladders in vain takes everything apart.
 */
import {
  allWays,
  benchMinutes,
  causesOf,
  lookOf,
  materialOf,
  modelOf,
  needOfCheck,
  onsetLikelihood,
  overall,
  priceOf,
  proofLook,
  resultShares,
  routeOf,
  symptomLikelihood,
  type CheckAtPlace,
  type Finding,
} from '@zealous/core';
import { BenchWork, type BenchNature, type HiddenOrder, type Luck, type Tally } from '@zealous/core/practice';

/** Suspected are faults at least so likely against the likeliest. */
const SUSPECTED = 0.1;
const EVEN_BET = 0.5;
const MOST_LADDERS = 4;
const MOST_CHECKS = 40;

/** How well something fits, of what fits best: well, so-so, badly. */
const third = (share: number): number => (share < 1 / 3 ? 1 / 6 : share < 2 / 3 ? 1 / 2 : 5 / 6);
const fits = (row: readonly number[]): readonly number[] => {
  const best = Math.max(...row.map(Number));
  return row.map((l) => third(best > 0 ? l / best : 0));
};

export function followTechnician(hidden: HiddenOrder, luck: Luck, nature: BenchNature = {}): Tally {
  const { kase } = hidden;
  const { catalogue, machine } = kase;
  const work = new BenchWork(hidden, luck, nature);
  const route = routeOf(machine, kase.lane);
  const causes = causesOf(kase, route);
  const model = modelOf(kase, route, causes, work.places);
  const hotC = Math.min(materialOf(catalogue, kase.material).printC, machine.heat.limitC);
  const belief = causes.map(({ weight }) => weight);
  const weigh = (row: readonly number[]): void => fits(row).forEach((f, i) => (belief[i] = (belief[i] ?? 0) * f));
  for (const symptom of kase.symptoms) weigh(causes.map((cause) => symptomLikelihood(catalogue, symptom, cause)));
  const { onset } = kase;
  if (onset !== undefined) weigh(causes.map(({ mode }) => onsetLikelihood(catalogue, mode, onset)));

  /** P(each outcome | each cause) of a check. */
  const rowsOf = (place: CheckAtPlace): readonly (readonly number[])[] => {
    const index = model.places.findIndex(({ key }) => key === place.key);
    const look = lookOf(place.check);
    const given = causes.map((cause, c) => model.given.at(index, c).map((item) => overall(look, cause, item)));
    return (model.outcomes[index] ?? []).map((_, o) => given.map((row) => row[o] ?? 0));
  };
  const odd = (place: CheckAtPlace): readonly number[] => {
    const sound = rowsOf(place).at(-1) ?? [];
    return sound.map((l) => third(1 - l));
  };
  const asked = new Set<string>();
  const useful = work.places.filter(
    ({ check }) => !check.asks && !check.intake && !check.history && !check.quantity?.predict,
  );
  const table = new Map(useful.map((place) => [place.key, odd(place)]));
  const outcomeAt = (place: CheckAtPlace, { result, value }: Finding): number => {
    const index = model.places.findIndex(({ key }) => key === place.key);
    return (model.outcomes[index] ?? []).findIndex(
      (outcome) =>
        outcome.result === result &&
        (value === undefined ||
          outcome.low === undefined ||
          (value >= outcome.low && value <= (outcome.high ?? value))),
    );
  };

  let ladders = 0;
  while (ladders < MOST_LADDERS) {
    const total = belief.reduce((sum, p) => sum + p, 0);
    if (total <= 0) break;
    const top = belief.indexOf(Math.max(...belief));
    const suspected = belief.flatMap((p, i) => (p >= SUSPECTED * (belief[top] ?? 0) ? [i] : []));
    const splits = ({ key }: CheckAtPlace): boolean => {
      const seen = suspected.map((i) => table.get(key)?.[i] ?? 0);
      return Math.max(...seen) > 2 / 3 && Math.min(...seen) < 1 / 3;
    };
    const cheapest =
      (belief[top] ?? 0) / total >= EVEN_BET || work.findings.length >= MOST_CHECKS
        ? undefined
        : useful
            .filter((place) => !asked.has(place.key) && splits(place))
            .map((place) => ({
              place,
              minutes: benchMinutes(priceOf(machine, work.bench, needOfCheck(place, hotC))) + place.check.minutes,
            }))
            .sort((a, b) => a.minutes - b.minutes)[0];
    if (cheapest) {
      const { place } = cheapest;
      asked.add(place.key);
      const { finding } = work.check(place);
      if (work.cameUpon) return work.mendSeen();
      const at = outcomeAt(place, finding);
      const row = rowsOf(place)[at];
      if (row) weigh(row);
      continue;
    }
    const cause = causes[top];
    if (!cause) break;
    ladders++;
    if (work.ladder(cause)) return work.finish(true);
    belief[top] = 0;
    // What the tests after it showed is seen by the technician too.
    for (const { proof: id, passed } of work.proved) {
      const proof = catalogue.proofs.find((known) => known.id === id);
      const look = proof && proofLook(proof);
      if (!look) continue;
      const shown = causes.map(({ mode }) => resultShares(allWays(mode), look)[0] ?? 0);
      weigh(passed ? shown.map((s) => 1 - s) : shown);
    }
  }
  return work.strip();
}
