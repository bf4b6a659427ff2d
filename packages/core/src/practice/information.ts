import { routeOf } from '../path/route';
import { causesOf } from '../observation/causes';
import { decide } from '../decision/decide';
import { modelOf, type Model } from '../decision/model';
import { evidenceOf } from '../inference/evidenceOf';
import { QUICK } from '../inference/hypotheses';
import { weigh } from '../inference/suspicion';
import { afterFailure, BenchWork } from './benchWork';
import type { BenchNature, Tally } from './tally';
import type { HiddenOrder, Luck } from './hidden';

/** Repairs once a place is suspected this much, or nothing tells more (chosen). */
const SURE = 0.7;
const TELLS_NOTHING = 0.05;

/** A common yardstick: most information a minute, the bench's state left out of account, repair once fairly sure. */
export function followInformation(hidden: HiddenOrder, luck: Luck, nature: BenchNature = {}): Tally {
  const { kase } = hidden;
  const work = new BenchWork(hidden, luck, nature);
  const route = routeOf(kase.machine, kase.lane);
  const causes = causesOf(kase, route);
  const byKey = new Map(work.places.map((place) => [place.key, place]));
  let model: Model = modelOf(kase, route, causes, work.places);
  const cold = work.bench;
  for (let turn = 0; turn < 60; turn++) {
    const evidence = evidenceOf(model.kase, causes, byKey, work.findings);
    const suspicion = weigh(causes, model.prior, evidence, model.removed, QUICK);
    const barred = new Set(work.findings.map((finding) => finding.key));
    const { checks } = decide(model, suspicion, cold, evidence, barred, new Set());
    const rate = (check: (typeof checks)[number]): number => check.bits / check.checkMinutes;
    const best = [...checks].sort((a, b) => rate(b) - rate(a))[0];
    const shares = model.groups.map((group) => group.causes.reduce((sum, i) => sum + (suspicion.share[i] ?? 0), 0));
    const top = shares.reduce((at, x, g) => (x > (shares[at] ?? 0) ? g : at), 0);
    if ((shares[top] ?? 0) < SURE && best && best.bits > TELLS_NOTHING) {
      work.check(best.place);
      if (work.cameUpon) return work.mendSeen();
      continue;
    }
    const group = model.groups[top];
    if (!group || (shares[top] ?? 0) < 0.02) return work.strip();
    const { station, remedy, needs } = group;
    if (work.repair(station.id, remedy, needs)) return work.finish(true);
    model = afterFailure(model, group, turn, work);
  }
  return work.strip();
}
