import { routeOf } from '../path/route';
import { causesOf } from '../observation/causes';
import { answeredKeys } from '../decision/answered';
import { decide } from '../decision/decide';
import { modelOf, withKept, type Model } from '../decision/model';
import { checksFor } from '../bench/places';
import { evidenceOf } from '../inference/evidenceOf';
import { QUICK } from '../inference/hypotheses';
import { weigh } from '../inference/suspicion';
import { afterFailure, BenchWork } from './benchWork';
import type { BenchNature, Tally } from './tally';
import type { HiddenOrder, Luck } from './hidden';

const MOST_TURNS = 60;

export interface TracerOptions extends BenchNature {
  readonly depth?: 1 | 2;
}

/** What the tracer said of an order on its way, beside what it came to. */
export interface Told {
  /** Minutes to a proved repair, as expected before anything was looked at. */
  readonly promised: number;
  /** Bits by which what was really wrong surprised it (log score), at the taking-in and after six findings. */
  readonly surprise: readonly [number, number | undefined];
  /** Suspicion of "something else" before each step. */
  readonly elsewhere: readonly number[];
  /** It really was on no list. */
  readonly unlisted: boolean;
}

/** After so many findings the log score is taken again. */
const SCORED_AFTER = 6;

/** Follows the tracer's advice to a proved repair. */
export function followTracer(hidden: HiddenOrder, luck: Luck, options: TracerOptions = {}): Tally & Told {
  const { depth = 2, ...nature } = options;
  const { kase } = hidden;
  const work = new BenchWork(hidden, luck, nature);
  let promised = 0;
  const elsewhere: number[] = [];
  const surprise: [number, number | undefined] = [0, undefined];
  const told = (tally: Tally): Tally & Told => ({
    ...tally,
    promised,
    surprise,
    elsewhere,
    unlisted: hidden.faults.length === 0,
  });
  const route = routeOf(kase.machine, kase.lane);
  const causes = causesOf(kase, route);
  const places = checksFor(kase.catalogue, kase.machine, route);
  const byKey = new Map(places.map((place) => [place.key, place]));
  let model: Model = modelOf(kase, route, causes, places);
  for (let turn = 0; turn < MOST_TURNS; turn++) {
    const evidence = evidenceOf(model.kase, causes, byKey, work.findings);
    const suspicion = weigh(causes, model.prior, evidence, model.removed, QUICK);
    const answered = answeredKeys(model, work.findings);
    const decision = decide(model, suspicion, work.bench, evidence, new Set(), answered, { depth });
    // What is expected of the likeliest of what is really wrong; of a fault on no list, of "something else".
    const truth = hidden.faults.map(({ id }) => suspicion.share[causes.findIndex((cause) => cause.id === id)] ?? 0);
    const bits = -Math.log2(Math.max(1e-6, truth.length ? Math.max(...truth) : (suspicion.share.at(-1) ?? 0)));
    if (turn === 0) {
      promised = Math.min(decision.repairMinutes, decision.checks[0]?.expectedMinutes ?? Infinity);
      surprise[0] = bits;
    }
    if (work.findings.length === SCORED_AFTER) surprise[1] ??= bits;
    elsewhere.push(suspicion.share.at(-1) ?? 0);
    const lead = suspicion.share.slice(0, -1).reduce((best, x, i, all) => (x > (all[best] ?? 0) ? i : best), 0);
    const leading = causes[lead];
    if (leading) work.stated.push([suspicion.share[lead] ?? 0, work.isWrong(leading)]);
    const best = decision.checks[0];
    if (decision.advice === 'check' && best) {
      work.check(best.place);
      if (work.cameUpon) return told(work.mendSeen());
      model = withKept(model, work.findings);
      continue;
    }
    const group = model.groups[decision.repairOrder[0] ?? -1];
    if (!group) return told(work.strip(answered));
    const { station, remedy, needs } = group;
    if (work.repair(station.id, remedy, needs)) return told(work.finish(true));
    model = withKept(afterFailure(model, group, turn, work), work.findings);
  }
  return told(work.strip());
}
