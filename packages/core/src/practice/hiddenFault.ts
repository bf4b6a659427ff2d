import { benchMinutes, priceOf, type Bench } from '../access/bench';
import type { Machine } from '../path/machine';
import { causesOf, onsetLikelihood, type Cause } from '../trace/causes';
import type { Case, FailedRepair, Finding } from '../trace/context';
import { decide, modelOf, type Model } from '../trace/decide';
import { outcomeProbability, symptomLikelihood } from '../trace/likelihood';
import { checksFor } from '../trace/places';
import { ELSEWHERE_MIN, PROOF_MIN, remedyMinutes, rungsFor } from '../trace/repairs';
import { evidenceOf, posterior, priorOf } from '../trace/suspicion';
import { materialOf } from '../catalogue/index';
import { routeOf } from '../path/route';
import type { Catalogue, FailureMode, Shows } from '../catalogue/types';

/** Uniform on [0, 1). */
export type Random = () => number;

/**
 * A machine with a fault that nobody has seen, and what its owner says. `cause` is undefined when it is on no list; its
 * mode shows for certain what this fault shows, so that two checks of one thing agree but for their own errors.
 */
export interface HiddenOrder {
  readonly kase: Case;
  readonly cause?: Cause;
}

function pick(weights: ArrayLike<number>, random: Random): number {
  let total = 0;
  for (let i = 0; i < weights.length; i++) total += weights[i] ?? 0;
  let at = random() * total;
  for (let i = 0; i < weights.length; i++) {
    at -= weights[i] ?? 0;
    if (at < 0) return i;
  }
  return weights.length - 1;
}

/** One way in which a mode can show: every dimension at one value, every reading there or not. */
function manifest(mode: FailureMode, random: Random): FailureMode {
  const shows = Object.entries(mode.shows).map(([dimension, values]): [string, Shows] => {
    let at = random();
    const value = Object.entries(values).find(([, p]) => (at -= p) < 0)?.[0];
    return [dimension, value === undefined ? {} : { [value]: 1 }];
  });
  const reads = Object.entries(mode.reads ?? {}).map(([name, reading]) => [
    name,
    { ...reading, p: random() < reading.p ? 1 : 0 },
  ]);
  return { ...mode, shows: Object.fromEntries(shows), reads: Object.fromEntries(reads) as FailureMode['reads'] };
}

/** Draws an order from the catalogue's own world: filament, then cause, then onset and symptoms as that cause shows them. */
export function drawOrder(machine: Machine, catalogue: Catalogue, random: Random): HiddenOrder {
  const materials = catalogue.materials.filter((material) => material.printC <= machine.heat.limitC);
  const material =
    materials[
      pick(
        materials.map((item) => (item.id === 'PLA' ? 4 : 1)),
        random,
      )
    ]?.id;
  const blank: Case = { machine, catalogue, material, weeksLoaded: Math.floor(random() * 8), symptoms: [], before: [] };
  const route = routeOf(machine);
  const causes = causesOf(blank, route);
  const drawn = causes[pick(priorOf(causes), random)];
  if (!drawn) return { kase: blank };
  const cause: Cause = { ...drawn, mode: manifest(drawn.mode, random) };
  const onset =
    catalogue.onsets[
      pick(
        catalogue.onsets.map(({ id }) => onsetLikelihood(catalogue, cause.mode, id)),
        random,
      )
    ]?.id;
  const symptoms = catalogue.symptoms
    .filter(({ id }) => random() < symptomLikelihood(catalogue, id, cause))
    .map(({ id }) => id);
  return { kase: { ...blank, symptoms, ...(random() < 0.8 ? { onset } : {}) }, cause };
}

export interface Tally {
  /** Bench minutes to a proved repair: hands-on in full, waiting at half. */
  readonly minutes: number;
  readonly checks: number;
  readonly repairs: number;
  readonly rightFirst: boolean;
  /** Parts taken off at stations that were not at fault. */
  readonly openedForNothing: number;
}

const sits = (cause: Cause | undefined, station: string): boolean => cause?.stop.station.id === station;

/** Follows the tracer's advice to a proved repair. */
export function followTracer(hidden: HiddenOrder, random: Random): Tally {
  const { machine, catalogue } = hidden.kase;
  const route = routeOf(machine);
  const material = materialOf(catalogue, hidden.kase.material);
  const findings: Finding[] = [];
  let failed: FailedRepair[] = [];
  let bench: Bench = { temperatureC: machine.heat.ambientC, power: 'off', off: new Set() };
  let minutes = 0;
  let checks = 0;
  let repairs = 0;
  let rightFirst = false;
  const opened = new Set<string>();
  const causes = causesOf(hidden.kase, route);
  const places = checksFor(catalogue, machine, route);
  const byKey = new Map(places.map((place) => [place.key, place]));
  let model: Model = modelOf(hidden.kase, route, causes, places);

  for (let turn = 0; turn < 60; turn++) {
    const kase = { ...hidden.kase, failed };
    const evidence = evidenceOf(kase, causes, byKey, findings);
    const p = posterior(model.prior, evidence);
    const decision = decide(model, p, bench, evidence, new Set(findings.map((finding) => finding.key)), new Set());
    const best = decision.checks[0];
    if (decision.advice === 'check' && best) {
      const answers = model.outcomes[best.index] ?? [];
      const { cause } = hidden;
      const odds = answers.map((item, o) =>
        cause
          ? outcomeProbability(catalogue, best.place, item, cause)
          : (model.likelihood[best.index]?.[o]?.[causes.length] ?? 0),
      );
      const answer = answers[pick(odds, random)];
      if (!answer) throw new Error(`${best.place.key} has no answers`);
      const value =
        answer.low === undefined || answer.high === undefined
          ? {}
          : { value: answer.low + random() * (answer.high - answer.low) };
      findings.push({ id: `f${turn}`, key: best.place.key, result: answer.result, ...value });
      best.price.opened.forEach((id) => opened.add(id));
      minutes += best.checkMinutes;
      bench = best.price.after;
      checks++;
      continue;
    }
    const group = model.groups[decision.repairOrder[0] ?? -1];
    const share = group ? group.causes.reduce((sum, i) => sum + (p[i] ?? 0), 0) : 0;
    if (!group || share < (p.at(-1) ?? 0) / 4) break;
    repairs++;
    const right = sits(hidden.cause, group.station.id);
    if (repairs === 1) rightFirst = right;
    const price = priceOf(machine, bench, group.need);
    price.opened.forEach((id) => opened.add(id));
    minutes += benchMinutes(price) + remedyMinutes(group.remedy) + PROOF_MIN;
    bench = price.after;
    const cures = right && hidden.cause?.mode.remedies.includes(group.remedy.id) ? group.remedy.cures : 0;
    if (random() < cures) return finish(true);
    failed = [
      ...failed,
      {
        id: `r${turn}`,
        station: group.station.id,
        mode: causes[group.causes[0] ?? 0]?.mode.id ?? '',
        remedies: [group.remedy.id],
      },
    ];
    model = { ...model, groups: modelOf({ ...kase, failed }, route, causes, []).groups };
  }
  minutes += ELSEWHERE_MIN;
  return finish(false);

  function finish(found: boolean): Tally {
    const closing = [...bench.off].reduce(
      (sum, id) => sum + (machine.parts.find((part) => part.id === id)?.minutesOn ?? 0),
      0,
    );
    const cause = hidden.cause;
    const needed = new Set(
      cause
        ? rungsFor(catalogue, cause, material).flatMap(() => [
            ...(cause.stop.station.access?.open ?? []),
            ...(cause.stop.station.access?.mouth ?? []),
          ])
        : [],
    );
    const openedForNothing = [...opened].filter((id) => !needed.has(id)).length;
    return { minutes: minutes + closing, checks, repairs, rightFirst: found && rightFirst, openedForNothing };
  }
}

/** A fixed order of renewing things, whatever was found. Each entry renews every cause at the stations of these kinds. */
export interface Habit {
  readonly id: string;
  readonly name: string;
  readonly kinds: readonly (readonly string[])[];
}

export const HABITS: readonly Habit[] = [
  {
    id: 'filament-first',
    name: 'filament, then nozzle, then extruder parts, then tube',
    kinds: [
      ['spool'],
      ['nozzle'],
      ['extruder', 'guide-tube'],
      ['tube', 'coupler', 'hub-port', 'heat-break'],
      ['heat-sink', 'heat-block'],
      ['hub', 'sensor', 'cutter'],
      ['buffer', 'gate'],
      ['job'],
    ],
  },
];

/** Swapping or renewing cures what it takes away this often (as the catalogue's swaps). */
const RENEWAL_CURES = 0.95;

/** Minutes to renew or set right what a station carries: its last, surest remedy, which is what a habit goes to. */
function renewal(kase: Case, kind: string): number {
  const modes = kase.catalogue.modes.filter((mode) => kind in mode.where);
  const last = modes
    .flatMap((mode) => mode.remedies.slice(-1))
    .map((id) => kase.catalogue.remedies.find((remedy) => remedy.id === id));
  const minutes = last
    .filter((remedy) => remedy !== undefined)
    .map(remedyMinutes)
    .sort((a, b) => a - b);
  return minutes[Math.floor(minutes.length / 2)] ?? 5;
}

/** Works through a fixed habit to a proved repair, closing and proving after each step. */
export function followHabit(habit: Habit, hidden: HiddenOrder, random: Random): Tally {
  const { machine } = hidden.kase;
  const route = routeOf(machine);
  const material = materialOf(hidden.kase.catalogue, hidden.kase.material);
  const hotC = Math.min(material.printC, machine.heat.limitC);
  let bench: Bench = { temperatureC: machine.heat.ambientC, power: 'off', off: new Set() };
  let minutes = 0;
  let repairs = 0;
  let openedForNothing = 0;
  for (const kinds of habit.kinds) {
    const stops = route.stops.filter((stop) => kinds.includes(stop.station.kind));
    if (stops.length === 0) continue;
    repairs++;
    const parts = [...new Set(stops.flatMap((stop) => stop.station.access?.open ?? []))];
    const price = priceOf(machine, bench, { heat: 'any', power: 'any', parts, hotC });
    const work = [...new Set(stops.map((stop) => stop.station.kind))].reduce(
      (sum, kind) => sum + renewal(hidden.kase, kind),
      0,
    );
    minutes += benchMinutes(price) + price.closingMin + work;
    const proof = priceOf(machine, { ...price.after, off: new Set() }, { heat: 'hot', power: 'on', parts: [], hotC });
    minutes += benchMinutes(proof) + PROOF_MIN;
    bench = proof.after;
    const right = stops.some((stop) => sits(hidden.cause, stop.station.id));
    if (right && random() < RENEWAL_CURES)
      return { minutes, checks: 0, repairs, rightFirst: repairs === 1, openedForNothing };
    if (!right) openedForNothing += price.opened.length;
  }
  return { minutes: minutes + ELSEWHERE_MIN, checks: 0, repairs, rightFirst: false, openedForNothing };
}
