import { checksFor, isAbnormal, needOfCheck } from '../bench/places';
import { benchMinutes, priceOf } from '../bench/price';
import type { Bench } from '../bench/state';
import { carried } from '../decision/advise';
import { answeredKeys } from '../decision/answered';
import { decide, type Decision } from '../decision/decide';
import { modelOf, type Model } from '../decision/model';
import { tryMinutes } from '../decision/repairs';
import { evidenceOf } from '../inference/evidenceOf';
import { weigh, type Suspicion } from '../inference/suspicion';
import { benchMinutesOf, findingWords, playRound, type RoundEntry, type RoundPlayed, type RoundState } from './round';
import { benchOf, printHeatOf, type Hidden, type RoundBench } from './roundBench';

/** One step of a way to the repair, the learner's or the tracer's. */
export interface WayStep {
  readonly kind: 'look' | 'repair' | 'ready' | 'other';
  readonly name: string;
  /** Of a look: what was found. */
  readonly found?: string;
  readonly abnormal?: boolean;
  /** Of a repair: whether it took something away. */
  readonly helped?: boolean;
  readonly minutes: number;
}

/** What a look or repair of the learner was worth when it was chosen. */
export interface Worth {
  /** Place in the list of moves. */
  readonly entry: number;
  readonly name: string;
  /** Expected minutes to a proved repair from there, beginning with it; absent where it could teach nothing. */
  readonly expected?: number;
  /** What would have been best there, and its expected minutes. */
  readonly best: string;
  readonly bestExpected: number;
  /** Of a look: what it could tell of the fault, in bits. Of a repair: how likely it was that its fault was there. */
  readonly bits?: number;
  readonly carried?: number;
}

export interface RoundReview {
  readonly tracer: readonly WayStep[];
  readonly tracerMinutes: number;
  readonly tracerCured: boolean;
  readonly own: readonly WayStep[];
  readonly ownMinutes: number;
  readonly worth: readonly Worth[];
  /** Where the learner's minutes went. */
  readonly spent: {
    readonly ready: number;
    readonly waiting: number;
    readonly looks: number;
    readonly repairs: number;
  };
}

/** A tracer that has not come to an end by then gives up (chosen). */
const MOST_TURNS = 30;

interface Standing {
  readonly model: Model;
  readonly suspicion: Suspicion;
  readonly decision: Decision;
}

/** What the tracer thinks of a bench as it stands. */
function standing(bench: RoundBench, at: Bench, depth: 1 | 2, also: readonly string[] = []): Standing {
  const { machine, route, causes, catalogue } = bench;
  const kase = bench.kase();
  const places = checksFor(catalogue, machine, route);
  const model = modelOf(kase, route, causes, places);
  const evidence = evidenceOf(kase, causes, new Map(places.map((place) => [place.key, place])), bench.findings());
  const suspicion = weigh(causes, model.prior, evidence, model.removed);
  const answered = answeredKeys(model, bench.findings());
  const decision = decide(model, suspicion, at, evidence, new Set(), answered, { depth, also, quick: depth === 1 });
  return { model, suspicion, decision };
}

const remedyName = (bench: RoundBench, station: string, name: string): string =>
  `${name}, ${bench.route.stops.find((stop) => stop.station.id === station)?.station.name ?? station}`;

const repairOf = ({ model, decision }: Standing) => model.groups[decision.repairOrder[0] ?? -1];

/** The best next thing, in words, with the minutes it promises. */
function bestOf(now: Standing, bench: RoundBench): { readonly name: string; readonly minutes: number } {
  const check = now.decision.checks.find(({ done }) => !done);
  if (now.decision.advice === 'check' && check) return { name: check.place.name, minutes: check.expectedMinutes };
  const group = repairOf(now);
  return {
    name: group ? remedyName(bench, group.station.id, group.remedy.name) : 'Ask: it is on no list',
    minutes: now.decision.repairMinutes,
  };
}

/** The tracer on the same hidden fault, from the beginning. */
function tracerWay(hidden: Hidden, onStep: () => void): Pick<RoundReview, 'tracer' | 'tracerMinutes' | 'tracerCured'> {
  const bench = benchOf(hidden);
  const { machine, catalogue } = bench;
  const hotC = printHeatOf(bench);
  let at: Bench = { temperatureC: machine.heat.ambientC, power: 'off', off: new Set() };
  const steps: WayStep[] = [];
  for (let turn = 0; turn < MOST_TURNS && !bench.cured(); turn++) {
    onStep();
    const now = standing(bench, at, 2);
    const check = now.decision.checks.find(({ done }) => !done);
    if (now.decision.advice === 'check' && check) {
      const { place } = check;
      const price = priceOf(machine, at, needOfCheck(place, hotC));
      at = price.after;
      const finding = bench.look(place);
      steps.push({
        kind: 'look',
        name: place.name,
        found: findingWords(catalogue, place, finding),
        abnormal: isAbnormal(place.check, finding.result),
        minutes: benchMinutes(price) + place.check.minutes,
      });
      continue;
    }
    const group = repairOf(now);
    if (!group) {
      steps.push({
        kind: 'other',
        name: 'On no list: taken apart whole, and asked',
        minutes: now.decision.repairMinutes,
      });
      break;
    }
    const minutes = tryMinutes(machine, [group], at)[0] ?? 0;
    const { share } = now.suspicion;
    const lead = [...group.causes].sort((a, b) => (share[b] ?? 0) - (share[a] ?? 0))[0] ?? -1;
    const gone = bench.repair(group.station.id, bench.causes[lead]?.mode.id ?? '', group.remedy);
    at = { ...at, off: new Set(), power: 'on', temperatureC: hotC };
    steps.push({
      kind: 'repair',
      name: remedyName(bench, group.station.id, group.remedy.name),
      helped: gone.length > 0,
      minutes,
    });
  }
  return {
    tracer: steps,
    tracerMinutes: steps.reduce((sum, { minutes }) => sum + minutes, 0),
    tracerCured: bench.cured(),
  };
}

/** What each look and repair of the learner was worth, reckoned from what was known when it was chosen. */
function worthOf(played: RoundPlayed, onStep: () => void): readonly Worth[] {
  const whole = playRound(played);
  return whole.entries.flatMap(({ move, accident, refused }, entry): Worth[] => {
    if (accident !== undefined || refused !== undefined || (move.do !== 'look' && move.do !== 'repair')) return [];
    onStep();
    const before = playRound({ ...played, moves: played.moves.slice(0, entry) });
    const { bench } = before;
    const also = move.do === 'look' ? [move.key] : [];
    const now = standing(bench, before.hands.bench, 1, also);
    const best = bestOf(now, bench);
    const common = { entry, best: best.name, bestExpected: best.minutes };
    if (move.do === 'look') {
      const forecast = now.decision.checks.find(({ place }) => place.key === move.key);
      return [
        {
          ...common,
          name: before.places.find(({ key }) => key === move.key)?.name ?? move.key,
          ...(forecast ? { expected: forecast.expectedMinutes, bits: forecast.bits } : { bits: 0 }),
        },
      ];
    }
    const group = now.model.groups.findIndex(
      ({ station, remedy }) => station.id === move.station && remedy.id === move.remedy,
    );
    const share = now.suspicion.share[bench.causes.findIndex(({ id }) => id === `${move.station}/${move.mode}`)];
    return [
      {
        ...common,
        name: remedyName(
          bench,
          move.station,
          bench.catalogue.remedies.find(({ id }) => id === move.remedy)?.name ?? move.remedy,
        ),
        ...(group === now.decision.repairOrder[0] ? { expected: now.decision.repairMinutes } : {}),
        carried: group >= 0 ? carried(now.model, now.suspicion, group) : (share ?? 0),
      },
    ];
  });
}

const READY_WORDS = {
  heat: 'Heated to print heat',
  cool: 'Target to zero, waited',
  power: 'Power',
  unplug: 'Unplugged',
  plug: 'Plugged in',
  off: 'Taken off',
  on: 'Put back',
  service: 'Hung in its service position',
  unload: 'Filament taken out',
  raise: 'Head raised and supported',
} as const;

/** One entry of a round in words. */
export function entryStep({ bench, places }: RoundState, entry: RoundEntry): WayStep {
  const { move } = entry;
  const minutes = benchMinutesOf(entry);
  const nameOf = (id: string): string =>
    [...bench.machine.parts, ...bench.machine.connectors].find((one) => one.id === id)?.name ?? id;
  if (move.do === 'look') {
    const place = places.find(({ key }) => key === move.key);
    const { finding } = entry;
    return {
      kind: 'look',
      name: place?.name ?? move.key,
      ...(place && finding
        ? { found: findingWords(bench.catalogue, place, finding), abnormal: isAbnormal(place.check, finding.result) }
        : {}),
      minutes,
    };
  }
  if (move.do === 'repair') {
    const name = bench.catalogue.remedies.find(({ id }) => id === move.remedy)?.name ?? move.remedy;
    return {
      kind: 'repair',
      name: remedyName(bench, move.station, name),
      helped: (entry.cured?.length ?? 0) > 0,
      minutes,
    };
  }
  if (move.do === 'not-listed')
    return { kind: 'other', name: remedyName(bench, move.station, 'Asked: it is on no list'), minutes };
  if (move.do === 'give-up') return { kind: 'other', name: 'Gave up', minutes };
  const what =
    'part' in move
      ? `: ${nameOf(move.part)}`
      : 'connector' in move
        ? `: ${nameOf(move.connector)}`
        : move.do === 'power'
          ? ` ${move.to}`
          : '';
  return { kind: 'ready', name: `${READY_WORDS[move.do]}${what}`, minutes };
}

const happened = ({ accident, refused }: RoundEntry): boolean => accident === undefined && refused === undefined;
const sum = (list: readonly number[]): number => list.reduce((total, x) => total + x, 0);

/**
 * The round looked at afterwards: the own way beside the tracer's, where the minutes went, and what each choice was worth when
 * it was made. Takes seconds.
 *
 * @param onStep told before each thing that is reckoned, with how many there were
 */
export function reviewRound(played: RoundPlayed, onStep: (done: number) => void = () => undefined): RoundReview {
  let done = 0;
  const tick = (): void => onStep(++done);
  const state = playRound(played);
  const entries = state.entries.filter(happened);
  const own = entries.map((entry) => entryStep(state, entry));
  const of = (kind: 'look' | 'repair'): number =>
    sum(entries.filter(({ move }) => move.do === kind).map(({ workMin }) => workMin));
  return {
    ...tracerWay(played.hidden, tick),
    own,
    ownMinutes: sum(entries.map(benchMinutesOf)),
    worth: worthOf(played, tick),
    spent: {
      ready: sum(entries.map(({ readyMin }) => readyMin)),
      waiting: sum(entries.map(({ waitMin }) => waitMin / 2)),
      looks: of('look'),
      repairs: of('repair'),
    },
  };
}
