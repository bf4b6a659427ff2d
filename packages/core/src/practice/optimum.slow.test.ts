import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { routeOf } from '../path/route';
import { dunlin, whelk } from '../testing/machines';
import { causesOf } from '../observation/causes';
import { Forecasts } from '../decision/forecasts';
import { liveOf, modelOf } from '../decision/model';
import { checksFor } from '../bench/places';
import { evidenceOf } from '../inference/evidenceOf';
import { weigh } from '../inference/suspicion';
import type { Case } from '../observation/context';
import type { Machine } from '../path/machine';
import { optimum, reduce, tracerValue } from './optimum';

function reduced(machine: Machine, symptoms: readonly string[], causes: number, checks: number) {
  const kase: Case = { machine, catalogue, symptoms, before: [], material: 'PLA' };
  const route = routeOf(machine);
  const all = causesOf(kase, route);
  const places = checksFor(catalogue, machine, route);
  const model = modelOf(kase, route, all, places);
  const suspicion = weigh(
    all,
    model.prior,
    evidenceOf(kase, all, new Map(places.map((place) => [place.key, place])), []),
  );
  const { live, p } = liveOf(model, suspicion);
  const forecasts = new Forecasts(model, suspicion, live);
  return reduce(model, (index) => forecasts.rows(index), live, p, causes, checks);
}

const CASES: readonly (readonly [string, Machine, readonly string[]])[] = [
  ['Whelk, clicks', whelk, ['clicks']],
  ['Whelk, thin lines', whelk, ['thin']],
  ['Dunlin, does not reach', dunlin, ['not-reach']],
  ['Dunlin, nothing comes', dunlin, ['nothing']],
];

test.each(CASES)(
  '%s, four causes and four checks: within 5 %% of the exact optimum, never below it',
  (_name, machine, symptoms) => {
    const small = reduced(machine, symptoms, 4, 4);
    const bench = { temperatureC: machine.heat.ambientC, power: 'off' as const, off: new Set<string>() };
    const least = optimum(small, bench);
    const ours = tracerValue(small, bench);
    expect(least).toBeGreaterThan(5);
    expect(ours).toBeGreaterThanOrEqual(least - 1e-6);
    expect(ours / least).toBeLessThanOrEqual(1.05);
  },
);

test('with one cause and nothing to check, the optimum is the repair itself', () => {
  const small = reduced(whelk, ['leans'], 1, 0);
  const bench = { temperatureC: whelk.heat.ambientC, power: 'off' as const, off: new Set<string>() };
  expect(optimum(small, bench)).toBeCloseTo(tracerValue(small, bench), 9);
});
