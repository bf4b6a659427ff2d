import { benchMinutes, priceOf } from '../bench/price';
import { canBeDone, checksFor, needOfCheck, type CheckAtPlace } from '../bench/places';
import type { Bench } from '../bench/state';
import { deliveredCatalogue as catalogue, materialOf, remedyById } from '../catalogue/index';
import type { Proof, Proved, Remedy } from '../catalogue/types';
import { keptOf } from '../decision/kept';
import { remedyNeeds, tryMinutes } from '../decision/repairs';
import { chanceRemoved } from '../inference/removal';
import { causesOf, type Cause } from '../observation/causes';
import type { Case, FailedRepair, Finding } from '../observation/context';
import { proofReaches } from '../observation/looks';
import { machineOfFamily } from '../path/families';
import { allStations, type Machine } from '../path/machine';
import { laneRuns, routeOf, type Route } from '../path/route';
import { heatable, keepsHeatAway } from './benchHeat';
import { testsAfter } from './proving';
import type { PracticeCase, Seen, Truth } from './practiceCase';

/** A repair that was done on the case's bench. */
export interface Done {
  readonly station: string;
  readonly remedy: string;
  readonly cured: readonly string[];
  /** A part was renewed that had nothing wrong with it. */
  readonly soundRenewed: boolean;
}

/** Whether a truth would be met in a proof: by what the check that asks the same sees of it. */
function fails({ like, fails: wanted = {} }: Proof, { sees, strand }: Truth): boolean {
  const check = catalogue.checks.find(({ id }) => id === like);
  if (!check) return false;
  if (check.at === 'span' && strand) return true;
  return Object.entries(sees).some(([key, { result, also = [] }]) => {
    if (key !== check.id && !key.startsWith(`${check.id}@`)) return false;
    if (check.quantity) return true;
    return check.results.some(
      ({ id, when = {} }) =>
        (id === result || also.includes(id)) &&
        Object.entries(when).some(([dimension, values]) => values.some((v) => wanted[dimension]?.includes(v))),
    );
  });
}

const name = ({ station, mode, is }: Truth): string => `${station}/${mode ?? is ?? 'unlisted'}`;

/** The bench of one case: answers checks truthfully from what the case says, counts minutes, and keeps what is left. */
export class CaseBench {
  readonly machine: Machine;
  readonly route: Route;
  readonly places: readonly CheckAtPlace[];
  readonly causes: readonly Cause[];
  readonly findings: Finding[] = [];
  readonly failed: FailedRepair[] = [];
  readonly done: Done[] = [];
  bench: Bench;
  minutes = 0;
  /** Findings there were at the last repair. */
  private mendedAt = 0;
  left: readonly Truth[];

  constructor(readonly of: PracticeCase) {
    this.machine = machineOfFamily(of.family, of.id, of.id);
    const lane = of.lane ?? laneRuns(this.machine)[0]?.id;
    this.route = routeOf(this.machine, lane);
    this.places = checksFor(catalogue, this.machine, this.route).filter(canBeDone);
    this.causes = causesOf(this.kase(), this.route);
    this.bench = { temperatureC: this.machine.heat.ambientC, power: 'off', off: new Set() };
    this.left = of.faults;
    this.proof();
  }

  /** A case that names what is not there proves nothing. @throws Error */
  private proof(): void {
    const all = checksFor(catalogue, this.machine, this.route);
    const stations = new Set(allStations(this.machine).map(({ id }) => id));
    for (const truth of [...this.of.faults, ...(this.of.innocent ?? [])]) {
      if (!stations.has(truth.station)) throw new Error(`${this.of.id}: no station ${truth.station}`);
      if (truth.mode && !this.causes.some(({ id }) => id === `${truth.station}/${truth.mode}`))
        throw new Error(`${this.of.id}: ${name(truth)} cannot happen there`);
      for (const [key, { result, also = [] }] of Object.entries(truth.sees)) {
        const place = all.some((p) => p.key === key || p.check.id === key);
        const known = catalogue.checks.find(({ id }) => id === key.split('@')[0]);
        if (!known) throw new Error(`${this.of.id}: no check ${key}`);
        for (const id of [result, ...also])
          if (!known.results.some((r) => r.id === id)) throw new Error(`${this.of.id}: ${key} has no result ${id}`);
        if (!place && key.includes('@')) throw new Error(`${this.of.id}: no place ${key}`);
      }
    }
  }

  kase(): Case {
    const { of } = this;
    const lane = of.lane ?? laneRuns(this.machine)[0]?.id;
    const unseen =
      of.notLooked === undefined
        ? undefined
        : catalogue.symptoms
            .map(({ id }) => id)
            .filter((id) => !of.symptoms.includes(id) && !of.notLooked?.includes(id));
    const [onset, ...onsets] = of.onsets;
    const kept = keptOf(this.places, this.route, this.findings, this.failed);
    return {
      machine: this.machine,
      catalogue,
      symptoms: of.symptoms,
      before: of.before ?? [],
      failed: [...this.failed],
      ...(kept.length ? { kept } : {}),
      ...(unseen ? { unseen } : {}),
      ...(lane === undefined ? {} : { lane }),
      ...(of.material === undefined ? {} : { material: of.material }),
      ...(of.weeksLoaded === undefined ? {} : { weeksLoaded: of.weeksLoaded }),
      ...(of.hotterBefore === undefined ? {} : { hotterBefore: of.hotterBefore }),
      ...(onset === undefined ? {} : { onset }),
      ...(onsets.length ? { onsets } : {}),
      ...(of.tried ? { tried: of.tried } : {}),
      ...(of.failedAfterMinutes === undefined ? {} : { failedAfterMinutes: of.failedAfterMinutes }),
      ...(of.noticedAt === undefined ? {} : { noticedAt: of.noticedAt }),
    };
  }

  private there(): readonly Truth[] {
    return [...this.left, ...(this.of.innocent ?? [])];
  }

  private index(station: string): number {
    return this.route.stops.find((stop) => stop.station.id === station)?.index ?? -1;
  }

  /** What the case says of a check at a place; undefined where it looks sound. */
  private said(place: CheckAtPlace): readonly Seen[] {
    // A look that takes in the neighbours sees what there is to be seen there.
    const near = (sees: Truth['sees']): Seen | undefined =>
      place.check.reach === 'near'
        ? Object.entries(sees).find(([key]) => {
            const [check, station = ''] = key.split('@');
            return check === place.check.id && place.reach.has(this.index(station));
          })?.[1]
        : undefined;
    return this.there().flatMap(({ sees }) => sees[place.key] ?? sees[place.check.id] ?? near(sees) ?? []);
  }

  /** A strand pushed in cold: the first thing that stops it, otherwise what drags. */
  private pushed(place: CheckAtPlace): Seen | undefined {
    const met = this.there()
      .filter(({ station, strand }) => strand && place.reach.has(this.index(station)))
      .sort((a, b) => this.index(a.station) - this.index(b.station));
    const first = met.find(({ strand }) => strand?.how !== 'drags') ?? met[0];
    if (!first?.strand) return undefined;
    if (first.strand.how !== 'stops') return { result: first.strand.how };
    const stop = this.route.stops[this.index(first.station)];
    if (!stop) return undefined;
    const at = stop.fromMm + (first.strand.at ?? 0.5) * (stop.toMm - stop.fromMm);
    return { result: 'stops', value: Math.max(0, Math.round(at - (place.entryMm ?? 0))) };
  }

  private swapped(place: CheckAtPlace): Seen {
    const [told] = this.said(place);
    if (told) return told;
    const [cured, same] = place.check.results;
    const inside = this.left.every(
      ({ station, mode }) =>
        place.reach.has(this.index(station)) ||
        catalogue.modes.find(({ id }) => id === mode)?.curedBySwap?.includes(place.check.id),
    );
    return { result: (inside ? cured?.id : same?.id) ?? '' };
  }

  /** What a careful technician would see at this place now. */
  answer(place: CheckAtPlace): Seen {
    const { check } = place;
    if (check.swap) return this.swapped(place);
    if (check.asks) return { result: this.of.onsets[0] ?? 'not-sure' };
    const said = this.said(place);
    const pushed = check.at === 'span' && said.length === 0 ? this.pushed(place) : undefined;
    if (pushed) return pushed;
    const normal = check.results.at(-1)?.id ?? '';
    if (said.length === 0)
      return check.quantity
        ? { result: normal, value: (place.normal ?? check.quantity.normal).mean }
        : { result: normal };
    const all = new Set(said.flatMap(({ result, also = [] }) => [result, ...also]));
    const [first = normal, ...also] = check.results.filter(({ id }) => all.has(id)).map(({ id }) => id);
    const value = said.find((one) => one.result === first)?.value;
    return {
      result: first,
      ...(check.items && also.length ? { also } : {}),
      ...(value === undefined ? {} : { value }),
    };
  }

  /** What a technician recognises in a look at this place: the fault itself, or an oddity taken for one. */
  truthSeen(place: CheckAtPlace): Truth | undefined {
    return this.there().find(({ sees }) => sees[place.key] !== undefined || sees[place.check.id] !== undefined);
  }

  abnormal(place: CheckAtPlace, { result, value }: Seen): boolean {
    const { check } = place;
    if (check.asks || check.swap) return false;
    const { quantity } = check;
    if (!quantity) return result !== check.results.at(-1)?.id;
    const normal = place.normal ?? quantity.normal;
    return value !== undefined && Math.abs(value - normal.mean) > 3 * normal.sd;
  }

  check(place: CheckAtPlace): Seen {
    const hotC = Math.min(materialOf(catalogue, this.of.material).printC, this.machine.heat.limitC);
    const price = priceOf(this.machine, heatable(this.bench), needOfCheck(place, hotC));
    this.minutes += benchMinutes(price) + place.check.minutes;
    const seen = this.look(place);
    this.bench = { ...price.after, heatSpoiled: keepsHeatAway(this.findings.slice(this.mendedAt), this.places) };
    return seen;
  }

  /** What is seen at a place, noted; the bench is as it must be for it. */
  look(place: CheckAtPlace): Seen {
    const seen = this.answer(place);
    this.findings.push({
      id: `f${String(this.findings.length).padStart(2, '0')}`,
      key: place.key,
      ...seen,
      ...(place.check.items ? { finished: true } : {}),
    });
    return seen;
  }

  /** Does one remedy at a station and proves it. True when nothing that matters is left. */
  repair(station: string, mode: string, remedy: Remedy): boolean {
    const cause = this.causes.find(({ stop }) => stop.station.id === station);
    if (!cause) throw new Error(`${this.of.id}: nothing can fail at ${station}`);
    const material = materialOf(catalogue, this.of.material);
    const needs = remedyNeeds(this.machine, this.route, cause, remedy, material);
    const group = { id: '', station: cause.stop.station, remedy, causes: [], needs, laterMin: 0 };
    this.minutes += tryMinutes(this.machine, [group], heatable(this.bench))[0] ?? 0;
    this.mendedAt = this.findings.length;
    this.bench = { ...heatable(this.bench), off: new Set(), power: 'on', temperatureC: material.printC };
    return this.cure(station, mode, remedy);
  }

  /** What a remedy at a station takes away, and whether nothing that matters is left; its work and its proof are done. */
  cure(station: string, mode: string, remedy: Remedy): boolean {
    const failure = { id: `r${this.done.length}`, station, mode, remedies: [remedy.id], after: this.findings.length };
    const gone = this.there().filter((truth) => {
      if (truth.vain?.includes(remedy.id)) return false;
      const own = this.causes.find(({ id }) => id === `${truth.station}/${truth.mode}`);
      return own !== undefined && chanceRemoved(this.kase(), failure, own, this.causes) >= 0.4;
    });
    this.done.push({
      station,
      remedy: remedy.id,
      cured: gone.map(name),
      soundRenewed: remedy.replaces !== undefined && gone.length === 0,
    });
    this.left = this.left.filter((truth) => !gone.includes(truth));
    if (this.left.length > 0) {
      const proved = this.proved(station, mode, remedy);
      this.failed.push({ ...failure, ...(proved.length ? { proved } : {}) });
    }
    return this.left.length === 0;
  }

  /** Proofs after a repair, smallest first, up to the one that fails. */
  private proved(station: string, mode: string, remedy: Remedy): readonly Proved[] {
    const at = this.index(station);
    const list: Proved[] = [];
    for (const proof of testsAfter(catalogue, this.route, { station, mode, remedy })) {
      if (!proof.like) continue;
      const met = this.there().some((truth) => {
        const stop = this.route.stops[this.index(truth.station)];
        return stop !== undefined && proofReaches(proof, at, stop) && fails(proof, truth);
      });
      list.push({ proof: proof.id, passed: !met });
      if (met) break;
    }
    return list;
  }

  remedy(id: string): Remedy {
    const found = remedyById(catalogue, id);
    if (!found) throw new Error(`no remedy ${id}`);
    return found;
  }
}
