import fc from 'fast-check';
import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { routeOf } from '../path/route';
import { dunlin } from '../testing/machines';
import { causesOf } from '../observation/causes';
import type { Case, Finding } from '../observation/context';
import { Forecasts } from './forecasts';
import { liveOf, modelOf } from './model';
import { checksFor } from '../bench/places';
import { evidenceOf } from '../inference/evidenceOf';
import { Joint } from '../inference/joint';
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

// Another way to the same number: the likelihood of the answer once it is really recorded, by the engine that weighs sets.
test('what several faults at once would show is forecast as it is weighed when it is found', () => {
  const untold: Case = { ...kase, symptoms: [] };
  const blank = modelOf(untold, route, causes, places);
  const reached = (place: (typeof places)[number]) =>
    causes.flatMap(({ stop }, c) => (place.reach.has(stop.index) ? [c] : []));
  const nothing = weigh(causes, blank.prior, []);
  let compared = 0;
  fc.assert(
    fc.property(
      fc.constantFrom(
        ...places.flatMap(({ check: { quantity, swap, asks, items } }, i) =>
          quantity || swap || asks || items ? [] : [i],
        ),
      ),
      fc.infiniteStream(fc.nat()),
      (index, numbers) => {
        const place = places[index] as (typeof places)[number];
        const near = reached(place);
        const draw = (): number => near[(numbers.next().value as number) % near.length] ?? 0;
        const sets = [2, 3, 4].map((n) => [...new Set(Array.from({ length: n }, draw))].sort((a, b) => a - b));
        const rows = new Forecasts(
          blank,
          nothing,
          sets.map((set, h) => ({ index: h, causes: set })),
        ).rows(index);
        // Where a strand stopped may be told as well: all depths together are the answer without one.
        const outcomes = blank.outcomes[index] ?? [];
        for (const { id: result } of place.check.results) {
          const joint = new Joint(causes, evidenceOf(untold, causes, byKey, [{ id: 'f', key: place.key, result }]));
          sets.forEach((set, h) => {
            const forecast = outcomes.reduce((sum, o, i) => sum + (o.result === result ? (rows[i]?.[h] ?? 0) : 0), 0);
            expect(forecast).toBeCloseTo(Math.exp(joint.logLikelihood(set)), 6);
            compared += set.length > 1 ? 1 : 0;
          });
        }
      },
    ),
    { numRuns: 60 },
  );
  expect(compared).toBeGreaterThan(100);
});

test('hypotheses in play: likeliest first, at equal ones the earlier, the rare left out, "something else" last whatever it has', () => {
  const p = [0.1, 0.3, 0.0005, 0.001, 0.3, 0.2, 0.0001];
  const sets = p.slice(0, -1).map((share, i) => ({ causes: [i, i + 1].slice(0, 1 + (i % 2)), p: share }));
  const of = (most?: number) => liveOf(model, { ...whole, sets, p }, most);
  const all = of();
  expect(all.live.map(({ index }) => index)).toEqual([1, 4, 5, 0, 3, 6]);
  expect(all.live.map(({ causes: set }) => set)).toEqual([[1, 2], [4], [5, 6], [0], [3, 4], []]);
  const sum = 0.3 + 0.3 + 0.2 + 0.1 + 0.001 + 0.0001;
  [0.3, 0.3, 0.2, 0.1, 0.001, 0.0001].forEach((x, h) => expect(all.p[h]).toBeCloseTo(x / sum, 12));
  const few = of(2);
  expect(few.live.map(({ index }) => index)).toEqual([1, 4, 6]);
  expect(few.p[0]).toBeCloseTo(0.3 / 0.6001, 12);
});
