import { answersOf } from '../catalogue/index';
import type { CheckForecast } from '../decision/checkForecast';
import type { Model } from '../decision/model';
import type { Evidence } from '../inference/evidence';
import { QUICK } from '../inference/hypotheses';
import { weigh, type Suspicion } from '../inference/suspicion';
import { NOT_SURE } from '../bench/places';

/** What one observation says of one cause, in decibans: 10 log10 of its likelihood ratio against all the rest. */
export interface ForAgainst {
  readonly evidence: string;
  readonly label: string;
  readonly decibans: number;
  readonly words: string;
}

/** Plain words for a weight of evidence; the steps are those of a factor 2, 4 and 10 (chosen). */
export function inWords(decibans: number): string {
  const size = Math.abs(decibans);
  if (size < 1) return 'says little';
  const strength = size < 3 ? 'slightly' : size < 6 ? 'clearly' : size < 10 ? 'strongly' : 'very strongly';
  return `${strength} ${decibans > 0 ? 'for' : 'against'}`;
}

/** How an observation reads: the check and its answer, the symptom, or when it began. */
export function evidenceLabel(model: Model, item: Evidence): string {
  const { catalogue } = model.kase;
  if (item.symptom !== undefined)
    return `${item.unseen ? 'Looked for and not seen' : 'Seen'}: ${catalogue.symptoms.find((s) => s.id === item.symptom)?.label ?? item.symptom}`;
  if (item.onset !== undefined)
    return `It began: ${catalogue.onsets.find((o) => o.id === item.onset)?.label ?? item.onset}`;
  if (item.noticed !== undefined) return `A message names ${stationName(model, item.noticed)}`;
  if (item.tried)
    return `Tried before: ${catalogue.before.find((b) => b.id === item.tried?.id)?.label ?? item.tried.id}: ${item.tried.result}`;
  if (item.proof)
    return `Proof ${item.proof.passed ? 'passed' : 'failed'}: ${catalogue.proofs.find(({ id }) => id === item.proof?.proof)?.name ?? item.proof.proof}`;
  if (item.repair) return `Repair at ${stationName(model, item.repair.station)} did not cure`;
  const { place, finding } = item;
  if (!place || !finding) return item.id;
  if (finding.result === NOT_SURE) return `${place.name}: not sure`;
  const also = [finding.result, ...(finding.also ?? [])];
  if (item.item)
    return `${place.name}: ${item.item.there ? '' : 'no '}${(place.check.results.find((r) => r.id === item.item?.result)?.label ?? '').toLowerCase()}`;
  if (finding.innocent)
    return `${place.name}: ${place.check.results
      .filter((r) => also.includes(r.id))
      .map((r) => r.label.toLowerCase())
      .join(', ')}: real, but not the cause`;
  const answer = [...answersOf(place.check), ...(place.check.asks ? catalogue.onsets : [])].find(
    (r) => r.id === finding.result,
  );
  const measured = answer && 'measured' in answer ? answer.measured : undefined;
  const unit = place.check.quantity?.unit ?? measured ?? 'mm';
  const value = finding.value === undefined ? '' : ` ${finding.value} ${unit}`;
  const words =
    answer && 'depth' in answer && answer.depth
      ? `stops at${value || ' a depth not measured'}`
      : `${answer?.label ?? ''}${value}`;
  return `${place.name}: ${words.toLowerCase()}${(finding.trust ?? 1) < 1 ? ' (as told)' : ''}`;
}

export const stationName = (model: Model, id: string): string =>
  model.route.stops.find((stop) => stop.station.id === id)?.station.name ?? id;

/** Probability that one of these causes is there. */
const held = (suspicion: Suspicion, inside: ReadonlySet<number>): number =>
  suspicion.sets.reduce(
    (sum, { causes }, h) => sum + (causes.some((c) => inside.has(c)) ? (suspicion.p[h] ?? 0) : 0),
    0,
  );

const decibans = (p: number): number => 10 * Math.log10(Math.max(p, 1e-12) / Math.max(1 - p, 1e-12));

/** What would be believed without each of the observations: worked out once, for every cause that is asked about. */
export const leaveOneOut = (model: Model, evidence: readonly Evidence[]): readonly Suspicion[] =>
  evidence.map((item) =>
    weigh(
      model.causes,
      model.prior,
      evidence.filter((other) => other !== item),
      model.removed,
      QUICK,
    ),
  );

/**
 * Weight of each observation for a set of causes (a station's, or one), strongest first: by how many decibans the odds
 * would be lower without it. So a witness that only repeats another weighs little.
 */
export function forAndAgainst(
  model: Model,
  evidence: readonly Evidence[],
  members: readonly number[],
  without: readonly Suspicion[] = leaveOneOut(model, evidence),
  whole: Suspicion = weigh(model.causes, model.prior, evidence, model.removed, QUICK),
): readonly ForAgainst[] {
  const inside = new Set(members);
  const now = decibans(held(whole, inside));
  return evidence
    .map((item, i): ForAgainst => {
      const weight = now - decibans(held(without[i] ?? whole, inside));
      return { evidence: item.id, label: evidenceLabel(model, item), decibans: weight, words: inWords(weight) };
    })
    .sort((a, b) => Math.abs(b.decibans) - Math.abs(a.decibans) || (a.evidence < b.evidence ? -1 : 1));
}

/** A share for a person; the sign never stands alone on a line. */
export const percent = (p: number): string => (p > 0 && p < 0.01 ? 'under 1\u00a0%' : `${Math.round(p * 100)}\u00a0%`);

/** Minutes for a person: whole minutes, or "under 1". */
export const minutesText = (min: number): string => (min < 0.5 ? 'under 1 min' : `${Math.round(min)} min`);

/** What the price of a check is made of, in words. */
export function priceWords(forecast: CheckForecast): readonly string[] {
  const { price, place } = forecast;
  const parts: [number, string][] = [
    [price.heatingMin, 'heating'],
    [price.coolingMin, 'cooling'],
    [price.clearMin, 'emptying the path'],
    [price.raiseMin, 'raising the head'],
    [price.openingMin, 'opening'],
    [place.check.minutes, 'the check'],
  ];
  return parts.filter(([min]) => min > 0).map(([min, what]) => `${what} ${minutesText(min)}`);
}

/** The stations that an answer moves most; suspicion by station before and after it. */
export function movedBy(model: Model, before: readonly number[], after: readonly number[], most = 2) {
  const moves: { station: string; name: string; from: number; to: number }[] = [];
  for (let i = 0; i < after.length; i++) {
    const [from, to] = [before[i] ?? 0, after[i] ?? 0];
    const station = model.route.stops[i]?.station;
    if (station && Math.abs(to - from) >= 0.01) moves.push({ station: station.id, name: station.name, from, to });
  }
  return moves.sort((x, y) => Math.abs(y.to - y.from) - Math.abs(x.to - x.from)).slice(0, most);
}
