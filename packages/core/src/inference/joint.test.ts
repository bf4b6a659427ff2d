import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { checksFor } from '../bench/places';
import type { Cause } from '../observation/causes';
import type { Case, Finding } from '../observation/context';
import { weightsOf } from '../observation/witness';
import { routeOf } from '../path/route';
import { whelk } from '../testing/machines';
import { STILL_ILL } from './evidence';
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

test('the same looks with other likelihoods: as if worked out anew, whichever was asked first', () => {
  const other = evidence.map((item, i) => ({
    ...item,
    given: item.given.map((g) => (typeof g === 'number' ? g ** 0.5 : g.map((x) => 0.1 + 0.8 * x ** (1 + (i % 3))))),
  }));
  const first = new Joint(causes, evidence);
  // Nothing that was worked out for some causes is taken for others.
  const anew = new Joint([...causes], other);
  causes.forEach((_, c) => void first.logLikelihood([c]));
  const after = first.saying(other);
  causes.forEach((_, a) => {
    const b = (a * 7 + 3) % causes.length;
    for (const [set, removed] of [[[a]], [[a], [0]], [[a, b].sort((x, y) => x - y)]] as const)
      expect(after.logLikelihood(set, removed)).toBeCloseTo(anew.logLikelihood(set, removed), 12);
    // The first has not been touched by it.
    expect(first.logLikelihood([a])).toBeCloseTo(new Joint([...causes], evidence).logLikelihood([a]), 12);
  });
});

describe('what looks see of faults is kept from one finding to the next', () => {
  const change = (of: (item: (typeof evidence)[number]) => Partial<(typeof evidence)[number]>) =>
    evidence.map((item) => ({ ...item, ...of(item) }));
  const others = {
    'fewer findings': evidence.filter(({ finding }) => finding?.id !== 'f1' && finding?.id !== 'f5'),
    'the same looks before any repair': change(() => ({ epoch: 0 })),
    'the same looks after the repair': change(({ finding }) => (finding ? { epoch: 1 } : {})),
    'the same looks at another place': change(({ place }) =>
      place ? { place: { ...place, key: `${place.key}-next`, reach: new Set([0, 1]) } } : {},
    ),
  };

  test.each(Object.entries(others))('%s: as if nothing had been asked before', (_, told) => {
    const before = new Joint(causes, evidence);
    causes.forEach((__, c) => void before.logLikelihood([c], [0]));
    const after = new Joint(causes, told);
    const anew = new Joint([...causes], told);
    causes.forEach((__, a) => {
      const b = (a * 7 + 3) % causes.length;
      const pair = [a, b].sort((x, y) => x - y);
      for (const [set, removed] of [[[a]], [[a], [0]], [pair], [pair, [0, NEVER]]] as const)
        expect(after.logLikelihood(set, removed)).toBeCloseTo(anew.logLikelihood(set, removed), 12);
    });
  });
});

describe('a fault that a repair took away', () => {
  const seen: readonly Finding[] = [
    { id: 'a', key: 'sink-temp@sink', result: 'hot' },
    { id: 'b', key: 'sink-temp@sink', result: 'cool' },
  ];
  const failed = [{ id: 'r', station: 'sink', mode: 'fan-wrong', remedies: ['renew-fan'], after: 1 }];
  const told = suspect({ machine: whelk, catalogue, symptoms: [], before: [], failed }, route, places, seen);
  const joint = new Joint(told.causes, told.evidence);
  const fan = told.causes.findIndex(({ id }) => id === 'sink/fan-wrong');
  const { miss, falseAlarm, results } = places.get('sink-temp@sink')?.check ?? { miss: 0, falseAlarm: 0, results: [] };
  const [[dimension = '', [value = ''] = []] = []] = Object.entries(results[0]?.when ?? {});
  const shows = told.causes[fan]?.mode.shows[dimension]?.[value] ?? 0;
  const weights = weightsOf(told.evidence)([told.causes[fan] as Cause]);
  const [first, second] = seen.map(
    ({ id }) => weights[told.evidence.findIndex((item) => item.finding?.id === id)] ?? 1,
  );

  test('showed in what was seen before the repair, and in nothing after it', () => {
    const [w, v] = [first ?? 1, second ?? 1];
    expect([fan >= 0, shows > 0.3, v > 0.5]).toEqual([true, true, true]);
    const before = shows * (1 - miss) ** w + (1 - shows) * falseAlarm ** w;
    const gone = before * (1 - falseAlarm) ** v * STILL_ILL.none;
    const there =
      (shows * (1 - miss) ** w * miss ** v + (1 - shows) * falseAlarm ** w * (1 - falseAlarm) ** v) * STILL_ILL.left;
    expect(Math.exp(joint.logLikelihood([fan], [0]))).toBeCloseTo(gone, 9);
    expect(Math.exp(joint.logLikelihood([fan]))).toBeCloseTo(there, 9);
    expect(Math.exp(joint.logLikelihood([fan], [NEVER]))).toBeCloseTo(there, 9);
  });

  test('taken away before anything was looked at it shows in nothing', () => {
    const early = failed.map((repair) => ({ ...repair, after: 0 }));
    const later = suspect({ machine: whelk, catalogue, symptoms: [], before: [], failed: early }, route, places, [
      { id: 'b', key: 'sink-temp@sink', result: 'cool' },
    ]);
    const after = new Joint(later.causes, later.evidence);
    expect(Math.exp(after.logLikelihood([fan], [0]))).toBeCloseTo((1 - falseAlarm) * STILL_ILL.none, 9);
    expect(Math.exp(after.logLikelihood([fan]))).toBeCloseTo(
      (shows * miss + (1 - shows) * (1 - falseAlarm)) * STILL_ILL.left,
      9,
    );
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
