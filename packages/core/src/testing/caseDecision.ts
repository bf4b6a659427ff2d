import { checksFor } from '../bench/places';
import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { answeredKeys } from '../decision/answered';
import { decide } from '../decision/decide';
import { modelOf } from '../decision/model';
import { evidenceOf } from '../inference/evidenceOf';
import { weigh } from '../inference/suspicion';
import type { CaseBench } from '../practice/caseBench';

/** Does checks on a case's bench, each named by its key, or by its check where it has one place. @throws Error */
export function doChecks(work: CaseBench, names: readonly string[]): void {
  for (const name of names) {
    const place = work.places.find(({ key, check }) => key === name || check.id === name);
    if (!place) throw new Error(`no check ${name}`);
    work.check(place);
  }
}

/**
 * What is advised on a case's bench as it stands, two checks ahead, and the repair that would come first.
 *
 * @param barred keys of checks that cannot be done
 */
export function decidedOn(work: CaseBench, barred: ReadonlySet<string> = new Set()) {
  const { route, causes } = work;
  const places = checksFor(catalogue, work.machine, route);
  const kase = work.kase();
  const model = modelOf(kase, route, causes, places);
  const evidence = evidenceOf(kase, causes, new Map(places.map((place) => [place.key, place])), work.findings);
  const suspicion = weigh(causes, model.prior, evidence, model.removed);
  const answered = answeredKeys(model, work.findings);
  const decision = decide(model, suspicion, work.bench, evidence, barred, answered, { depth: 2 });
  const share = (id: string): number => suspicion.share[causes.findIndex((cause) => cause.id === id)] ?? 0;
  return { decision, share, first: model.groups[decision.repairOrder[0] ?? -1] };
}
