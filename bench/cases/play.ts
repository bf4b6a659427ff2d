import {
  answeredKeys,
  carried,
  checksFor,
  decide,
  deliveredCatalogue as catalogue,
  ELSEWHERE_MIN,
  evidenceOf,
  massLeftOut,
  modelOf,
  weigh,
  type Model,
} from '@zealous/core';
import { tradeBeginsWith } from './technician';
import { CaseBench, type PracticeCase } from '@zealous/core/practice';

export interface Played {
  readonly id: string;
  /** All true causes found before any sound part was renewed. */
  readonly found: boolean;
  readonly checks: number;
  readonly repairs: number;
  readonly minutes: number;
  /** One of the first three offers would show it, is what the trade begins with, or the right repair is named at once. */
  readonly sensible: boolean;
  readonly stripped: boolean;
  readonly soundRenewed: number;
  readonly massLeftOut: number;
  /** Stated of the leading cause before each step, and whether it was so. */
  readonly stated: readonly (readonly [number, boolean])[];
  readonly steps: readonly string[];
  readonly repaired: readonly { readonly station: string; readonly mode: string; readonly remedy: string }[];
}

const MOST_TURNS = 40;

/** What a look costs that turns out not to be possible, min (chosen): the tool is looked for, or the screw does not give. */
const TRIED_MIN = 1;

/**
 * Follows the tracer to a proved repair, or to where it gives up.
 *
 * @param wide reckons what the search for sets leaves out, too
 * @param unable whether a check, by its key, cannot be done on that day
 */
export function playTracer(of: PracticeCase, wide = false, unable: (key: string) => boolean = () => false): Played {
  const work = new CaseBench(of);
  const { route, causes } = work;
  const all = checksFor(catalogue, work.machine, route);
  const places = new Map(all.map((place) => [place.key, place]));
  const steps: string[] = [];
  const stated: (readonly [number, boolean])[] = [];
  const repaired: Played['repaired'][number][] = [];
  let sensible = false;
  let stripped = false;
  let most = 0;
  const barred = new Set<string>();
  for (let turn = 0; turn < MOST_TURNS + barred.size && work.left.length > 0; turn++) {
    const kase = work.kase();
    const model: Model = modelOf(kase, route, causes, all);
    const evidence = evidenceOf(kase, causes, places, work.findings);
    const suspicion = weigh(causes, model.prior, evidence, model.removed);
    if (wide) most = Math.max(most, massLeftOut(causes, model.prior, evidence, model.removed));
    const answered = answeredKeys(model, work.findings);
    const decision = decide(model, suspicion, work.bench, evidence, barred, answered, { depth: 2 });
    if (turn === 0) {
      const wanted = of.sensible ?? [];
      const group = model.groups[decision.repairOrder[0] ?? -1];
      const right = work.left.some(
        ({ station, mode }) =>
          station === group?.station.id || group?.causes.some((c) => causes[c]?.id === `${station}/${mode}`),
      );
      sensible =
        (decision.advice === 'repair' && right) ||
        decision.checks
          .slice(0, 3)
          .some(
            ({ place }) =>
              wanted.includes(place.key) ||
              wanted.includes(place.check.id) ||
              tradeBeginsWith(of, place.check.id) ||
              work.abnormal(place, work.answer(place)),
          );
      steps.push(
        `offers: ${decision.checks
          .slice(0, 3)
          .map(({ place }) => place.key)
          .join(', ')}`,
      );
    }
    const lead = suspicion.share.slice(0, -1).reduce((b, x, i, list) => (x > (list[b] ?? 0) ? i : b), 0);
    const leading = causes[lead];
    if (leading)
      stated.push([
        suspicion.share[lead] ?? 0,
        work.left.some(({ station, mode }) => `${station}/${mode}` === leading.id),
      ]);
    const best = decision.checks.find((check) => !check.done);
    if (decision.advice === 'check' && best && unable(best.place.key)) {
      barred.add(best.place.key);
      work.minutes += TRIED_MIN;
      steps.push(`${best.place.key}: could not be done`);
      continue;
    }
    if (decision.advice === 'check' && best) {
      const seen = work.check(best.place);
      steps.push(
        `${best.place.key}: ${[seen.result, ...(seen.also ?? [])].join('+')}${seen.value === undefined ? '' : ` ${seen.value}`}`,
      );
      continue;
    }
    const group = model.groups[decision.repairOrder[0] ?? -1];
    if (!group) {
      stripped = true;
      work.minutes += ELSEWHERE_MIN;
      steps.push(`nothing listed (something else ${(100 * (suspicion.share.at(-1) ?? 0)).toFixed(0)} %)`);
      break;
    }
    const mode =
      causes[[...group.causes].sort((a, b) => (suspicion.share[b] ?? 0) - (suspicion.share[a] ?? 0))[0] ?? -1];
    const share = carried(model, suspicion, decision.repairOrder[0]);
    work.repair(group.station.id, mode?.mode.id ?? '', group.remedy);
    repaired.push({ station: group.station.id, mode: mode?.mode.id ?? '', remedy: group.remedy.id });
    const done = work.done.at(-1);
    steps.push(
      `REPAIR ${group.station.id} ${group.remedy.id} (${(100 * share).toFixed(0)} %) → ${done?.cured.join(' and ') || 'nothing'}`,
    );
  }
  const unlisted = of.faults.every(({ mode }) => mode === undefined);
  const soundRenewed = work.done.filter((done) => done.soundRenewed).length;
  return {
    id: of.id,
    found: soundRenewed === 0 && (unlisted ? stripped : work.left.length === 0),
    checks: work.findings.length,
    repairs: work.done.length,
    minutes: work.minutes,
    sensible,
    stripped,
    soundRenewed,
    massLeftOut: most,
    stated,
    steps,
    repaired,
  };
}
