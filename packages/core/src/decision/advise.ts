import { remedyById } from '../catalogue/index';
import type { Suspicion } from '../inference/suspicion';
import { dimensionsOf, lookOf } from '../observation/looks';
import type { CheckAtPlace } from '../bench/places';
import type { CheckForecast } from './checkForecast';
import type { Model } from './model';

/** Rules of what is advised, once every course of action has its minutes. */

/** Two choices this close are as good as equal: the gentler one is taken, and the interface says so. */
export const NEAR_TIE_MIN = 0.5;
/** A check must save this much to be put before a repair: less is not worth going round once more (chosen). */
const WORTH_MIN = 0.3;
/**
 * Once a fault is as good as found, a further check must save more than going round once more takes, and more than a tenth: what else may be
 * wrong can be checked as well when the repair is done (chosen).
 */
const AS_GOOD_AS_FOUND = 0.7;
const WORTH_FOUND_MIN = 2;
const WORTH_FOUND_SHARE = 0.1;
/** A repair is named first only when it is carried by so much, as long as a check can still tell something (chosen). */
export const CARRIED = 1 / 3;
const TELLS_BITS = 0.05;
/** What it costs, beside the work, to renew a part that was sound: its price, and the trust of the owner; in minutes (chosen). */
export const SOUND_RENEWED_MIN = 30;
/** Outside before opening, cold before hot, quick before slow. */
const roughness = (check: CheckForecast): number =>
  check.price.opened.length * 10 +
  (check.place.check.risk ?? 0) * 5 +
  (check.place.check.heat === 'hot' ? 2 : 0) +
  check.place.check.minutes / 10;

function gentlestFirst(checks: readonly CheckForecast[]): readonly CheckForecast[] {
  const best = checks[0];
  if (!best) return checks;
  const close = checks.filter((check) => check.expectedMinutes - best.expectedMinutes < NEAR_TIE_MIN);
  return [...[...close].sort((a, b) => roughness(a) - roughness(b)), ...checks.slice(close.length)];
}

export const ranked = (checks: readonly CheckForecast[]): readonly CheckForecast[] => {
  const sorted = [...checks].sort((a, b) => a.expectedMinutes - b.expectedMinutes || a.index - b.index);
  return [...gentlestFirst(sorted.filter((check) => !check.done)), ...sorted.filter((check) => check.done)];
};

/**
 * Whether a check is advised before the repair that comes first.
 *
 * @param again a gentler repair of the same fault was done in vain: what spoke for it was seen before that, and a look again is worth its minutes
 */
export function checkFirst(
  best: CheckForecast,
  share: number,
  { replaces, again }: { readonly replaces: boolean; readonly again: boolean },
  repairMinutes: number,
  giveUp: number,
): boolean {
  if (share < CARRIED && best.bits >= TELLS_BITS && best.expectedMinutes < giveUp + SOUND_RENEWED_MIN) return true;
  const found = share >= AS_GOOD_AS_FOUND && !again;
  const worth = found ? Math.max(WORTH_FOUND_MIN, WORTH_FOUND_SHARE * repairMinutes) : WORTH_MIN;
  // A check spares a sound part only as far as its answer changes what is renewed.
  const sound = best.bits < TELLS_BITS ? 0 : ((replaces ? 1 - share : 0) - best.renewsSound) * SOUND_RENEWED_MIN;
  return best.expectedMinutes < repairMinutes + Math.max(0, sound) - worth;
}

/** A check that tells so much is asked before everything is given up, also when another is quicker and tells next to nothing (chosen). */
const TELLS_MUCH_BITS = 0.3;

/** The quickest check that tells much and may come before the rest is given up. */
export const tellingMuch = (
  list: readonly CheckForecast[],
  comesFirst: (check: CheckForecast) => boolean,
): CheckForecast | undefined => list.find((check) => !check.done && check.bits >= TELLS_MUCH_BITS && comesFirst(check));

/** So many are looked at as far ahead as the leading ones, so that they can be compared (chosen). */
const SPARING = 2;

/** Before a part is renewed: the checks that cost least, with the sound parts that may be renewed after their answer. */
export function sparing(checks: readonly CheckForecast[]): readonly CheckForecast[] {
  const cost = ({ expectedMinutes, renewsSound }: CheckForecast): number =>
    expectedMinutes + SOUND_RENEWED_MIN * renewsSound;
  return [...checks].sort((a, b) => cost(a) - cost(b) || a.index - b.index).slice(0, SPARING);
}

/**
 * Whether a part that is probably sound would be renewed for next to nothing, when no check tells any more: then it is better to ask.
 *
 * @param apart minutes with no repair tried
 */
export const rathersAsk = (share: number, repairMinutes: number, apart: number): boolean =>
  share < CARRIED && repairMinutes + (1 - share) * SOUND_RENEWED_MIN >= apart;

const odds = (p: number): number => p / Math.max(1e-9, 1 - p);
const sumAt = (places: ReadonlySet<number>, stations: readonly number[]): number =>
  [...places].reduce((sum, i) => sum + (stations[i] ?? 0), 0);
/** Whether a check looks straight at one of some places; a swap shows nothing. */
const isLook = ({ check, reach }: CheckAtPlace, places: ReadonlySet<number>): boolean =>
  !check.swap && (check.reach === 'station' || check.reach === 'near') && [...places].some((i) => reach.has(i));

/** Whether another repair of what a group is for was done there in vain. */
export function doneInVain({ kase, groups, causes }: Model, group: number | undefined): boolean {
  const here = groups[group ?? -1];
  if (!here) return false;
  const rungs = new Set(here.causes.flatMap((cause) => causes[cause]?.mode.remedies ?? []));
  return (kase.failed ?? []).some(
    ({ station, remedies }) => station === here.station.id && remedies.some((id) => rungs.has(id)),
  );
}

/** A look of so many minutes is had before a part is renewed after a gentler repair of it in vain (chosen). */
const LOOK_AGAIN_MIN = 6;
/** So many times less suspected after an answer: then it speaks a place free, where other faults may sit as well (chosen). */
const SPEAKS_FREE = 3;

/**
 * The quickest look straight at what would be renewed that would speak it free: what spoke against it was seen before the gentler repair, which
 * may have cured it while something else goes on.
 *
 * @param places of the path that the repair is for
 * @param share suspicion that it carries
 */
export const lookAgain = (
  list: readonly CheckForecast[],
  places: ReadonlySet<number>,
  share: number,
): CheckForecast | undefined =>
  list
    .filter(
      ({ done, checkMinutes, place, outcomes }) =>
        !done &&
        checkMinutes <= LOOK_AGAIN_MIN &&
        isLook(place, places) &&
        outcomes.some(
          ({ stations, probability }) => probability > 0 && SPEAKS_FREE * odds(sumAt(places, stations)) <= odds(share),
        ),
    )
    .sort((a, b) => a.checkMinutes - b.checkMinutes)[0];

/** Above this nothing is looked at for its own sake any more (chosen). */
const SURE = 0.95;
/** A look before the first touch may take so much longer than mending at once; before a part is renewed, what a sound one is worth as well (chosen). */
const LOOK_FIRST_MIN = 4;

/**
 * The best look straight at what would be mended, where nothing has looked there yet: complaints alone mend nothing. Whoever goes to a
 * place sees it; a look that would speak it free comes before the work, when it costs next to nothing.
 *
 * @param places of the path that the repair is for
 * @param share suspicion that it carries
 */
export function lookFirst(
  list: readonly CheckForecast[],
  { route }: Pick<Model, 'route'>,
  places: ReadonlySet<number>,
  share: number,
  repairMinutes: number,
  replaces: boolean,
): CheckForecast | undefined {
  const stations = new Set([...places].map((i) => route.stops[i]?.station.id));
  // What shows along the whole path is seen at its place as well.
  const looksThere = (place: CheckAtPlace): boolean =>
    isLook(place, places) || (place.check.items === true && stations.has(place.station));
  // A swap tells more than a look.
  const swapped = ({ check, reach }: CheckAtPlace): boolean =>
    check.swap === true && [...places].some((i) => reach.has(i));
  if (share >= SURE || list.some(({ done, place }) => done && (looksThere(place) || swapped(place)))) return undefined;
  const most = repairMinutes + LOOK_FIRST_MIN + (replaces ? (1 - share) * SOUND_RENEWED_MIN : 0);
  return list
    .filter(
      ({ done, expectedMinutes, place, outcomes }) =>
        !done &&
        expectedMinutes <= most &&
        looksThere(place) &&
        outcomes.some(({ stations, probability }) => {
          const after = odds(sumAt(places, stations));
          return probability > 0 && (SPEAKS_FREE * after <= odds(share) || after >= SHOWS * odds(share));
        }),
    )
    .sort((a, b) => a.expectedMinutes - b.expectedMinutes)[0];
}

/** A look at a new part needs one: renewed before it came in, or at this place in this visit. */
export function sayable({ kase }: Model, { check, station }: CheckAtPlace): boolean {
  if (!check.history || check.history.some((id) => kase.before.includes(id))) return true;
  return (kase.failed ?? []).some(
    (repair) =>
      repair.station === station &&
      repair.remedies.some((id) => remedyById(kase.catalogue, id)?.replaces !== undefined),
  );
}

/** What a check asks: the sides of faults that it looks at, or the check that asks the same by other means. */
const asksFor = ({ check }: CheckAtPlace): readonly string[] => {
  const look = lookOf(check);
  return [check.like ?? check.id, ...(look ? dimensionsOf(look) : [])];
};

/** Share of what two checks reach together that both reach, weighed by suspicion. */
function overlap(a: CheckAtPlace, b: CheckAtPlace, suspected: readonly number[]): number {
  let both = 0;
  let either = 0;
  suspected.forEach((p, i) => {
    const [x, y] = [a.reach.has(i), b.reach.has(i)];
    if (x && y) both += p;
    if (x || y) either += p;
  });
  return either > 0 ? both / either : 0;
}

/** Two checks that reach nearly the same and look for the same are one question; of those the best stands in front. */
const SAME_QUESTION = 0.7;

export function oneOfEach(checks: readonly CheckForecast[], suspected: readonly number[]): readonly CheckForecast[] {
  const front: { readonly check: CheckForecast; readonly sides: readonly string[] }[] = [];
  const rest: CheckForecast[] = [];
  for (const check of checks) {
    const sides = asksFor(check.place);
    const asked = front.some(
      (before) =>
        before.sides.some((side) => sides.includes(side)) &&
        overlap(before.check.place, check.place, suspected) >= SAME_QUESTION,
    );
    if (asked) rest.push(check);
    else front.push({ check, sides });
  }
  return [...mixed(front.map(({ check }) => check)), ...rest];
}

/** Offers that are seen at a glance. */
const FIRST_OFFERS = 3;

/** Not one check at three places for all of them: whoever does not want to push sees what else would tell. */
function mixed(checks: readonly CheckForecast[]): readonly CheckForecast[] {
  const [id, ...more] = checks.slice(0, FIRST_OFFERS).map(({ place }) => place.check.id);
  const other = more.every((next) => next === id) ? checks.find(({ place }) => place.check.id !== id) : undefined;
  if (!other || checks.indexOf(other) < FIRST_OFFERS) return checks;
  const same = checks.filter((check) => check !== other);
  return [...same.slice(0, FIRST_OFFERS - 1), other, ...same.slice(FIRST_OFFERS - 1)];
}

/** A look straight at what would be mended may take this much longer than the best course, to be among them (chosen). */
const LOOK_MORE_MIN = 10;
/** So many times as often with the fault as without it: then a look shows it. */
const SHOWS = 5;

/**
 * What is suspected so strongly that it would be mended, or mended but for its price, is looked at: where none of the first offers would
 * show it (a swap shows nothing), the best that would takes the last place among them. What is done next, the first of all, stays.
 *
 * @param repaired places of the path that the first repair is for
 * @param share suspicion that it carries
 * @param suspected by place of the path
 */
export function suspectShown(
  checks: readonly CheckForecast[],
  repaired: ReadonlySet<number>,
  share: number,
  suspected: readonly number[],
): readonly CheckForecast[] {
  const lead = suspected.reduce((best, p, i) => (p > (suspected[best] ?? 0) ? i : best), 0);
  const at = share >= CARRIED ? repaired : new Set([lead]);
  const before = share >= CARRIED ? share : (suspected[lead] ?? 0);
  if (before < CARRIED) return checks;
  const shows = ({ place, outcomes }: CheckForecast): boolean =>
    isLook(place, at) &&
    outcomes.some(({ stations, probability }) => probability > 0 && odds(sumAt(at, stations)) >= SHOWS * odds(before));
  const first = checks.slice(0, FIRST_OFFERS);
  const most = (checks[0]?.expectedMinutes ?? 0) + LOOK_MORE_MIN;
  const straight = first.some(shows) ? undefined : checks.find((c) => c.expectedMinutes <= most && shows(c));
  if (!straight) return checks;
  const rest = checks.filter((check) => check !== straight);
  return [...rest.slice(0, FIRST_OFFERS - 1), straight, ...rest.slice(FIRST_OFFERS - 1)];
}

/** Suspicion that every stretch keeps although nothing points to it: what is seen there may be on no list (chosen). */
const UNSEEN_SHARE = 0.01;

/** With less than this for what is on no list, a stretch is opened only where something listed may be seen (chosen). */
const ELSEWHERE_OPENS = 0.15;

/**
 * What to open next: looks straight at a place, not done yet, by what may be there over what it takes.
 *
 * @param elsewhere suspicion of what is on no list and shows on the path
 */
export function nextOpening(
  list: readonly CheckForecast[],
  suspected: readonly number[],
  elsewhere: number,
): CheckForecast | undefined {
  const worth = ({ place, checkMinutes }: CheckForecast): number =>
    ([...place.reach].reduce((sum, i) => sum + (suspected[i] ?? 0), 0) + UNSEEN_SHARE) / checkMinutes;
  return list
    .filter(
      ({ done, bits, place: { check } }) =>
        !done &&
        (bits >= TELLS_BITS || elsewhere >= ELSEWHERE_OPENS) &&
        !check.swap &&
        !check.quantity &&
        !check.asks &&
        (check.reach === 'station' || check.reach === 'near') &&
        check.needs === 'open',
    )
    .sort((a, b) => worth(b) - worth(a))[0];
}

/** Probability that one of the causes a repair is meant for is there. */
export function carried(model: Model, suspicion: Suspicion, group: number | undefined): number {
  const inside = new Set(group === undefined ? [] : model.groups[group]?.causes);
  return suspicion.sets.reduce(
    (sum, { causes }, h) => sum + (causes.some((c) => inside.has(c)) ? (suspicion.p[h] ?? 0) : 0),
    0,
  );
}

/** The repair that carries most, where it carries so much that its fault is as good as found. */
export function asGoodAsFound(model: Model, suspicion: Suspicion): number | undefined {
  // All in one go over the sets, of which there are thousands.
  const shares = new Float64Array(model.groups.length);
  suspicion.sets.forEach(({ causes }, h) => {
    for (const group of new Set(causes.map((cause) => model.groupOf[cause] ?? -1)))
      if (group >= 0) shares[group] = (shares[group] ?? 0) + (suspicion.p[h] ?? 0);
  });
  const best = shares.reduce((at, share, group) => (share > (shares[at] ?? 0) ? group : at), 0);
  return (shares[best] ?? 0) >= AS_GOOD_AS_FOUND ? best : undefined;
}

/**
 * Where no repair would be begun with that carries itself, what is as good as found all the same: it is mended also where something else is wrong
 * as well and no single repair would cure. What is left is then looked for on a machine that has one fault less.
 *
 * @param begin the repair that would be begun with by its minutes
 */
export const mendedAnyway = (model: Model, suspicion: Suspicion, begin: number | undefined): number | undefined =>
  carried(model, suspicion, begin) < CARRIED ? asGoodAsFound(model, suspicion) : undefined;
