import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { checksFor } from '../bench/places';
import type { Case, Finding } from '../observation/context';
import { routeOf } from '../path/route';
import { whelk } from '../testing/machines';
import { NEVER } from './given';
import { componentsOf, Sights } from './components';
import { Joint } from './joint';
import { suspect } from './suspicion';

const route = routeOf(whelk);
const places = new Map(checksFor(catalogue, whelk, route).map((place) => [place.key, place]));
/** Looks that share sides of how faults show with nearly all others: a pulled tip tells of passage and of what an eye sees. */
const LOOKS: readonly (readonly [string, string])[] = [
  ['look-gears@extruder', 'fouled'],
  ['free-air@nozzle', 'thin'],
  ['feed-by-hand@extruder', 'heavy'],
  ['look-nozzle@nozzle', 'round'],
  ['listen@extruder', 'knocks'],
  ['cold-pull-look@nozzle', 'dirty'],
  ['cold-pull-look@nozzle', 'clean'],
];
const findings = LOOKS.map(([key, result], i): Finding => ({ id: `f${i}`, key, result, finished: true }));
const rest: Partial<Case> = {
  symptoms: ['thin', 'clicks'],
  failed: [{ id: 'r', station: 'nozzle', mode: 'tip-particles', remedies: ['needle'], after: 4 }],
};
const believed = suspect({ machine: whelk, catalogue, symptoms: [], before: [], ...rest }, route, places, findings);
const { causes, evidence } = believed;

test('block by block, given what the looks between them found, it is the same as all ways at once', () => {
  const taken = componentsOf(evidence).filter(({ blocks }) => blocks.length > 1);
  expect(taken).toHaveLength(1);
  expect(taken[0]?.links.length).toBeGreaterThan(1);
  const [parted, whole] = [new Joint(causes, evidence), new Joint(causes, evidence, Infinity)];
  const agree = (set: readonly number[], removed?: readonly number[]): void =>
    expect(parted.logLikelihood(set, removed)).toBeCloseTo(whole.logLikelihood(set, removed), 9);
  causes.forEach((_, a) => {
    agree([a]);
    // Taken away by the repair: it showed in what was seen before, and in nothing after.
    agree([a], [0]);
    for (let b = a + 1; b < causes.length; b++) {
      agree([a, b]);
      agree([a, b], [0, NEVER]);
    }
  });
});

test('every observation belongs to one block or is a link, and a link looks into every block that it holds', () => {
  const all = componentsOf(evidence).flatMap(({ blocks, links }) => [
    ...links,
    ...blocks.flatMap((block) => block.evidence),
  ]);
  const looks = evidence.flatMap(({ look }, e) => (look ? [e] : []));
  expect([...all].sort((a, b) => a - b)).toEqual(looks);
  for (const { blocks, links } of componentsOf(evidence))
    for (const link of links) expect(blocks.filter((block) => block.links.includes(link)).length).toBeGreaterThan(1);
});

test('sights beyond the first 65 536 are still told apart', () => {
  const sights = new Sights();
  const row = (n: number): Uint8Array => Uint8Array.from([n % 250, Math.floor(n / 250) % 250, Math.floor(n / 62_500)]);
  for (let n = 0; n < 65_540; n++) sights.id(row(n));
  // With numbers of sixteen bits (1, 3) and (0, 65 539) would be one pair.
  expect(sights.seen[sights.together(1, 3)]).toEqual(row(1));
  expect(sights.seen[sights.together(0, 65_539)]).toEqual(row(0));
  expect(sights.seen[sights.together(1, 65_538)]).toEqual(Uint8Array.from([1, 0, 0]));
});
