import { needOfCheck, type CheckAtPlace } from '../bench/places';
import { benchMinutes, priceOf } from '../bench/price';
import type { Bench } from '../bench/state';
import { materialOf, modeById, remedyById } from '../catalogue/index';
import type { Remedy } from '../catalogue/types';
import { remedyNeeds, rungsFor, tryMinutes } from '../decision/repairs';
import { foundIn } from '../explain/foundWords';
import type { Finding } from '../observation/context';
import { stationById } from '../path/machine';
import type { AccidentId } from '../referee';
import { benchOf, placesOf, printHeatOf, type Hidden, type RoundBench } from './roundBench';
import { lookAt, moveAt, startOf, type HandMove, type HandsOn } from './roundMoves';

/** Who makes the bench ready: on the first two levels it is done for the learner, on the third every move is their own. */
export const LEVELS = ['signs', 'several', 'hands'] as const;
export type Level = (typeof LEVELS)[number];

export type RoundMove =
  | HandMove
  | { readonly do: 'look'; readonly key: string }
  | { readonly do: 'repair'; readonly station: string; readonly mode: string; readonly remedy: string }
  /** "It is on no list, and it sits here": somebody else is asked. */
  | { readonly do: 'not-listed'; readonly station: string }
  | { readonly do: 'give-up' };

/** A round: what is hidden, and everything that was done. The rest is worked out from it. */
export interface RoundPlayed {
  readonly hidden: Hidden;
  readonly level: Level;
  readonly moves: readonly RoundMove[];
}

export interface RoundEntry {
  readonly move: RoundMove;
  /** Of a look: what was found. */
  readonly finding?: Finding;
  /** Of a repair: what it took away, and whether a sound part was renewed. */
  readonly cured?: readonly string[];
  readonly soundRenewed?: boolean;
  /** Minutes: making ready by hand, waiting, and the look or the work itself. */
  readonly readyMin: number;
  readonly waitMin: number;
  readonly workMin: number;
  /** What would have happened; the move was not done. */
  readonly accident?: AccidentId;
  /** Why it could not be done. */
  readonly refused?: string;
}

export interface RoundState {
  readonly bench: RoundBench;
  readonly places: readonly CheckAtPlace[];
  readonly hands: HandsOn;
  readonly hotC: number;
  readonly entries: readonly RoundEntry[];
  readonly over?: 'cured' | 'gave-up' | 'called';
}

/** Minutes at the bench: hands-on in full, waiting at half, as the tracer counts. */
export const benchMinutesOf = ({ readyMin, waitMin, workMin }: RoundEntry): number => readyMin + waitMin / 2 + workMin;

/** The state that a bench is in after a repair and its proof: closed, hot, on. */
const proved = (hands: HandsOn, temperatureC: number): Bench => ({
  ...hands.bench,
  off: new Set(),
  pulled: new Set(),
  ways: {},
  service: new Set(),
  power: 'on',
  temperatureC,
  targetC: temperatureC,
});

/** Plays the moves of a round from its beginning. Those after its end are left out. @throws RangeError for a move that names what is not there */
export function playRound({ hidden, level, moves }: RoundPlayed): RoundState {
  const bench = benchOf(hidden);
  const { machine, route, catalogue } = bench;
  const places = placesOf(bench);
  const kase = bench.kase();
  const material = materialOf(catalogue, kase.material);
  const hotC = printHeatOf(bench);
  let hands = startOf(machine, route.lane);
  // On the easier levels the machine waits as the tracer takes a bench that nothing is known of: cold and switched off.
  if (level !== 'hands')
    hands = { ...hands, bench: { temperatureC: machine.heat.ambientC, power: 'off', off: new Set() } };
  const entries: RoundEntry[] = [];
  let over: RoundState['over'];

  const look = (move: RoundMove & { do: 'look' }): RoundEntry => {
    const place = places.find(({ key }) => key === move.key);
    if (!place) throw new RangeError(`There is no check ${move.key} on this machine.`);
    if (level === 'hands') {
      const tried = lookAt(machine, route.lane, catalogue, hands, place, hotC);
      hands = tried.after;
      const { accident, refused, handsMin } = tried;
      if (accident || refused !== undefined)
        return {
          ...NONE,
          move,
          ...(accident ? { accident: accident.id } : {}),
          ...(refused === undefined ? {} : { refused }),
        };
      return { move, finding: bench.look(place), readyMin: 0, waitMin: 0, workMin: handsMin };
    }
    const price = priceOf(machine, hands.bench, needOfCheck(place, hotC));
    hands = { ...hands, bench: price.after };
    const waitMin = price.heatingMin + price.coolingMin;
    return {
      move,
      finding: bench.look(place),
      readyMin: benchMinutes(price) - waitMin / 2,
      waitMin,
      workMin: place.check.minutes,
    };
  };

  const repair = (move: RoundMove & { do: 'repair' }): RoundEntry => {
    const remedy = remedyById(catalogue, move.remedy);
    const cause = bench.causes.find(({ stop }) => stop.station.id === move.station);
    if (!remedy || !cause) throw new RangeError(`${move.remedy} cannot be done at ${move.station}.`);
    const needs = remedyNeeds(machine, route, cause, remedy, material);
    const group = { id: '', station: cause.stop.station, remedy, causes: [], needs, laterMin: 0 };
    const workMin = tryMinutes(machine, [group], hands.bench)[0] ?? 0;
    const cured = bench.repair(move.station, move.mode, remedy);
    hands = { bench: proved(hands, hotC), steps: hands.steps };
    if (level === 'hands') hands = reopened(hands, machine, route.lane, catalogue, hotC);
    if (bench.cured()) over = 'cured';
    return {
      move,
      cured,
      soundRenewed: remedy.replaces !== undefined && cured.length === 0,
      readyMin: 0,
      waitMin: 0,
      workMin,
    };
  };

  for (const move of moves) {
    if (over) break;
    switch (move.do) {
      case 'look':
        entries.push(look(move));
        break;
      case 'repair':
        entries.push(repair(move));
        break;
      case 'not-listed': {
        const called = bench.faults.some(({ station, mode }) => mode === undefined && station === move.station);
        if (called) over = 'called';
        entries.push({ ...NONE, move, workMin: called ? 0 : WRONG_CALL_MIN });
        break;
      }
      case 'give-up':
        over = 'gave-up';
        entries.push({ ...NONE, move });
        break;
      default: {
        const { after, handsMin, waitMin, accident, refused } = moveAt(
          machine,
          route.lane,
          catalogue,
          hands,
          move,
          hotC,
        );
        hands = after;
        entries.push({
          move,
          readyMin: handsMin,
          waitMin,
          workMin: 0,
          ...(accident ? { accident: accident.id } : {}),
          ...(refused === undefined ? {} : { refused }),
        });
      }
    }
  }
  return { bench, places, hands, hotC, entries, ...(over ? { over } : {}) };
}

const NONE = { readyMin: 0, waitMin: 0, workMin: 0 };
/** Asking the maker in vain costs a letter and a look at the answer (chosen). */
const WRONG_CALL_MIN = 10;

/** After a proved repair the referee begins anew: the machine is closed, hot and loaded. */
function reopened(
  { bench }: HandsOn,
  machine: RoundBench['machine'],
  lane: string,
  catalogue: RoundBench['catalogue'],
  hotC: number,
): HandsOn {
  const heated = moveAt(machine, lane, catalogue, startOf(machine, lane), { do: 'heat' }, hotC).after;
  return { steps: heated.steps, bench: { ...heated.bench, temperatureC: bench.temperatureC } };
}

export interface RepairChoice {
  readonly station: string;
  readonly stationName: string;
  readonly causes: readonly { readonly mode: string; readonly name: string; readonly remedies: readonly Remedy[] }[];
}

/** What may be repaired: by station in path order, the faults that can sit there and the remedies that fit. */
export function repairChoices({ bench }: Pick<RoundState, 'bench'>): readonly RepairChoice[] {
  const { machine, route, catalogue, causes } = bench;
  const material = materialOf(catalogue, bench.kase().material);
  return route.stops.flatMap(({ station }): RepairChoice[] => {
    const here = causes.filter(({ stop }) => stop.station.id === station.id);
    const able = here
      .map((cause) => ({
        mode: cause.mode.id,
        name: cause.mode.name,
        remedies: rungsFor(catalogue, machine, route, cause, material),
      }))
      .filter(({ remedies }) => remedies.length > 0);
    return able.length ? [{ station: station.id, stationName: station.name, causes: able }] : [];
  });
}

/** A finding in words: what was seen, and the number that came with it. */
export function findingWords(catalogue: RoundBench['catalogue'], { check }: CheckAtPlace, finding: Finding): string {
  const { words, value, unit } = foundIn(check, catalogue, finding);
  const digits = value !== undefined && Math.abs(value) < 10 ? 1 : 0;
  return value === undefined ? words : `${words}: ${value.toFixed(digits)} ${unit}`;
}

/** What was really wrong, in words. */
export const faultWords = ({ bench }: Pick<RoundState, 'bench'>): readonly string[] =>
  bench.faults.map(
    ({ station, mode, is }) =>
      `${stationById(bench.machine, station)?.name ?? station}: ${(mode === undefined ? is : modeById(bench.catalogue, mode)?.name) ?? 'on no list'}`,
  );
