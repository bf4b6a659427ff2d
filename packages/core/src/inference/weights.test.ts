import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { causesOf, onsetLikelihood } from '../observation/causes';
import type { Case, Finding } from '../observation/context';
import { checksFor } from '../bench/places';
import { routeOf } from '../path/route';
import { dunlin } from '../testing/machines';
import { evidenceOf } from './evidenceOf';
import { unlistedLikelihood } from './unlisted';
import { Joint } from './joint';
import { QUICK } from './hypotheses';
import { suspect } from './suspicion';

const route = routeOf(dunlin);
const places = new Map(checksFor(catalogue, dunlin, route).map((place) => [place.key, place]));
const kase = (rest: Partial<Case> = {}): Case => ({ machine: dunlin, catalogue, symptoms: [], before: [], ...rest });
const logOdds = (share: number): number => Math.log(share / (1 - share));

/** By how much suspicion of a place moves, in log odds. */
function moved(station: string, rest: Partial<Case>, list: readonly Finding[] = []): number {
  const at = (given: Partial<Case>, findings: readonly Finding[]): number => {
    const { causes, share } = suspect(kase(given), route, places, findings, QUICK);
    return causes.reduce((sum, { stop }, i) => sum + (stop.station.id === station ? (share[i] ?? 0) : 0), 0);
  };
  return logOdds(at(rest, list)) - logOdds(at({}, []));
}

describe('how far words are believed', () => {
  // Common practice, no source: what the owner did and reports is worth more than nothing and less than the same seen at the bench.
  test('a swap that was reported moves in the direction of the same swap at the bench, by a third to nine tenths of it', () => {
    const reported = catalogue.before.flatMap(({ id, finding }) => {
      const place = finding && [...places.values()].find(({ check }) => check.id === finding.check);
      return finding && place?.check.swap
        ? [{ id, key: place.key, result: finding.result, station: place.station }]
        : [];
    });
    expect(reported.length).toBeGreaterThan(0);
    for (const { id, key, result, station = '' } of reported) {
      const bench = moved(station, {}, [{ id: 'f', key, result }]);
      const told = moved(station, { before: [id], tried: [{ id, result: 'same' }] });
      expect([id, told / bench > 1 / 3, told / bench < 0.9]).toEqual([id, true, true]);
    }
  });

  test('a symptom that was asked for and not ticked counts, and for less than one that surely was not there', () => {
    const [unticked] = evidenceOf(kase({ unseen: ['not-reach'] }), causesOf(kase(), route), places, []);
    expect(unticked?.trust).toBeGreaterThan(0.5);
    expect(unticked?.trust).toBeLessThan(0.9);
  });
});

describe('when it began', () => {
  const causes = causesOf(kase(), route);
  const of = (onset: string) => {
    const [item] = evidenceOf(kase({ onset }), causes, places, []);
    if (!item) throw new Error('test data');
    return item;
  };

  test('is a distribution over the beginnings: for every cause, and for a fault that is on no list', () => {
    const items = catalogue.onsets.map(({ id }) => of(id));
    expect(items.reduce((sum, { elsewhere }) => sum + elsewhere, 0)).toBeCloseTo(1, 9);
    causes.forEach((_, i) =>
      expect(items.reduce((sum, { likelihood }) => sum + (likelihood[i] ?? 0), 0)).toBeCloseTo(1, 9),
    );
  });

  test('of two faults at once either may have begun it: the mean of both', () => {
    const item = of('since-new');
    const joint = new Joint(causes, [item]);
    const l = causes.map(({ mode }) => onsetLikelihood(catalogue, mode, 'since-new'));
    const a = l.indexOf(Math.max(...l.map(Number)));
    const b = l.findIndex((p) => p === Math.min(...l.map(Number)));
    expect(Math.exp(joint.logLikelihood([Math.min(a, b), Math.max(a, b)]))).toBeCloseTo(
      (Number(l[a]) + Number(l[b])) / 2,
      9,
    );
  });
});

test('something else shows like the fault it is like, flattened by a fifth, and to an eye less often: by hand', () => {
  const by = { flat: 0.25, sound: 0.9, eye: false };
  expect(unlistedLikelihood(0.7, by)).toBeCloseTo(0.8 * 0.7 + 0.2 * 0.25, 12);
  expect(unlistedLikelihood(0.1, { ...by, eye: true })).toBeCloseTo(0.4 * 0.1 + 0.6 * 0.9, 12);
});
