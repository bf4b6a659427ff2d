import fc from 'fast-check';
import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { routeOf } from '../path/route';
import { dunlin } from '../testing/machines';
import { causesOf } from '../observation/causes';
import type { Case, Finding } from '../observation/context';
import { Forecasts } from './forecasts';
import { liveOf, modelOf } from './model';
import { checksFor } from '../bench/places';
import { evidenceOf } from '../inference/evidence';
import { weigh } from '../inference/suspicion';

const kase: Case = { machine: dunlin, catalogue, symptoms: ['not-reach', 'clicks'], before: [], material: 'PLA' };
const route = routeOf(dunlin);
const causes = causesOf(kase, route);
const places = checksFor(catalogue, dunlin, route);
const byKey = new Map(places.map((place) => [place.key, place]));
const model = modelOf(kase, route, causes, places);
const believed = (findings: readonly Finding[]) =>
  weigh(causes, model.prior, evidenceOf(kase, causes, byKey, findings));
const at = (key: string): number => places.findIndex((place) => place.key === key);

const whole = believed([]);
const { live } = liveOf(model, whole);
const forecasts = new Forecasts(model, whole, live);

test('under every hypothesis the answers of every check are a distribution, however much they repeat others', () => {
  fc.assert(
    fc.property(fc.double({ min: 0.05, max: 1, noNaN: true }), (weight) => {
      const flat = new Forecasts(model, whole, live, () => weight);
      places.forEach((_, index) =>
        live.forEach((_hypothesis, h) => {
          const sum = flat.rows(index).reduce((total, row) => total + (row[h] ?? 0), 0);
          expect(sum).toBeCloseTo(1, 9);
        }),
      );
    }),
    { numRuns: 4 },
  );
});

test('a check that is flattened tells its hypotheses less apart', () => {
  const index = at('free-air@nozzle');
  const flat = new Forecasts(model, whole, live, () => 0.3);
  const spread = (rows: readonly Float64Array[]): number =>
    Math.max(...rows.map((row) => Math.max(...row) / Math.max(1e-9, Math.min(...row))));
  expect(spread(flat.rows(index))).toBeLessThan(spread(forecasts.rows(index)));
});

// What look-ahead expects of a second check must be what is forecast once the first answer is really recorded.
test.each([
  ['listen@extruder', 'knocks', 'feed-by-hand@extruder'],
  ['free-air@nozzle', 'none', 'feed-by-hand@extruder'],
  ['listen@extruder', 'silent', 'free-air@nozzle'],
  ['needle@nozzle', 'in', 'rod@break'],
])('after %s: %s, the second check is forecast as it will be', (first, result, second) => {
  const outcome = (model.outcomes[at(first)] ?? []).findIndex((item) => item.result === result);
  expect(outcome).toBeGreaterThanOrEqual(0);
  const ahead = forecasts.after(at(first), outcome)(at(second));
  const then = believed([{ id: 'f', key: first, result }]);
  const later = new Forecasts(model, then, live).rows(at(second));
  live.forEach(({ causes: [cause, other] }, h) => {
    if (cause === undefined || other !== undefined) return;
    later.forEach((row, o) => expect(ahead[o]?.[h]).toBeCloseTo(row[h] ?? 0, 6));
  });
});

test('a check of another side is forecast as before', () => {
  const second = at('turn-spool@spool-a');
  expect(forecasts.after(at('listen@extruder'), 0)(second)).toBe(forecasts.rows(second));
});
