import {
  deliveredCatalogue as catalogue,
  ELSEWHERE_MIN,
  materialOf,
  overall,
  answersUnder,
  itemLook,
  resultShares,
  allWays,
  lookOf,
  rungsFor,
  type CheckAtPlace,
} from '@zealous/core';
import { CaseBench, type PracticeCase, type Seen } from '@zealous/core/practice';

/**
 * A competent technician, as fairly as can be written: begins with the complaint, outside and cheap before anything is opened;
 * then halves the path with a strand; opens where it stopped; repairs what was seen, by the usual first remedy; proves, and goes
 * on with the list where it is not cured; at its end takes everything apart. Knows what each look is for, and has no numbers.
 */

/** Looks by complaint, in the order in which the trade takes them. */
const LISTS: readonly { readonly when: readonly string[]; readonly checks: readonly string[] }[] = [
  { when: ['heat-error', 'not-hot'], checks: ['watch-temp', 'look-joint', 'look-leads', 'ohms', 'heater-ohms'] },
  {
    when: ['reads-wrong', 'pulls-on'],
    checks: ['sensor-signal', 'swap-spool', 'watch-lever', 'look-cable', 'follow-tube', 'look-buffer'],
  },
  { when: ['leak'], checks: ['look-joint', 'look-threads', 'look-nozzle'] },
  { when: ['fan-odd'], checks: ['feel-fan', 'sink-temp', 'look-soft'] },
  { when: ['specks'], checks: ['free-air', 'feed-by-hand', 'look-nozzle', 'look-break'] },
  { when: ['leans'], checks: ['free-air', 'look-nozzle'] },
  { when: ['bubbles'], checks: ['free-air', 'bend-piece', 'swap-spool'] },
  { when: ['bunches', 'soft-fails'], checks: ['compare-profile', 'look-guide-tube', 'look-gears'] },
  {
    when: ['not-reach', 'wont-withdraw', 'snapped', 'some-loads', 'grip-retry', 'tube-moves'],
    checks: [
      'turn-spool',
      'watch-feeder',
      'follow-tube',
      'look-lanes',
      'bend-piece',
      'look-guide',
      'sight',
      'look-hub',
      'tug',
      'cover-flex',
      'pull-strand',
      'HALVE',
      'compare-settings',
      'look-tip',
      'look-cutter',
      'watch-lever',
      'look-gears',
    ],
  },
  {
    when: ['stops-midway'],
    checks: [
      'turn-spool',
      'feel-fan',
      'sink-temp',
      'motor-temp',
      'look-soft',
      'read-print',
      'compare-settings',
      'watch-temp',
      'listen',
      'look-gears',
    ],
  },
  {
    when: ['strings'],
    checks: ['tug', 'pen-mark', 'free-air', 'free-tube'],
  },
  {
    when: ['nothing', 'clicks', 'thin', 'notch'],
    checks: [
      'turn-spool',
      'feeder-follows',
      'listen',
      'free-air',
      'feel-fan',
      'compare-settings',
      'compare-profile',
      'read-print',
      'feed-100',
      'tug',
      'feed-by-hand',
      'needle',
      'HALVE',
      'look-soft',
      'look-gears',
      'probe-temp',
      'look-nozzle',
      'look-break',
      'free-tube',
    ],
  },
];
const REST = [
  'turn-spool',
  'watch-feeder',
  'look-guide',
  'sight',
  'tug',
  'HALVE',
  'listen',
  'free-air',
  'feel-fan',
  'look-joint',
  'look-gears',
  'lift-hub',
  'watch-lever',
  'free-tube',
  'look-buffer',
  'look-roller',
  'look-guides',
  'look-soft',
  'look-nozzle',
  'look-break',
  'look-cutter',
];
/** Looks at the whole path that name one thing. */
const SPECIFIC = [
  'look-joint',
  'look-threads',
  'bend-piece',
  'read-print',
  'watch-temp',
  'probe-temp',
  'compare-settings',
  'compare-profile',
];
const TELLING: Readonly<Record<string, readonly string[]>> = {
  'free-air': ['leans', 'bubbles'],
  listen: ['dead', 'backward', 'idles'],
  'swap-spool': ['cured'],
};
/** What opens a place, by its kind. */
const OPENS: Readonly<Record<string, string>> = {
  gate: 'look-roller',
  buffer: 'look-buffer',
  sensor: 'watch-lever',
  tube: 'free-tube',
  coupler: 'free-tube',
  'hub-port': 'free-tube',
  hub: 'lift-hub',
  cutter: 'look-cutter',
  extruder: 'look-gears',
  'guide-tube': 'look-guide-tube',
  'heat-break': 'look-break',
  nozzle: 'look-nozzle',
};

export interface TechnicianPlayed {
  readonly id: string;
  readonly minutes: number;
  readonly checks: number;
  readonly repairs: number;
  readonly soundRenewed: number;
  readonly stripped: boolean;
}

class Technician {
  private readonly did = new Set<string>();

  constructor(private readonly work: CaseBench) {}

  private chance(place: CheckAtPlace, seen: Seen, index: number): number {
    const cause = this.work.causes[index];
    if (!cause || !place.reach.has(cause.stop.index)) return 0;
    if (place.check.items) {
      const ids = [seen.result, ...(seen.also ?? [])];
      return Math.max(
        ...place.check.results
          .filter(({ id }) => ids.includes(id))
          .map((r) => resultShares(allWays(cause.mode), itemLook(r))[0] ?? 0),
      );
    }
    return overall(lookOf(place.check), cause, answersUnder(catalogue, place, cause)(seen));
  }

  /** Repairs what a look showed: what is there is recognised; otherwise the usual fault that looks so. True when cured. */
  private mend(place: CheckAtPlace, seen: Seen): boolean {
    const { work } = this;
    const { reach, id } = place.check;
    const tells = TELLING[id]?.includes(seen.result) || SPECIFIC.includes(id);
    if (reach !== 'station' && reach !== 'near' && !tells) return false;
    const truth = work.truthSeen(place);
    if (truth?.mode !== undefined) return this.repairOf(truth.station, truth.mode);
    const ranked = work.causes
      .map((cause, i) => ({ cause, w: this.chance(place, seen, i) * cause.weight }))
      .filter(({ w }) => w > 1e-3)
      .sort((a, b) => b.w - a.w);
    const best = ranked[0]?.cause;
    return best ? this.repairOf(best.stop.station.id, best.mode.id) : false;
  }

  /** The remedies in their usual order, each proved, three at most. */
  private repairOf(station: string, mode: string): boolean {
    const { work } = this;
    for (let n = 0; n < 3; n++) {
      const cause = work.causes.find((item) => item.id === `${station}/${mode}`);
      if (!cause) return false;
      const kind = materialOf(catalogue, work.of.material);
      const first = rungsFor(catalogue, work.machine, work.route, cause, kind, work.failed)[0];
      if (!first) return false;
      if (work.repair(station, mode, first)) return true;
      if (work.done.at(-1)?.cured.length) return false;
    }
    return false;
  }

  private look(place: CheckAtPlace): boolean {
    this.did.add(place.key);
    const seen = this.work.check(place);
    return this.work.abnormal(place, seen) && this.mend(place, seen);
  }

  /** Pushes a strand through halves of the path; where it stops, the place is opened. */
  private halve(): boolean {
    const { work } = this;
    const pushes = work.places.filter(({ check }) => check.id === 'push-strand');
    if (pushes.length === 0) return false;
    const whole = [...pushes].sort((a, b) => b.reach.size - a.reach.size)[0] as CheckAtPlace;
    let [low, high] = [Math.min(...whole.reach), Math.max(...whole.reach)];
    for (let n = 0; n < 3; n++) {
      const middle = (low + high) / 2;
      const next = pushes
        .filter((p) => !this.did.has(p.key) && Math.min(...p.reach) >= low && Math.max(...p.reach) <= high)
        .sort(
          (a, b) =>
            Math.abs(Math.max(...a.reach) - middle) - Math.abs(Math.max(...b.reach) - middle) ||
            a.reach.size - b.reach.size,
        )[0];
      if (!next) break;
      this.did.add(next.key);
      const seen = work.check(next);
      if (seen.result === 'stops' && seen.value !== undefined) return this.openAt((next.entryMm ?? 0) + seen.value);
      if (seen.result === 'passes') low = Math.max(...next.reach) + 1;
      else [low, high] = [Math.min(...next.reach), Math.max(...next.reach)];
      if (low > high) break;
    }
    return false;
  }

  private openAt(mm: number): boolean {
    const { route, places } = this.work;
    const at = route.stops.find((stop) => mm >= stop.fromMm - 5 && mm <= stop.toMm + 5) ?? route.stops.at(-2);
    const near = route.stops.filter((stop) => at && Math.abs(stop.index - at.index) <= 1);
    for (const stop of [at, ...near]) {
      const place =
        stop && places.find((p) => p.check.id === OPENS[stop.station.kind] && p.station === stop.station.id);
      if (place && !this.did.has(place.key) && this.look(place)) return true;
    }
    return false;
  }

  private through(list: readonly string[]): boolean {
    for (const id of list) {
      if (id === 'HALVE') {
        if (this.halve()) return true;
        continue;
      }
      for (const place of this.work.places.filter((p) => p.check.id === id && !this.did.has(p.key)))
        if (this.look(place)) return true;
    }
    return false;
  }

  follow(): TechnicianPlayed {
    const { work } = this;
    const lists = LISTS.filter(({ when }) => when.some((symptom) => work.of.symptoms.includes(symptom)));
    const cured = lists.some(({ checks }) => this.through(checks)) || this.through(REST);
    if (!cured) work.minutes += ELSEWHERE_MIN;
    return {
      id: work.of.id,
      minutes: work.minutes,
      checks: work.findings.length,
      repairs: work.done.length,
      soundRenewed: work.done.filter((done) => done.soundRenewed).length,
      stripped: !cured,
    };
  }
}

/** Whether a check is among the first that the trade would take for these complaints, outside and cheap or halving the path. */
export const tradeBeginsWith = (of: PracticeCase, check: string): boolean =>
  LISTS.filter(({ when }) => when.some((symptom) => of.symptoms.includes(symptom))).some(({ checks }) =>
    checks.slice(0, 5).some((id) => id === check || (id === 'HALVE' && check === 'push-strand')),
  );

export const playTechnician = (of: PracticeCase): TechnicianPlayed => new Technician(new CaseBench(of)).follow();
