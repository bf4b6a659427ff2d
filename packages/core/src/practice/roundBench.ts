import { limitsOf } from '../bench/action';
import { canBeDone, checksFor, type CheckAtPlace } from '../bench/places';
import { deliveredCatalogue, materialOf } from '../catalogue/index';
import type { Catalogue, Remedy } from '../catalogue/types';
import { remedyNeeds } from '../decision/repairs';
import type { Cause } from '../observation/causes';
import type { Case, FailedRepair, Finding } from '../observation/context';
import { machineOfFamily } from '../path/families';
import type { Machine } from '../path/machine';
import type { Route } from '../path/route';
import { BenchWork } from './benchWork';
import { CaseBench } from './caseBench';
import { drawOrder, type Luck } from './hidden';
import type { PracticeCase, Truth } from './practiceCase';

/** What is hidden in a round: a case from practice, or a fault drawn from the catalogue by a seed. */
export type Hidden =
  | { readonly from: 'case'; readonly case: PracticeCase }
  | { readonly from: 'catalogue'; readonly family: string; readonly seed: number };

/** A machine with a hidden fault that answers every check; who works on it decides what is looked at and what is done. */
export interface RoundBench {
  readonly machine: Machine;
  readonly route: Route;
  readonly causes: readonly Cause[];
  readonly catalogue: Catalogue;
  /** What was wrong from the beginning. */
  readonly faults: readonly Truth[];
  /** What the owner tells, with the repairs that were in vain. */
  kase(): Case;
  findings(): readonly Finding[];
  /** Looks at a place; the finding is noted. */
  look(place: CheckAtPlace): Finding;
  /** Does a remedy at a station; what it took away, by station and mode. */
  repair(station: string, mode: string, remedy: Remedy): readonly string[];
  /** Whether anything is left that matters. */
  cured(): boolean;
  /** What happened, in the words of the case; absent where it was drawn. */
  readonly story?: string;
  readonly reason?: string;
}

class FromCase implements RoundBench {
  private readonly work: CaseBench;
  readonly catalogue = deliveredCatalogue;
  readonly machine: Machine;
  readonly route: Route;
  readonly causes: readonly Cause[];
  readonly faults: readonly Truth[];
  readonly story: string;
  readonly reason: string;

  constructor(of: PracticeCase) {
    this.work = new CaseBench(of);
    const { machine, route, causes } = this.work;
    this.machine = machine;
    this.route = route;
    this.causes = causes;
    this.faults = of.faults;
    this.story = of.story;
    this.reason = of.reason;
  }

  kase(): Case {
    return this.work.kase();
  }
  findings(): readonly Finding[] {
    return this.work.findings;
  }
  look(place: CheckAtPlace): Finding {
    this.work.look(place);
    return this.work.findings.at(-1) as Finding;
  }
  repair(station: string, mode: string, remedy: Remedy): readonly string[] {
    this.work.cure(station, mode, remedy);
    return this.work.done.at(-1)?.cured ?? [];
  }
  cured(): boolean {
    return this.work.left.length === 0;
  }
}

/** Uniform on [0, 1) from a seed and what it is drawn for (FNV-1a, then the finaliser of MurmurHash3). */
const luckOf =
  (seed: number): Luck =>
  (what) => {
    let hash = 0x811c9dc5 ^ seed;
    for (let i = 0; i < what.length; i++) hash = Math.imul(hash ^ what.charCodeAt(i), 0x01000193);
    hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b);
    hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35);
    return ((hash ^ (hash >>> 16)) >>> 0) / 4294967296;
  };

/** Draws are repeated until something is wrong that is on the list. */
const MOST_DRAWS = 50;

class FromCatalogue implements RoundBench {
  private readonly work: BenchWork;
  private readonly failed: FailedRepair[] = [];
  readonly catalogue = deliveredCatalogue;
  readonly machine: Machine;
  readonly route: Route;
  readonly causes: readonly Cause[];
  readonly faults: readonly Truth[];

  constructor(family: string, seed: number) {
    this.machine = machineOfFamily(family, `practice-${family}`, family);
    let draws = 0;
    const luck = luckOf(seed);
    const random = (): number => luck(`draw ${draws++}`);
    let hidden = drawOrder(this.machine, this.catalogue, random);
    for (let i = 0; i < MOST_DRAWS && hidden.faults.length === 0; i++)
      hidden = drawOrder(this.machine, this.catalogue, random);
    this.work = new BenchWork(hidden, luck);
    this.route = this.work.route;
    this.causes = this.work.causes;
    this.faults = hidden.faults.map(({ stop, mode }) => ({ station: stop.station.id, mode: mode.id, sees: {} }));
  }

  kase(): Case {
    return { ...this.work.hidden.kase, failed: this.failed };
  }
  findings(): readonly Finding[] {
    return this.work.findings;
  }
  look(place: CheckAtPlace): Finding {
    return this.work.look(place).finding;
  }
  repair(station: string, mode: string, remedy: Remedy): readonly string[] {
    const cause = this.causes.find(({ stop }) => stop.station.id === station);
    if (!cause) throw new RangeError(`Nothing can fail at ${station}.`);
    const material = materialOf(this.catalogue, this.work.hidden.kase.material);
    const before = this.work.left;
    this.work.repair(station, remedy, remedyNeeds(this.machine, this.route, cause, remedy, material));
    const gone = before.filter((fault) => !this.work.left.includes(fault)).map(({ id }) => id);
    if (!this.cured())
      this.failed.push({
        id: `r${this.failed.length}`,
        station,
        mode,
        remedies: [remedy.id],
        after: this.work.findings.length,
        proved: this.work.proved,
      });
    return gone;
  }
  cured(): boolean {
    return this.work.left.length === 0;
  }
}

/** The bench of a round. @throws Error when a case names what its machine has not */
export const benchOf = (hidden: Hidden): RoundBench =>
  hidden.from === 'case' ? new FromCase(hidden.case) : new FromCatalogue(hidden.family, hidden.seed);

/** Print heat of the round's filament on its path, °C. */
export const printHeatOf = (bench: RoundBench): number =>
  Math.round(
    Math.min(materialOf(bench.catalogue, bench.kase().material).printC, limitsOf(bench.machine, bench.route).longC),
  );

/** The checks that can be done on the machine of a round. */
export const placesOf = ({ catalogue, machine, route }: RoundBench): readonly CheckAtPlace[] =>
  checksFor(catalogue, machine, route).filter(
    (place) => canBeDone(place) && !place.check.asks && !place.check.intake && !place.check.history,
  );
