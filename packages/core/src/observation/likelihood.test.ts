import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { routeOf } from '../path/route';
import { dunlin } from '../testing/machines';
import { causesOf, onsetLikelihood, type Cause } from './causes';
import { answerLikelihood, symptomLikelihood } from './likelihood';
import { checksFor, type CheckAtPlace } from '../bench/places';

const route = routeOf(dunlin);
const causes = causesOf({ machine: dunlin, catalogue, symptoms: [], before: [] }, route);
const cause = (id: string): Cause => {
  const found = causes.find((item) => item.id === id);
  if (!found) throw new Error(`no cause ${id}`);
  return found;
};
const place = (key: string): CheckAtPlace => {
  const found = checksFor(catalogue, dunlin, route).find((item) => item.key === key);
  if (!found) throw new Error(`no check ${key}`);
  return found;
};

const results = (key: string, id: string): readonly number[] =>
  place(key).check.results.map((result) => answerLikelihood(catalogue, place(key), { result: result.id }, cause(id)));

describe('named results, worked by hand from the catalogue’s numbers', () => {
  test('a stub in reach: blocked 0.62, a loose piece 0.22, drags 0.1, and the check’s own errors', () => {
    const { miss, falseAlarm } = place('push-strand@gate-a>end').check;
    const [stops = 0, ahead = 0, drags = 0, passes = 0] = results('push-strand@gate-a>end', 'hub/stub');
    // A fifth of the misses takes it for one of the two other abnormal results.
    const other = (0.2 * miss) / 2;
    expect(stops).toBeCloseTo(0.62 * (1 - miss) + (0.22 + 0.1) * other + (0.06 * falseAlarm) / 3, 9);
    expect(drags).toBeCloseTo(0.1 * (1 - miss) + (0.62 + 0.22) * other + (0.06 * falseAlarm) / 3, 9);
    expect(passes).toBeCloseTo(0.06 * (1 - falseAlarm) + 0.94 * 0.8 * miss, 9);
    expect(stops + ahead + drags + passes).toBeCloseTo(1, 12);
  });

  test('out of reach only the false alarm is left', () => {
    const { falseAlarm } = place('push-strand@gate-a>port-a').check;
    expect(results('push-strand@gate-a>port-a', 'hub/stub').at(-1)).toBeCloseTo(1 - falseAlarm, 12);
  });

  test('a swap cures what it takes out and leaves the rest', () => {
    expect(results('swap-nozzle@nozzle', 'nozzle/tip-particles')[0]).toBeCloseTo(0.95, 9);
    expect(results('swap-nozzle@nozzle', 'hub/stub')[0]).toBeCloseTo(0.05, 9);
  });

  test('another filament cures what only this one brings out, wherever it sits: filled in a fine bore, too cold for it', () => {
    const spool = causes.find(({ mode, stop }) => mode.id === 'filament-wet' && stop.station.kind === 'spool');
    const swap = `swap-spool@${spool?.stop.station.id}`;
    expect(results(swap, spool?.id ?? '')[0]).toBeCloseTo(0.95, 9);
    expect(results(swap, 'nozzle/bore-small')[0]).toBeCloseTo(0.95, 9);
    expect(results(swap, 'job/too-cold')[0]).toBeCloseTo(0.95, 9);
    expect(results(swap, 'nozzle/tip-particles')[0]).toBeCloseTo(0.05, 9);
  });

  test('an answer that is given no more counts as all those that it may have meant', () => {
    const job = place('compare-settings@job');
    const old = job.check.earlier?.[0];
    expect(old?.stands.length).toBeGreaterThan(5);
    const under = (result: string, id: string): number => answerLikelihood(catalogue, job, { result }, cause(id));
    for (const id of ['job/steps-wrong', 'job/too-cold', 'block/target-unset', 'nozzle/nozzle-worn'])
      expect(under('differs', id)).toBeCloseTo(
        (old?.stands ?? []).reduce((sum, stand) => sum + under(stand, id), 0),
        12,
      );
    // Today's answer tells the two apart, the old one does not.
    expect(under('steps', 'job/steps-wrong')).toBeGreaterThan(20 * under('steps', 'job/too-cold'));
    expect(under('differs', 'job/steps-wrong')).toBeCloseTo(under('differs', 'job/too-cold'), 9);
  });

  test('several dimensions in one result: the first that shows is reported, noisy-or', () => {
    // "Clicks" is seen when the grip knocks; "bubbles" when the strand bubbles. One symptom sees one dimension here.
    const symptom = catalogue.symptoms.find((item) => item.id === 'thin');
    const p = symptomLikelihood(catalogue, 'thin', cause('extruder/gears-worn'));
    // strand thin 0.65, pulses 0.15
    expect(p).toBeCloseTo(0.8 * (1 - (symptom?.miss ?? 0)) + 0.2 * (symptom?.falseAlarm ?? 0), 9);
    expect(() => symptomLikelihood(catalogue, 'ghost', cause('hub/stub'))).toThrow(/no symptom/);
  });
});

describe('numbers count as numbers', () => {
  test('a depth is likeliest where the cause sits, and falls off with its spread', () => {
    const push = place('push-strand@gate-a>end');
    const hub = route.stops.find((stop) => stop.station.id === 'hub');
    const middle = ((hub?.fromMm ?? 0) + (hub?.toMm ?? 0)) / 2 - (push.entryMm ?? 0);
    const at = (offset: number): number =>
      answerLikelihood(catalogue, push, { result: 'stops', value: middle + offset }, cause('hub/stub'));
    expect(at(0)).toBeGreaterThan(at(20));
    expect(at(20)).toBeGreaterThan(at(50));
    expect(at(-50)).toBeGreaterThan(0);
    // Far away only a stray stop is left, which every place shares.
    expect(at(-400)).toBeLessThan(at(0) / 50);
  });

  test('a stop without a depth still tells that it stopped', () => {
    const push = place('push-strand@gate-a>end');
    const at = route.stops.find((stop) => stop.station.id === 'hub')?.toMm ?? 0;
    const whole = answerLikelihood(catalogue, push, { result: 'stops' }, cause('hub/stub'));
    const split = answerLikelihood(catalogue, push, { result: 'stops', low: 0, high: at + 300 }, cause('hub/stub'));
    expect(whole).toBeGreaterThan(0.55);
    expect(split).toBeCloseTo(whole, 1);
  });

  test('86 mm of 100 speaks for worn gears against a sound extruder, 99.6 the other way round', () => {
    const feed = place('feed-100@extruder');
    const ratio = (mm: number): number =>
      answerLikelihood(catalogue, feed, { result: 'mm', value: mm }, cause('extruder/gears-worn')) /
      answerLikelihood(catalogue, feed, { result: 'mm', value: mm }, cause('nozzle/nozzle-worn'));
    expect(ratio(86)).toBeGreaterThan(20);
    expect(ratio(99.6)).toBeLessThan(0.3);
    expect(() => answerLikelihood(catalogue, feed, { result: 'mm' }, cause('hub/stub'))).toThrow(/needs a value in mm/);
  });
});

test('a needle from below points to the tip when it stops early, to the heat break when it goes deep', () => {
  const needle = place('needle@nozzle');
  const at = (mm: number, id: string): number =>
    answerLikelihood(catalogue, needle, { result: 'tip', value: mm }, cause(id));
  expect(at(1, 'nozzle/tip-particles')).toBeGreaterThan(5 * at(1, 'break/break-plug'));
  expect(at(27, 'break/break-plug')).toBeGreaterThan(5 * at(27, 'nozzle/tip-particles'));
});

test('a sound pull is worked out from the path: bends, tube and fittings; a tangled spool reads well above it', () => {
  const gauge = place('pull-gauge@extruder');
  // Spool 0.8 N, gate, buffer and coupler 0.1 each, 6.3 rad of PTFE at 0.1 by Euler and Eytelwein, port, hub, sensor, cutter.
  expect(gauge.normal?.mean).toBeCloseTo(1.1 * Math.exp(0.63) + 0.4, 6);
  const reading = (n: number, id: string): number =>
    answerLikelihood(catalogue, gauge, { result: 'n', value: n }, cause(id));
  const dragging = route.stops[0]?.station.id ?? '';
  expect(reading(9, `${dragging}/spool-drags`)).toBeGreaterThan(10 * reading(9, 'nozzle/tip-particles'));
});

test('onsets are a distribution for every mode; a named one is likelier than one that is not', () => {
  for (const mode of catalogue.modes)
    expect(catalogue.onsets.reduce((sum, { id }) => sum + onsetLikelihood(catalogue, mode, id), 0)).toBeCloseTo(1, 9);
  const stub = cause('hub/stub').mode;
  // Five named, 4 + 6 + 8 + 2 + 1.6; the other fourteen count 0.2 each.
  expect(catalogue.onsets).toHaveLength(19);
  expect(onsetLikelihood(catalogue, stub, 'sat-loaded')).toBeCloseTo(8 / 24.4, 9);
  expect(onsetLikelihood(catalogue, stub, 'flexible')).toBeCloseTo(0.2 / 24.4, 9);
  // Of most modes the named ones are the rule, the others the exception.
  const named = catalogue.modes.map((mode) =>
    Object.keys(mode.onset ?? {}).reduce((sum, id) => sum + onsetLikelihood(catalogue, mode, id), 0),
  );
  expect(named.filter((p) => p > 0.5).length).toBeGreaterThan(0.8 * named.length);
});

test('a mode’s weight is shared over the stations where it can sit, then raised by what is known', () => {
  const weight = (list: readonly Cause[], mode: string): number =>
    list.filter((item) => item.mode.id === mode).reduce((sum, item) => sum + item.weight, 0);
  expect(weight(causes, 'tip-particles')).toBeCloseTo(8, 9);
  const loaded = causesOf(
    { machine: dunlin, catalogue, symptoms: [], before: [], weeksLoaded: 5, material: 'PLA' },
    route,
  );
  // Twice for weeks loaded, half as much again for a brittle kind.
  expect(weight(loaded, 'stub')).toBeCloseTo(3 * weight(causes, 'stub'), 9);
  expect(loaded.find((item) => item.id === 'hub/stub')?.raisedBy.map((raise) => raise.by)).toEqual([2, 1.5]);
});
