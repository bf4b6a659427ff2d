import { routeOf } from '../path/route';
import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { dunlin } from '../testing/machines';
import { causesOf, type Cause } from './causes';
import { checksFor } from '../bench/places';
import { addedWeight, weightsOf, type Witness } from './witness';

const route = routeOf(dunlin);
const places = new Map(checksFor(catalogue, dunlin, route).map((place) => [place.key, place]));
const causes = causesOf({ machine: dunlin, catalogue, symptoms: [], before: [], material: 'PLA' }, route);
const at = (station: string): Cause => causes.find(({ stop }) => stop.station.id === station) as Cause;
const total = (weights: readonly number[]): number => weights.reduce((sum, w) => sum + w, 0);
const one: Witness = { same: 'a', method: 'm', trust: 1 };
const witness = (key: string): Witness => {
  const place = places.get(key);
  if (!place) throw new Error(`no check ${key}`);
  return { same: key, method: place.check.id, trust: 1, place };
};

// Kish 1965, Survey Sampling: n observations with intraclass correlation ρ are worth n / (1 + (n − 1) ρ).
test('n repeats of one check are worth what the design effect says', () => {
  for (const n of [1, 2, 5, 50]) {
    const weights = weightsOf(Array.from({ length: n }, () => one))([]);
    expect(total(weights)).toBeCloseTo(n / (1 + (n - 1) * 0.7), 9);
  }
});

test('the same hand elsewhere counts less than a stranger, more than the same check again', () => {
  const worth = (other: Witness): number => total(weightsOf([{ ...one, source: 'hand' }, other])([]));
  const stranger = worth({ same: 'b', method: 'n', trust: 1 });
  const sameHand = worth({ same: 'b', method: 'n', source: 'hand', trust: 1 });
  const sameMethod = worth({ same: 'b', method: 'm', source: 'hand', trust: 1 });
  const again = worth({ ...one, source: 'hand' });
  expect(stranger).toBe(2);
  expect(again).toBeLessThan(sameMethod);
  expect(sameMethod).toBeLessThan(sameHand);
  expect(sameHand).toBeLessThan(stranger);
});

test('one method at two places shares its errors only about what both see, or neither', () => {
  const [here, there] = [witness('look-gears@extruder'), witness('look-gears@extruder')];
  const stub = [at('extruder')];
  expect(weightsOf([here, there])(stub)).toEqual([1 / 1.7, 1 / 1.7]);
  const tugs = [...places.keys()].filter((key) => key.startsWith('tug@')).slice(0, 2);
  const [a, b] = tugs.map(witness) as [Witness, Witness];
  const own = at(a.place?.station ?? '');
  // The first one sees its own coupler, the second one does not: each is a witness of its own against that coupler.
  expect(weightsOf([a, b])([own])).toEqual([1, 1]);
  // Neither sees the nozzle: a loose hand that calls both loose is one witness and a bit.
  expect(total(weightsOf([a, b])([at('nozzle')]))).toBeCloseTo(2 / 1.3, 9);
});

test('what a check would add once more is less than it added first, and never nothing', () => {
  const place = places.get('look-gears@extruder');
  if (!place) throw new Error('test data');
  const extruder = [at('extruder')];
  let last = 1;
  for (let n = 0; n < 6; n++) {
    const added = addedWeight(
      Array.from({ length: n }, () => witness(place.key)),
      place,
    )(extruder);
    expect(added).toBeLessThanOrEqual(last);
    expect(added).toBeGreaterThanOrEqual(0.05);
    last = added;
  }
});
