import { FAMILIES, machineOfFamily } from '../path/families';
import { routeOf, laneRuns } from '../path/route';
import { causesOf, type Cause } from '../observation/causes';
import { answerLikelihood, itemGiven, outcomesOf, soundAnswer } from '../observation/likelihood';
import { itemLook } from '../observation/looks';
import { checksFor, type CheckAtPlace } from '../bench/places';
import { allWays, resultShares } from '../observation/ways';
import { rungsFor } from '../decision/repairs';
import { deliveredCatalogue as catalogue, materialOf } from './index';

/** How much likelier the most telling answer of a check is with this fault than without any. */
function bestRatio(place: CheckAtPlace, cause: Cause, route: ReturnType<typeof routeOf>): number {
  const { check } = place;
  if (check.items)
    return Math.max(
      ...check.results.slice(0, -1).map((result) => {
        const shown = resultShares(allWays(cause.mode), itemLook(result))[0] ?? 0;
        const [present, absent] = itemGiven(check, result, true);
        return (shown * present + (1 - shown) * absent) / absent;
      }),
    );
  return Math.max(
    ...outcomesOf(place, route, catalogue)
      .slice(0, check.quantity ? undefined : -1)
      .map((answer) => answerLikelihood(catalogue, place, answer, cause) / soundAnswer(place, answer)),
  );
}

/** Checks that look straight at one place. */
const straight = ({ check }: CheckAtPlace): boolean =>
  !check.swap && !check.asks && check.at !== 'span' && (check.reach === 'station' || check.reach === 'near');

/** Nothing of it can be seen with an eye: a check that is done at its place tells of it, whatever else that reaches too. */
const isSetting = ({ mode }: Cause): boolean => !('visible' in mode.shows);

// What a technician would see when the part is in front of him must have a word, and the word must tell.
describe.each(FAMILIES.map(({ id }) => id))('on a machine of the family %s', (family) => {
  const machine = machineOfFamily(family, 'm', 'M');
  const lane = laneRuns(machine)[0]?.id;
  const route = routeOf(machine, lane);
  const places = checksFor(catalogue, machine, route);
  const causes = causesOf({ machine, catalogue, symptoms: [], before: [] }, route);

  test('every fault is seen by a check that looks straight at its place, five times as often as without it', () => {
    const blind = causes.flatMap((cause) => {
      // A spool or a job has no inside: the whole path tells of it.
      const outside = ['spool', 'job', 'heat-block'].includes(cause.stop.station.kind);
      const own = places.filter(
        (place) =>
          place.reach.has(cause.stop.index) &&
          (outside
            ? !place.check.swap && !place.check.asks
            : (straight(place) || (isSetting(cause) && place.station === cause.stop.station.id)) &&
              (place.station === cause.stop.station.id || place.check.reach === 'near')),
      );
      const best = Math.max(0, ...own.map((place) => bestRatio(place, cause, route)));
      return best >= 5 ? [] : [`${cause.id}: ${best.toFixed(1)}`];
    });
    expect(blind).toEqual([]);
  });

  // A nozzle turned while it is cold can tear the heat break: common practice, no source.
  test('a nozzle, what sits in the hot end, a spool and a setting are not renewed as any other part is', () => {
    const material = materialOf(catalogue, 'PLA');
    const wrong = causes.flatMap((cause) =>
      rungsFor(catalogue, machine, route, cause, material)
        .filter(({ replaces }) => replaces === 'part')
        .filter(() => ['nozzle', 'heat-break', 'heat-block', 'spool', 'job'].includes(cause.stop.station.kind))
        .map(({ id }) => `${cause.id}: ${id}`),
    );
    expect(wrong).toEqual([]);
  });

  test('faults at one place are told apart by something that can be seen there', () => {
    const visible = (cause: Cause): string =>
      JSON.stringify(Object.entries(cause.mode.shows).map(([d, values]) => [d, Object.keys(values).sort()]));
    const seen = new Map<string, string>();
    for (const cause of causes) {
      const key = `${cause.stop.station.id} ${visible(cause)}`;
      expect([cause.id, seen.get(key)]).toEqual([cause.id, undefined]);
      seen.set(key, cause.id);
    }
  });
});
