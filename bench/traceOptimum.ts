/** The tracer against the exact optimum, on machines reduced to a few causes and checks. */
import { readFileSync } from 'node:fs';
import { basename } from 'node:path';
import {
  causesOf,
  checksFor,
  deliveredCatalogue,
  evidenceOf,
  Forecasts,
  laneRuns,
  liveOf,
  modelOf,
  routeOf,
  weigh,
} from '@zealous/core';
import { parseMachine } from '@zealous/core/formats';
import { optimum, reduce, tracerValue } from '@zealous/core/practice';

const CAUSES = 4;
const CHECKS = 4;
const SYMPTOMS = ['clicks', 'thin', 'nothing'] as const;

export function optimaOf(file: string) {
  const machine = parseMachine(JSON.parse(readFileSync(file, 'utf8')));
  const lane = laneRuns(machine)[0]?.id;
  const route = routeOf(machine, lane);
  return SYMPTOMS.map((symptom) => {
    const kase = { machine, catalogue: deliveredCatalogue, symptoms: [symptom], before: [], material: 'PLA' };
    const causes = causesOf(kase, route);
    const places = checksFor(deliveredCatalogue, machine, route);
    const model = modelOf(kase, route, causes, places);
    const evidence = evidenceOf(kase, causes, new Map(places.map((place) => [place.key, place])), []);
    const suspicion = weigh(causes, model.prior, evidence);
    const { live, p } = liveOf(model, suspicion);
    const forecasts = new Forecasts(model, suspicion, live);
    const small = reduce(model, (index) => forecasts.rows(index), live, p, CAUSES, CHECKS);
    const bench = { temperatureC: machine.heat.ambientC, power: 'off' as const, off: new Set<string>() };
    const least = optimum(small, bench);
    const ours = tracerValue(small, bench);
    return {
      machine: basename(file, '.json'),
      seen: symptom,
      optimum: Number(least.toFixed(2)),
      tracer: Number(ours.toFixed(2)),
      'over %': Number((100 * (ours / least - 1)).toFixed(2)),
    };
  });
}
