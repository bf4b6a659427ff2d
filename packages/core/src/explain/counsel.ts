import type { Bench } from '../bench/state';
import { stationShares } from '../decision/model';
import { evidenceLabel } from './explain';
import { byHabit, HABITS } from '../decision/habits';
import type { CheckForecast } from '../decision/checkForecast';
import type { Decision } from '../decision/decide';
import type { Model } from '../decision/model';
import type { Evidence } from '../inference/evidence';
import type { Suspicion } from '../inference/suspicion';

/** Several causes that together explain what was found. */
export interface SetSuspicion {
  readonly stations: readonly string[];
  readonly modes: readonly string[];
  readonly text: string;
  readonly share: number;
}

const WORTH_SAYING = 0.04;

/** Sets of two and more that carry a share worth a word, likeliest first. */
export function leadingSets(model: Model, suspicion: Suspicion): readonly SetSuspicion[] {
  return suspicion.sets
    .map(({ causes }, h) => ({ causes, share: suspicion.p[h] ?? 0 }))
    .filter(({ causes, share }) => causes.length > 1 && share >= WORTH_SAYING)
    .sort((a, b) => b.share - a.share)
    .slice(0, 3)
    .map(({ causes, share }): SetSuspicion => {
      const list = causes.flatMap((c) => model.causes[c] ?? []);
      return {
        stations: list.map(({ stop }) => stop.station.id),
        modes: list.map(({ mode }) => mode.id),
        text: list.map(({ stop, mode }) => `${stop.station.name}: ${mode.name.toLowerCase()}`).join('; and '),
        share,
      };
    });
}

/** The one result that would change the answer most. */
export interface Changer {
  readonly check: string;
  readonly result: string;
  readonly probability: number;
  readonly station: string;
  readonly from: number;
  readonly to: number;
}

/** Results rarer than this are no use to think about. */
const LIKELY_ENOUGH = 0.03;

export function whatWouldChange(model: Model, suspicion: Suspicion, decision: Decision): Changer | undefined {
  const now = stationShares(model, suspicion);
  const lead = now.indexOf(Math.max(...now));
  let best: Changer | undefined;
  for (const check of decision.checks.filter((item) => !item.done))
    for (const { outcome, probability, stations } of check.outcomes) {
      if (probability < LIKELY_ENOUGH) continue;
      const to = stations[lead] ?? 0;
      const from = now[lead] ?? 0;
      if (Math.abs(to - from) > Math.abs((best?.to ?? 0) - (best?.from ?? 0)))
        best = {
          check: check.place.name,
          result: outcome.label,
          probability,
          station: model.route.stops[lead]?.station.name ?? '',
          from,
          to,
        };
    }
  return best;
}

/** What is on no list is worth looking for beside the path from this share on, and when it lies there rather than on it (chosen). */
const BESIDE = { share: 0.2, aside: 0.75 } as const;

/** Where else to look when the checks find the path sound; undefined while that is not likely. */
export const besidePath = ({ share, aside }: Pick<Suspicion, 'share' | 'aside'>): string | undefined =>
  (share.at(-1) ?? 0) >= BESIDE.share && aside >= BESIDE.aside
    ? 'What was looked at on the path is sound, so look beside it too: belts and axes, supply and boards, the program of the machine, draught and room.'
    : undefined;

/** Findings that even the leading listed cause leaves unexplained: likelier under something unknown than under it. */
export function unexplained(model: Model, suspicion: Suspicion, evidence: readonly Evidence[]): readonly string[] {
  const listed = suspicion.share.slice(0, -1);
  const lead = listed.indexOf(Math.max(...listed));
  return evidence
    .map((item) => ({
      label: evidenceLabel(model, item),
      ratio: (item.likelihood[lead] ?? 0) / Math.max(item.elsewhere, 1e-12),
    }))
    .filter(({ ratio }) => ratio < 0.5)
    .sort((a, b) => a.ratio - b.ratio)
    .map(({ label }) => label);
}

/** What may be done while the machine heats or cools for a check. */
export interface Meanwhile {
  readonly key: string;
  readonly name: string;
  readonly minutes: number;
}

const LEAST_WAIT_MIN = 1;

/** Checks that need nothing of the heat, open nothing, fit into the wait and tell something, most telling first. */
export function meanwhileOf(decision: Decision, bench: Bench, key: string): readonly Meanwhile[] {
  const next = decision.checks.find((check) => check.place.key === key);
  if (!next) return [];
  const wait = next.price.heatingMin + next.price.coolingMin;
  if (wait < LEAST_WAIT_MIN) return [];
  const power = next.place.check.power === 'any' ? bench.power : next.place.check.power;
  const fits = (check: CheckForecast): boolean => {
    const { heat, power: wanted, minutes } = check.place.check;
    return (
      !check.done &&
      check !== next &&
      heat === 'any' &&
      (wanted === 'any' || wanted === power) &&
      check.price.opened.length === 0 &&
      minutes <= wait &&
      check.bits > 0.01
    );
  };
  return decision.checks
    .filter(fits)
    .sort((a, b) => b.bits / b.checkMinutes - a.bits / a.checkMinutes)
    .slice(0, 2)
    .map(({ place }) => ({ key: place.key, name: place.name, minutes: place.check.minutes }));
}

/** What a fixed order of the trade would do next, and what it costs more. */
export interface HabitAdvice {
  readonly id: string;
  readonly name: string;
  readonly key?: string;
  readonly check?: string;
  readonly moreMinutes?: number;
}

export function habitAdvice(model: Model, decision: Decision): readonly HabitAdvice[] {
  const best = Math.min(
    decision.repairMinutes,
    ...decision.checks.filter((check) => !check.done).map((check) => check.expectedMinutes),
  );
  return HABITS.map((habit): HabitAdvice => {
    const { id, name } = habit;
    const own = byHabit(habit, model, decision.checks);
    if (!own) return { id, name };
    const moreMinutes = Math.max(0, own.expectedMinutes - best);
    return { id, name, key: own.place.key, check: own.place.name, moreMinutes };
  });
}
