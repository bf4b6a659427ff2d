import { deliveredCatalogue, materialOf, modeById } from '../catalogue/index';
import type { Catalogue } from '../catalogue/types';
import { priceOf } from '../bench/price';
import { mayBeAbsent } from '../bench/state';
import { benchAt } from '../order/bench';
import type { OrderEvent } from '../order/events';
import { reduceOrder } from '../order/reduce';
import type { Machine } from '../path/machine';
import { laneRuns, routeOf, type Route } from '../path/route';
import { heldBecause, planFor } from '../plan/plan';
import { allFasteners, stepEntries } from '../plan/record';
import type { PlanStep } from '../plan/steps';
import { playPlan, type Accident, type PlayedStep, type Scene } from '../referee';
import { played, provingSteps, sceneOf } from './proving';
import { seeded } from '../quantities/random';
import { causesOf, type Cause } from '../observation/causes';
import { checksFor } from '../bench/places';
import { rungsFor } from '../decision/repairs';

/**
 * For tests and `npm run audit:plans`: plays the plans of machines, causes, rungs, offers and starting states to the referee.
 */

export { sceneOf } from './proving';

export const STARTS = ['cold', 'hot', 'traced', 'midway', 'several'] as const;
export type Start = (typeof STARTS)[number];

export interface AuditCase {
  readonly machine: Machine;
  readonly lane: string;
  readonly material: string;
  readonly station: string;
  readonly mode: string;
  readonly remedy: string;
  readonly offer?: string;
  readonly start: Start;
  readonly seed: number;
}

export interface Audited {
  readonly of: AuditCase;
  readonly steps: number;
  readonly accident?: Accident;
  /** A plan that could not be made. */
  readonly error?: string;
}

const AT = '2026-12-01T09:00:00.000Z';
let made = 0;
const event = ({ type, body }: { readonly type: string; readonly body: unknown }): OrderEvent =>
  ({
    id: `00000000-0000-4000-8000-${String(++made).padStart(12, '0')}`,
    at: AT,
    by: 'audit',
    type,
    body,
  }) as OrderEvent;

/** Lanes that lead along different heads; of lanes that merge, the first. */
const lanesToAudit = (machine: Machine): readonly string[] => {
  const seen = new Set<string>();
  return laneRuns(machine).flatMap((run) => {
    const nozzle = routeOf(machine, run.id).stops.find((stop) => stop.station.kind === 'nozzle')?.station.id ?? run.id;
    if (seen.has(nozzle)) return [];
    seen.add(nozzle);
    return [run.id];
  });
};

/** Every cause × remedy × offer × start of a machine, with the materials in turn. */
export function* auditCases(
  machine: Machine,
  materials: readonly string[],
  catalogue: Catalogue = deliveredCatalogue,
): Generator<AuditCase> {
  let n = 0;
  for (const lane of lanesToAudit(machine)) {
    const route = routeOf(machine, lane);
    for (const id of materials) {
      const material = materialOf(catalogue, id);
      for (const { stop, mode } of causesOf(
        { machine, catalogue, symptoms: [], before: [], lane, material: id },
        route,
      ))
        for (const remedy of rungsFor(catalogue, machine, route, { stop, mode }, material))
          for (const offer of remedy.offers?.map((one) => one.id) ?? [undefined])
            for (const start of STARTS)
              yield {
                machine,
                lane,
                material: id,
                station: stop.station.id,
                mode: mode.id,
                remedy: remedy.id,
                ...(offer === undefined ? {} : { offer }),
                start,
                seed: ++n,
              };
    }
  }
}

interface Playing {
  readonly machine: Machine;
  readonly catalogue: Catalogue;
  readonly route: Route;
  readonly random: () => number;
  readonly causes: readonly Cause[];
}

const pick = <T>(random: () => number, list: readonly T[]): T | undefined => list[Math.floor(random() * list.length)];

/** The bench as the tracer leaves it: after one to three checks anywhere, everything that they opened still open. */
function traced({ machine, catalogue, route, random }: Playing): readonly OrderEvent[] {
  let bench = benchAt(machine, reduceOrder(machine, catalogue, []), 0);
  const places = checksFor(catalogue, machine, route);
  for (let i = 1 + Math.floor(random() * 3); i > 0; i--) {
    const place = pick(random, places);
    if (!place) break;
    const { heat, power } = place.check;
    const price = priceOf(machine, bench, { heat, power, parts: place.parts, hotC: 205 });
    if (!price.impossible) bench = { ...bench, ...price.after };
  }
  const strand = pick(random, ['in', 'tube', 'out', 'remnant', undefined] as const);
  const off = [...bench.off];
  return [
    {
      type: 'bench-changed',
      body: {
        power: bench.power,
        readingC: Math.round(bench.temperatureC),
        ...(bench.power === 'on' && bench.temperatureC > 150 ? { targetC: 205 } : {}),
      },
    },
    ...(off.length ? [{ type: 'parts-moved', body: { off } }] : []),
    ...(strand ? [{ type: 'bench-changed', body: { strand: { [route.lane]: strand } } }] : []),
  ].map(event);
}

/** What a tap on a step records here: a choice at random where there is one, every screw counted. */
function done(machine: Machine, step: PlanStep, random: () => number): readonly OrderEvent[] {
  const choice = step.choices ? pick(random, step.choices) : undefined;
  const tick = step.closes ? allFasteners(machine, step.closes, step.way, 'in') : [];
  const end =
    step.kind === 'rung'
      ? {
          type: 'rung-tried',
          body: {
            stepId: step.id,
            remedy: step.remedy,
            station: step.station,
            mode: step.mode,
            outcome: pick(random, step.outcomes ?? [])?.means ?? 'no-change',
          },
        }
      : { type: 'step-done', body: { stepId: step.id } };
  const also = (step.covers ?? []).map((other) => ({ type: end.type, body: { ...end.body, ...other } }));
  return [...stepEntries(step, choice), ...tick, end, ...also].map(event);
}

const SKIPPED: readonly PlanStep['kind'][] = ['open', 'act', 'spares', 'keep'];

/** Part of the plan done, out of order, skipped or twice where nothing holds it. */
function midway(playing: Playing, begun: readonly OrderEvent[]): readonly OrderEvent[] {
  const { machine, catalogue, random } = playing;
  const events = [...begun];
  for (let left = Math.floor(random() * 14); left > 0; left--) {
    const state = reduceOrder(machine, catalogue, events);
    const bench = benchAt(machine, state, state.lastMs);
    const plan = planFor(machine, catalogue, state, bench);
    const ahead = plan.steps.slice(plan.done);
    const [first] = ahead;
    if (!first) break;
    const luck = random();
    const free = ahead.filter((step) => heldBecause(step, bench, machine) === undefined);
    const step = luck < 0.75 ? first : (pick(random, free) ?? first);
    if (luck > 0.93 && SKIPPED.includes(step.kind) && (step.opens === undefined || mayBeAbsent(machine, step.opens)))
      events.push(event({ type: 'step-skipped', body: { stepId: step.id, why: 'not needed' } }));
    else if (heldBecause(step, bench, machine) === undefined) events.push(...done(machine, step, random));
  }
  return events;
}

/** The order of a case, up to the moment at which its plan is looked at. */
export function orderOf(of: AuditCase, catalogue: Catalogue = deliveredCatalogue): readonly OrderEvent[] {
  const { machine, lane, material, station, mode, start } = of;
  const route = routeOf(machine, lane);
  const random = seeded(of.seed * 7919 + STARTS.indexOf(start));
  const causes = causesOf({ machine, catalogue, symptoms: [], before: [], lane, material }, route);
  const playing: Playing = { machine, catalogue, route, random, causes };
  const printC = Math.min(materialOf(catalogue, material).printC, machine.heat.limitC);
  const begun = [
    event({ type: 'taken-in', body: { number: 'a', machineId: machine.id, lane, material, symptoms: [], before: [] } }),
    ...(start === 'hot' || (start !== 'cold' && random() < 0.4 && start !== 'traced')
      ? [
          event({
            type: 'bench-changed',
            body: { power: 'on', targetC: printC, readingC: printC, strand: { [lane]: 'in' } },
          }),
        ]
      : []),
    ...(start === 'traced' ? traced(playing) : []),
    event({ type: 'cause-chosen', body: { station, mode, advised: true } }),
  ];
  if (start === 'several') {
    const more = new Map<string, Cause>();
    for (let i = 1 + Math.floor(random() * 2); i > 0; i--) {
      const other = pick(random, causes);
      if (other && !(other.stop.station.id === station && other.mode.id === mode))
        more.set(`${other.stop.station.id}/${other.mode.id}`, other);
    }
    for (const other of more.values())
      begun.push(event({ type: 'cause-added', body: { station: other.stop.station.id, mode: other.mode.id } }));
  }
  const picked = {
    type: 'rung-picked',
    body: { station, mode, remedy: of.remedy, ...(of.offer === undefined ? {} : { offer: of.offer }) },
  };
  const ready = [...begun, event(picked)];
  return start === 'midway' ? midway(playing, ready) : ready;
}

/** One plan, played to its proved end. */
export function auditPlan(
  of: AuditCase,
  catalogue: Catalogue = deliveredCatalogue,
): Audited & { readonly played: readonly PlayedStep[]; readonly scene: Scene } {
  const { machine } = of;
  let steps: PlayedStep[] = [];
  let scene: Scene = sceneOf(machine, reduceOrder(machine, catalogue, []));
  try {
    const events = orderOf(of, catalogue);
    const state = reduceOrder(machine, catalogue, events);
    const plan = planFor(machine, catalogue, state, benchAt(machine, state, state.lastMs));
    scene = sceneOf(machine, state);
    steps = plan.steps.slice(plan.done).map(played);
    const rungs = plan.steps.slice(plan.done).filter(({ kind }) => kind === 'rung');
    if (state.heatSpoiled)
      scene = {
        ...scene,
        heatFault: rungs.flatMap(({ id, mode: of = '' }) => (modeById(catalogue, of)?.spoilsHeat ? [id] : [])),
      };
    const tried = rungs.flatMap((step) => [
      { step, station: step.station ?? '', mode: step.mode ?? '' },
      ...(step.covers ?? []).map((other) => ({ step, ...other })),
    ]);
    const cleared = tried.map(({ step, station, mode }) =>
      event({
        type: 'rung-tried',
        body: { stepId: step.id, remedy: step.remedy, station, mode, outcome: 'cleared' },
      }),
    );
    const all = plan.ladders.every(
      ({ cleared: done, cause }) =>
        done || tried.some(({ station, mode }) => station === cause.station && mode === cause.mode),
    );
    if (!plan.exhausted && all) {
      const proved = reduceOrder(machine, catalogue, [...events, ...cleared]);
      steps.push(
        ...provingSteps(
          machine,
          catalogue,
          { ...proved, opened: [...new Set([...proved.opened, ...plan.steps.flatMap(({ opens }) => opens ?? [])])] },
          scene,
          steps,
        ),
      );
    }
    const accident = playPlan(machine, of.lane, scene, steps);
    return { of, steps: steps.length, played: steps, scene, ...(accident ? { accident } : {}) };
  } catch (error) {
    return { of, steps: steps.length, played: steps, scene, error: (error as Error).message };
  }
}

export const caseText = (
  { machine, station, mode, remedy, offer, start, material, seed }: AuditCase,
  catalogue: Catalogue = deliveredCatalogue,
): string =>
  `${machine.id} ${station} ${modeById(catalogue, mode)?.id ?? mode} ${remedy}${offer ? `/${offer}` : ''} ${start} ${material} #${seed}`;
