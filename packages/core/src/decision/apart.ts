import { benchMinutes, closingMinutes, priceOf } from '../bench/price';
import { canBeDone, needOfCheck, type CheckAtPlace } from '../bench/places';
import type { Bench } from '../bench/state';
import type { FailureMode } from '../catalogue/types';
import type { Cause } from '../observation/causes';
import { ASIDE } from '../inference/prior';
import { lookOf } from '../observation/looks';
import { allWays, resultShares } from '../observation/ways';
import type { Machine } from '../path/machine';
import type { Route } from '../path/route';
import { KeptWith } from '../quantities/keptWith';
import { ASKING_MIN, MEND_MIN, PROOF_MIN } from './repairs';

/**
 * Taking the path apart when nothing listed is worth a repair: stretch by stretch, what takes least next, until something is found;
 * what no eye sees at the opened path is asked for and tried afterwards. In minutes of this machine's own access data.
 */
export interface Apart {
  readonly looks: readonly ApartLook[];
  /** With every stretch opened, looked at and closed again. */
  readonly wholeMin: number;
}

export interface ApartLook {
  readonly place: CheckAtPlace;
  /** From the closed, cold machine until this look is done. */
  readonly minutes: number;
  /** … and until what is open then is closed again. */
  readonly closedMin: number;
}

/** Shown to an eye or a meter at the opened path at least so often (chosen). */
const SHOWN_OPEN = 0.5;
/** Whether an eye is at the opened place: what is there comes to sight, be it on a list or not. */
export function looksStraightAt(place: CheckAtPlace, stop: number): boolean {
  const { check, reach } = place;
  return (
    canBeDone(place) &&
    check.needs === 'open' &&
    (check.reach === 'station' || check.reach === 'near') &&
    !check.swap &&
    !check.quantity &&
    !check.asks &&
    !check.history &&
    reach.has(stop)
  );
}

const kept = new WeakMap<readonly CheckAtPlace[], Map<number, Apart>>();

/** The way through the path, each look where it takes least from what is open by then. */
export function apartOf(machine: Machine, route: Route, places: readonly CheckAtPlace[], hotC: number): Apart {
  const known = kept.get(places)?.get(hotC);
  if (known) return known;
  const left = places.filter((place) => route.stops.some(({ index }) => looksStraightAt(place, index)));
  let bench: Bench = { temperatureC: machine.heat.ambientC, power: 'off', off: new Set() };
  let minutes = 0;
  const looks: ApartLook[] = [];
  while (left.length > 0) {
    const next = left
      .map((place, i) => {
        const price = priceOf(machine, bench, needOfCheck(place, hotC));
        return { place, i, price, takes: benchMinutes(price) + place.check.minutes };
      })
      .reduce((a, b) => (b.takes < a.takes ? b : a));
    left.splice(next.i, 1);
    minutes += next.takes;
    bench = next.price.after;
    looks.push({ place: next.place, minutes, closedMin: minutes + closingMinutes(machine, bench.off) });
  }
  const apart = { looks, wholeMin: looks.at(-1)?.closedMin ?? 0 };
  kept.set(places, (kept.get(places) ?? new Map<number, Apart>()).set(hotC, apart));
  return apart;
}

/** Whether a fault shows to an eye or a meter once its place is open. */
function showsOpen(cause: Cause, places: readonly CheckAtPlace[]): boolean {
  // Once its parts are off, whatever looks at a station is done on the way.
  const opened = (cause.stop.station.access?.open ?? []).length > 0;
  return places.some((place) => (place.check.needs === 'open' || opened) && canBeDone(place) && showsAt(cause, place));
}

/** Whether a look or a meter at the place itself shows a fault more often than not. */
function showsAt(cause: Cause, { check, reach }: CheckAtPlace): boolean {
  if (check.asks || check.swap || !reach.has(cause.stop.index)) return false;
  if (check.reach !== 'station' && check.reach !== 'near') return false;
  if (check.quantity) return (cause.mode.reads?.[check.quantity.reads]?.p ?? 0) >= SHOWN_OPEN;
  const look = lookOf(check);
  const seen = look && resultShares(allWays(cause.mode), look);
  return seen !== undefined && 1 - (seen.at(-1) ?? 1) >= SHOWN_OPEN;
}

/** By way and kind of fault, then stop: it hangs on nothing else. */
const FOUND = new KeptWith<Apart, FailureMode, Map<number, ApartLook | undefined>>();

/** The look of the way at which a fault comes to sight; undefined where no opening shows it. */
export function foundAt(way: Apart, cause: Cause, places: readonly CheckAtPlace[]): ApartLook | undefined {
  const known = FOUND.of(way, cause.mode, () => new Map());
  const { index } = cause.stop;
  if (!known.has(index)) known.set(index, comesToSight(way, cause, places));
  return known.get(index);
}

function comesToSight({ looks }: Apart, cause: Cause, places: readonly CheckAtPlace[]): ApartLook | undefined {
  if (!showsOpen(cause, places)) return undefined;
  const straight = looks.filter(({ place }) => looksStraightAt(place, cause.stop.index));
  return straight.findLast(({ place }) => showsAt(cause, place)) ?? straight.at(-1) ?? looks.at(-1);
}

/** What is left of that way when some looks have been answered: until each of the others is done and closed, and in all, in minutes. */
export function leftOfWay({ looks, wholeMin }: Apart, answered: ReadonlySet<string>) {
  let spared = 0;
  let before = 0;
  const until = new Map<ApartLook, number>();
  for (const look of looks) {
    if (answered.has(look.place.key)) spared += look.minutes - before;
    else until.set(look, look.closedMin - spared);
    before = look.minutes;
  }
  return { until, minutes: until.size > 0 ? wholeMin - spared : 0 };
}

/**
 * By cause, `elsewhere` last: minutes to find it on that way, to mend it and to prove it. What no opening shows is asked for and tried at the
 * end; so is what should have come to sight at a look that was answered already. What is on no list shows to an eye, wherever on the path
 * it sits, unless it lies aside.
 *
 * @param shownAt by cause, where it comes to sight
 * @param answered keys of the looks whose answer stands, see `answeredKeys`
 * @param aside of what is on no list, how far it is believed to lie aside of the path
 */
export function apartMinutes(
  way: Apart,
  route: Route,
  shownAt: readonly (ApartLook | undefined)[],
  answered: ReadonlySet<string>,
  aside = ASIDE,
): readonly number[] {
  const left = leftOfWay(way, answered);
  const asked = left.minutes + ASKING_MIN;
  const until = (look: ApartLook | undefined): number => (look && left.until.get(look)) ?? asked;
  const seen = route.stops.map(({ index }) => until(way.looks.find(({ place }) => looksStraightAt(place, index))));
  const mean = seen.reduce((sum, x) => sum + x, 0) / Math.max(1, seen.length);
  return [...shownAt.map(until), (1 - aside) * mean + aside * asked].map((minutes) => minutes + MEND_MIN + PROOF_MIN);
}
