import type { Catalogue } from '../catalogue/types';
import type { Evidence } from '../inference/evidence';
import { evidenceOf } from '../inference/evidenceOf';
import { USUAL, type Breadth, type ByExpectation } from '../inference/hypotheses';
import { weigh, type Suspicion } from '../inference/suspicion';
import { causesOf } from '../observation/causes';
import type { Case } from '../observation/context';
import { checksOnLane } from '../bench/places';
import type { OrderState } from '../order/state';
import type { Machine } from '../path/machine';
import { routeOf } from '../path/route';
import { keptOf } from './kept';
import { modelOf, type Model } from './model';

/** Symptoms that were asked for and are neither ticked nor named as not looked for. */
const unticked = (
  { symptoms }: Catalogue,
  { symptoms: seen, notLooked = [], askedAt }: NonNullable<OrderState['intake']>,
): readonly string[] =>
  symptoms
    .filter(({ since }) => since === undefined || Date.parse(askedAt) >= Date.parse(since))
    .map(({ id }) => id)
    .filter((id) => !seen.includes(id) && !notLooked.includes(id));

const swapsIn = (catalogue: Catalogue, key: string): boolean =>
  catalogue.checks.some(({ id, keeps }) => keeps !== undefined && key.startsWith(`${id}@`));

/** What the order says about the machine: what was told, what was tried in vain, and what a swap has left in it. */
export function caseOf(machine: Machine, catalogue: Catalogue, state: OrderState): Case {
  const { intake, findings, failures } = state;
  const lane = intake?.lane;
  const kept = findings.some(({ key }) => swapsIn(catalogue, key))
    ? keptOf(checksOnLane(catalogue, machine, lane), routeOf(machine, lane), findings, failures)
    : [];
  return {
    machine,
    catalogue,
    symptoms: intake?.symptoms ?? [],
    before: intake?.before ?? [],
    failed: state.failures,
    ...(kept.length ? { kept } : {}),
    ...(intake?.lane === undefined ? {} : { lane: intake.lane }),
    ...(intake?.material === undefined ? {} : { material: intake.material }),
    ...(intake?.weeksLoaded === undefined ? {} : { weeksLoaded: intake.weeksLoaded }),
    ...(intake?.hotterBefore === undefined ? {} : { hotterBefore: intake.hotterBefore }),
    ...(intake?.onset === undefined ? {} : { onset: intake.onset }),
    ...(intake?.noticedAt === undefined ? {} : { noticedAt: intake.noticedAt }),
    ...(intake?.converted === undefined ? {} : { converted: intake.converted }),
    ...(intake?.tried === undefined ? {} : { tried: intake.tried }),
    ...(intake?.failedAfterMinutes === undefined ? {} : { failedAfterMinutes: intake.failedAfterMinutes }),
    ...(intake?.failedAtMm === undefined ? {} : { failedAtMm: intake.failedAtMm }),
    ...(intake?.onsets === undefined ? {} : { onsets: intake.onsets }),
    ...(intake?.notLooked === undefined ? {} : { unseen: unticked(catalogue, intake) }),
  };
}

/**
 * Everything of an order that belief and advice depend on, bench aside: two orders of which it is the same are believed alike,
 * whoever recorded them and when.
 */
export function tellingOf(machine: Machine, catalogue: Catalogue, state: OrderState): string {
  const { machine: _machine, catalogue: _catalogue, ...kase } = caseOf(machine, catalogue, state);
  const findings = state.findings.map(({ key, result, value, also, finished, innocent }) => [
    key,
    result,
    value,
    also,
    finished,
    innocent,
  ]);
  return JSON.stringify([kase, findings, state.notDone.map(({ key }) => key)]);
}

export interface Working {
  readonly model: Model;
  readonly evidence: readonly Evidence[];
  readonly suspicion: Suspicion;
}

const modelCache = new Map<string, Model>();

/** The model of a case, kept for the next finding of the same order; a handful at most. */
function modelFor(kase: Case): Model {
  const { machine, catalogue: _catalogue, ...rest } = kase;
  const key = `${machine.id}|${JSON.stringify(rest)}`;
  const known = modelCache.get(key);
  if (known && known.kase.machine === machine && known.kase.catalogue === kase.catalogue) return known;
  const route = routeOf(machine, kase.lane);
  const model = modelOf(kase, route, causesOf(kase, route), checksOnLane(kase.catalogue, machine, kase.lane));
  if (modelCache.size >= 8) modelCache.clear();
  modelCache.set(key, model);
  return model;
}

/** Posterior of an order as it stands, with what it was computed from. */
export function workOut(
  machine: Machine,
  catalogue: Catalogue,
  state: OrderState,
  breadth: Breadth | ByExpectation = USUAL,
): Working {
  const kase = caseOf(machine, catalogue, state);
  const model = modelFor(kase);
  const places = new Map(model.places.map((place) => [place.key, place]));
  const evidence = evidenceOf(kase, model.causes, places, state.findings);
  return { model, evidence, suspicion: weigh(model.causes, model.prior, evidence, model.removed, breadth) };
}
