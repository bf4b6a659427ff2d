import { routeOf } from '../path/route';
import { causesOf } from '../trace/causes';
import { decide } from '../trace/decide';
import { modelOf, type Model } from '../trace/model';
import { checksFor } from '../trace/places';
import { evidenceOf, weigh } from '../trace/suspicion';
import { afterFailure, BenchWork, type Tally } from './benchWork';
import type { HiddenOrder, Luck } from './hidden';

const MOST_TURNS = 60;

export interface TracerOptions {
  readonly depth?: 1 | 2;
  readonly wrong?: number;
}

/** Follows the tracer's advice to a proved repair. */
export function followTracer(hidden: HiddenOrder, luck: Luck, { depth = 2, wrong = 0 }: TracerOptions = {}): Tally {
  const { kase } = hidden;
  const work = new BenchWork(hidden, luck, wrong);
  const route = routeOf(kase.machine, kase.lane);
  const causes = causesOf(kase, route);
  const places = checksFor(kase.catalogue, kase.machine, route);
  const byKey = new Map(places.map((place) => [place.key, place]));
  let model: Model = modelOf(kase, route, causes, places);
  for (let turn = 0; turn < MOST_TURNS; turn++) {
    const evidence = evidenceOf(model.kase, causes, byKey, work.findings);
    const suspicion = weigh(causes, model.prior, evidence);
    const barred = new Set(work.findings.map((finding) => finding.key));
    const decision = decide(model, suspicion, work.bench, evidence, barred, new Set(), { depth });
    const lead = suspicion.share.slice(0, -1).reduce((best, x, i, all) => (x > (all[best] ?? 0) ? i : best), 0);
    const leading = causes[lead];
    if (leading) work.stated.push([suspicion.share[lead] ?? 0, work.isCause(leading)]);
    const best = decision.checks[0];
    if (decision.advice === 'check' && best) {
      work.check(best.place);
      continue;
    }
    const group = model.groups[decision.repairOrder[0] ?? -1];
    if (!group) return work.strip();
    const { station, remedy, needs } = group;
    if (work.repair(station.id, remedy, needs, work.cures(station.id, remedy))) return work.finish(true);
    model = afterFailure(model, group, turn);
  }
  return work.strip();
}
