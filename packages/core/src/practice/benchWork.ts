import { priceOfAll } from '../bench/action';
import { benchMinutes, closingMinutes, priceOf, type Need } from '../bench/price';
import type { Bench } from '../bench/state';
import { materialOf } from '../catalogue/index';
import type { Proved, Remedy } from '../catalogue/types';
import { routeOf, type Route } from '../path/route';
import { causesOf, type Cause } from '../observation/causes';
import type { Finding } from '../observation/context';
import {
  answersUnder,
  outcomesOf,
  overall,
  shareOfRange,
  soundAnswer,
  type Given,
  type Outcome,
} from '../observation/likelihood';
import { lookOf, type Look } from '../observation/looks';
import { canBeDone, checksFor, needOfCheck, type CheckAtPlace } from '../bench/places';
import { apartOf, foundAt, looksStraightAt } from '../decision/apart';
import { withCase, type Model } from '../decision/model';
import {
  ASKING_MIN,
  MEND_MIN,
  mendMinutes,
  remedyNeeds,
  PROOF_MIN,
  remedyMinutes,
  rungsFor,
  type RepairGroup,
} from '../decision/repairs';
import { flatLikelihood, unlistedLikelihood } from '../inference/unlisted';
import { AGAIN, chanceRemoved, removedBy } from '../inference/removal';
import { sharedError } from '../observation/witness';
import { allWays, resultShares } from '../observation/ways';
import { heatable, keepsHeatAway } from './benchHeat';
import { pick, type HiddenOrder, type Luck } from './hidden';
import { provedAfter, type ToMeet } from './proving';
import type { Answered, BenchNature, Tally } from './tally';

/** Points at which a band is looked at to draw a number from it. */
const GRID = 24;

/** A model after a repair that failed: its remedy is not offered again, and the failure is a finding. */
export function afterFailure(
  model: Model,
  group: RepairGroup,
  turn: number,
  { findings, proved }: Pick<BenchWork, 'findings' | 'proved'>,
): Model {
  const mode = model.causes[group.causes[0] ?? 0]?.mode.id ?? '';
  const failure = {
    id: `r${turn}`,
    station: group.station.id,
    mode,
    remedies: [group.remedy.id],
    after: findings.length,
    proved,
  };
  const kase = { ...model.kase, failed: [...(model.kase.failed ?? []), failure] };
  return { ...withCase(model, kase), removed: removedBy(kase, model.causes) };
}

/** A technician at a bench with a hidden fault: does what a policy says, and counts. */
export class BenchWork {
  bench: Bench;
  minutes = 0;
  repairs = 0;
  readonly findings: Finding[] = [];
  readonly stated: (readonly [number, boolean])[] = [];
  readonly route: Route;
  readonly places: readonly CheckAtPlace[];
  readonly causes: readonly Cause[];
  left: readonly Cause[];
  /** What came of the tests after the last repair. */
  proved: readonly Proved[] = [];
  private readonly hotC: number;
  /** A fault on no list has come to sight. */
  cameUpon = false;
  private rightFirst = false;
  /** Findings there were at the last repair. */
  private mendedAt = 0;
  private readonly opened = new Set<string>();
  /** By station and remedy: how often it was done. */
  private readonly done = new Map<string, number>();
  private readonly luck: { readonly place: CheckAtPlace; readonly u: number }[] = [];

  constructor(
    readonly hidden: HiddenOrder,
    private readonly draw: Luck,
    private readonly nature: BenchNature = {},
  ) {
    const { machine, lane, catalogue, material } = hidden.kase;
    this.hotC = Math.min(materialOf(catalogue, material).printC, machine.heat.limitC);
    this.route = routeOf(machine, lane);
    this.places = checksFor(hidden.kase.catalogue, machine, this.route).filter(canBeDone);
    this.bench = { temperatureC: machine.heat.ambientC, power: 'off', off: new Set() };
    this.left = hidden.faults;
    this.causes = causesOf(hidden.kase, this.route);
  }

  /** Whether it is wrong still: suspicion is of what is left, and has what a repair took away apart. */
  isWrong(cause: Cause): boolean {
    return this.left.some((fault) => fault.id === cause.id);
  }

  /** A fault on no list behaves as the engine takes it to: like one of the list, flattened, or it lies aside of the path. */
  private ofNoList(place: CheckAtPlace, outcomes: readonly Outcome[]): readonly number[] {
    const { like, truth } = this.hidden;
    const look = lookOf(place.check);
    return outcomes.map((outcome) => {
      if (place.check.asks) return 1;
      const sound = soundAnswer(place, outcome);
      if (!like) return sound;
      const flat = flatLikelihood(place) * shareOfRange(place, outcome);
      return unlistedLikelihood(overall(look, like, answersUnder(truth, place, like)(outcome)), {
        flat,
        sound,
        eye: false,
      });
    });
  }

  /** Errors repeat: a check shares its luck with earlier ones as far as their errors are shared. */
  private luckOf(place: CheckAtPlace): number {
    const witness = (at: CheckAtPlace) => ({
      same: at.key,
      method: at.check.id,
      ...(at.check.source ? { source: at.check.source } : {}),
    });
    let kin: { share: number; u: number } | undefined;
    for (const { place: earlier, u } of this.luck) {
      const share = sharedError(witness(earlier), witness(place));
      if (share > (kin?.share ?? 0)) kin = { share, u };
    }
    const again = this.findings.filter(({ key }) => key === place.key).length;
    const u =
      kin && !this.nature.independent && this.draw(`repeats ${place.key} ${again}`) < kin.share
        ? kin.u
        : this.draw(`answer ${place.key} ${again}`);
    this.luck.push({ place, u });
    return u;
  }

  /** Chance of each outcome of a check, from what the faults show. */
  private chances(place: CheckAtPlace, outcomes: ReturnType<typeof outcomesOf>): readonly number[] {
    const { truth } = this.hidden;
    const look = lookOf(place.check);
    const [a, b] = this.left;
    if (!a) return this.ofNoList(place, outcomes);
    const given = (cause: Cause) => outcomes.map(answersUnder(truth, place, cause));
    const one = given(a);
    if (!b) return one.map((g) => overall(look, a, g));
    const two = given(b);
    return one.map((g, o) => {
      const h = two[o] as Given;
      if (typeof g === 'number' && typeof h === 'number') {
        if (place.check.asks) return (g + h) / 2;
        return place.check.swap ? (o === 0 ? Math.min(g, h) : Math.max(g, h)) : g;
      }
      if (typeof g === 'number' || !look) return overall(look, b, h);
      if (typeof h === 'number') return overall(look, a, g);
      const seenB = resultShares(allWays(b.mode), look);
      return resultShares(allWays(a.mode), look).reduce(
        (sum, pA, i) => sum + pA * seenB.reduce((inner, pB, j) => inner + pB * ((i <= j ? g[i] : h[j]) ?? 0), 0),
        0,
      );
    });
  }

  /** A number within the band that came out, as the faults spread it there. */
  private reading(place: CheckAtPlace, { result, low = 0, high = 0 }: Outcome): number {
    const within = this.draw(`within ${place.key}`);
    const grid = Array.from({ length: GRID }, (_, i) => low + ((i + within) / GRID) * (high - low));
    const a = this.left[0] ?? this.hidden.like;
    const look = lookOf(place.check);
    const at = this.draw(`reading ${place.key}`);
    if (!a || !look) return grid[Math.floor(at * GRID)] ?? low;
    const under = answersUnder(this.hidden.truth, place, a);
    return (
      grid[
        pick(
          grid.map((value) => overall(look, a, under({ result, value }))),
          () => at,
        )
      ] ?? low
    );
  }

  check(place: CheckAtPlace): Answered {
    const price = priceOf(this.hidden.kase.machine, heatable(this.bench), needOfCheck(place, this.hotC));
    this.minutes += benchMinutes(price) + place.check.minutes + (place.check.risk ?? 0);
    price.opened.forEach((id) => this.opened.add(id));
    this.bench = price.after;
    const answered = this.look(place);
    this.bench = { ...this.bench, heatSpoiled: keepsHeatAway(this.findings.slice(this.mendedAt), this.places) };
    return answered;
  }

  /** What a check tells, noted; the bench is as it must be for it. */
  look(place: CheckAtPlace): Answered {
    const { catalogue } = this.hidden.kase;
    const outcomes = outcomesOf(place, this.route, catalogue);
    const chances = this.chances(place, outcomes);
    const u = this.luckOf(place);
    let index = pick(chances, () => u);
    if (this.draw(`wrong ${place.key}`) < (this.nature.wrong ?? 0))
      index = (index + 1 + Math.floor(this.draw(`noted ${place.key}`) * (outcomes.length - 1))) % outcomes.length;
    const answer = outcomes[index];
    if (!answer) throw new Error(`${place.key} has no answers`);
    const value = answer.low === undefined || answer.high === undefined ? {} : { value: this.reading(place, answer) };
    const finding: Finding = { id: `f${this.findings.length}`, key: place.key, result: answer.result, ...value };
    this.findings.push(finding);
    const { like } = this.hidden;
    this.cameUpon ||= like !== undefined && looksStraightAt(place, like.stop.index);
    return { finding, normal: index === outcomes.length - 1 };
  }

  /**
   * Does one remedy at a station and proves it. True when the machine is cured.
   *
   * @param renewed chance that it takes away whatever is wrong there; without, what the remedy is for
   */
  repair(station: string, remedy: Remedy, needs: readonly Need[], renewed?: number): boolean {
    const { machine } = this.hidden.kase;
    const failure = { id: '', station, mode: '', remedies: [remedy.id], after: 0 };
    const chance = (fault: Cause): number =>
      renewed !== undefined && fault.stop.station.id === station
        ? renewed
        : chanceRemoved(this.hidden.kase, failure, fault, this.causes);
    this.repairs++;
    this.mendedAt = this.findings.length;
    const right = this.left.some((fault) => fault.stop.station.id === station || chance(fault) > 0);
    if (this.repairs === 1) this.rightFirst = right;
    // Heat is had by then: what had been wrong with it is mended first, or with it.
    const price = priceOfAll(machine, heatable(this.bench), needs);
    price.opened.forEach((id) => this.opened.add(id));
    // What is open is closed for the proof.
    this.minutes += price.minutes + remedyMinutes(remedy) + PROOF_MIN + this.closing(price.after.off);
    this.bench = { ...price.after, off: new Set() };
    this.cure(station, remedy, chance);
    this.prove(station, remedy);
    return this.hidden.faults.length > 0 && this.left.length === 0;
  }

  /** Tests the repair. A fault aside of the path passes every test. */
  private prove(station: string, remedy: Remedy): void {
    const { truth, like } = this.hidden;
    const there = [...this.left, ...(like ? [like] : [])].map(({ stop, mode }): ToMeet => ({
      stop,
      shown: (l: Look) => resultShares(allWays(mode), l)[0] ?? 0,
    }));
    const draw = (proof: string): number => this.draw(`proof ${proof} ${this.repairs}`);
    this.proved = provedAfter(truth, this.route, { station, mode: '', remedy }, there, draw);
  }

  /** What a remedy takes away, by luck; done once more it has luck of its own, and less chance. */
  private cure(station: string, remedy: Remedy, chance: (fault: Cause) => number): void {
    const done = `${station} ${remedy.id}`;
    const before = this.done.get(done) ?? 0;
    this.done.set(done, before + 1);
    const again = before > 0 ? ` ${before}` : '';
    this.left = this.left.filter(
      (fault) => this.draw(`cured ${fault.id} ${remedy.id}${again}`) >= chance(fault) * AGAIN ** before,
    );
  }

  /** Tries a ladder of remedies for a cause, each proved, until cured or at its end. */
  ladder(cause: Cause): boolean {
    const { catalogue, machine, material } = this.hidden.kase;
    const kind = materialOf(catalogue, material);
    for (const remedy of rungsFor(catalogue, machine, this.route, cause, kind)) {
      if (this.repair(cause.stop.station.id, remedy, remedyNeeds(machine, this.route, cause, remedy, kind)))
        return true;
    }
    return false;
  }

  /** Minutes to mend all that is wrong once it is found. */
  private mending(): number {
    const { catalogue, machine, material } = this.hidden.kase;
    const kind = materialOf(catalogue, material);
    const each = this.left.map((fault) => mendMinutes(rungsFor(catalogue, machine, this.route, fault, kind)[0]));
    return each.length > 0 ? each.reduce((sum, x) => sum + x, 0) : MEND_MIN;
  }

  /** What came to sight although it is on no list is mended and proved. */
  mendSeen(): Tally {
    this.minutes += MEND_MIN + PROOF_MIN;
    return this.finish(true);
  }

  private closing(off: Iterable<string>): number {
    return closingMinutes(this.hidden.kase.machine, off);
  }

  /**
   * Takes the path apart stretch by stretch until all that is wrong has come to sight, mends and proves it. What no opening shows
   * is asked for and tried at the end: then the path was taken apart whole.
   *
   * @param answered looks that are not gone through once more; all that were done, unless a repair has changed what they show
   */
  strip(answered: ReadonlySet<string> = new Set(this.findings.map(({ key }) => key))): Tally {
    const { machine } = this.hidden.kase;
    const way = apartOf(machine, this.route, this.places, this.hotC);
    const seenAt = this.hidden.like?.stop.index;
    // What has been looked at is not gone through once more: what it hid then stays hidden.
    const sight = (place: CheckAtPlace | undefined): CheckAtPlace | undefined =>
      place && answered.has(place.key) ? undefined : place;
    const found = [
      ...this.left.map((fault) => sight(foundAt(way, fault, this.places)?.place)),
      ...(this.hidden.faults.length > 0
        ? []
        : [seenAt === undefined ? undefined : way.looks.find(({ place }) => looksStraightAt(place, seenAt))?.place]),
    ];
    const wanted = new Set(found);
    const whole = wanted.delete(undefined);
    let minutes = 0;
    for (const { place } of way.looks) {
      if (!whole && wanted.size === 0) break;
      if (answered.has(place.key)) continue;
      const price = priceOf(machine, heatable(this.bench), needOfCheck(place, this.hotC));
      minutes += benchMinutes(price) + place.check.minutes;
      price.opened.forEach((id) => this.opened.add(id));
      this.bench = price.after;
      wanted.delete(place);
    }
    minutes *= this.nature.apartFactor ?? 1;
    minutes += (whole ? ASKING_MIN : 0) + this.mending() + PROOF_MIN;
    this.minutes += minutes;
    return { ...this.finish(false), ...(whole ? { stripped: true, apartMin: minutes } : {}) };
  }

  finish(found: boolean): Tally {
    const needed = new Set(
      this.hidden.faults.flatMap(({ stop }) => [
        ...(stop.station.access?.open ?? []),
        ...(stop.station.access?.mouth ?? []),
      ]),
    );
    return {
      minutes: this.minutes + this.closing(this.bench.off),
      checks: this.findings.length,
      repairs: this.repairs,
      rightFirst: found && this.rightFirst,
      openedForNothing: [...this.opened].filter((id) => !needed.has(id)).length,
      findings: this.findings,
      stated: this.stated,
      stripped: false,
      apartMin: 0,
    };
  }
}
