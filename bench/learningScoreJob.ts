import { readFileSync } from 'node:fs';
import { parentPort, workerData } from 'node:worker_threads';
import {
  causesOf,
  checksFor,
  decide,
  deliveredCatalogue,
  evidenceOf,
  modelOf,
  QUICK,
  removedBy,
  routeOf,
  weigh,
  type Catalogue,
  type Finding,
} from '@zealous/core';
import { parseMachine } from '@zealous/core/formats';
import { BenchWork, drawOrder, type HiddenOrder } from '@zealous/core/practice';
import { luckOf, seeded, taught, withWeights, worldOf } from './worlds';

export interface ScoreJob {
  readonly file: string;
  readonly world: number;
  readonly orders: number;
  readonly seed: number;
}

/** Bits by which the truth surprises, at the taking-in and after six findings. */
type Bits = readonly [number, number];
export type Scores = Readonly<
  Record<'delivered' | 'learned' | 'knowing' | 'learned weights' | 'knowing weights', Bits>
>;

const FINDINGS = 6;

function beliefOf(hidden: HiddenOrder, catalogue: Catalogue, findings: readonly Finding[]) {
  const kase = { ...hidden.kase, catalogue };
  const route = routeOf(kase.machine, kase.lane);
  const causes = causesOf(kase, route);
  const list = checksFor(catalogue, kase.machine, route);
  const model = modelOf(kase, route, causes, list);
  const evidence = evidenceOf(kase, causes, new Map(list.map((place) => [place.key, place])), findings);
  return { model, causes, evidence, suspicion: weigh(causes, model.prior, evidence, removedBy(kase, causes), QUICK) };
}

function bits(hidden: HiddenOrder, catalogue: Catalogue, findings: readonly Finding[]): number {
  const { causes, suspicion } = beliefOf(hidden, catalogue, findings);
  const share = hidden.faults.map(({ id }) => suspicion.share[causes.findIndex((cause) => cause.id === id)] ?? 0);
  return -Math.log2(Math.max(1e-6, share.length ? Math.max(...share) : (suspicion.share.at(-1) ?? 0)));
}

/** The six checks that the tracer would do first with the delivered catalogue, and what they show. */
function lookedAt(hidden: HiddenOrder, seed: number): readonly Finding[] {
  const work = new BenchWork(hidden, luckOf(seed), {});
  for (let turn = 0; turn < FINDINGS; turn++) {
    const { model, evidence, suspicion } = beliefOf(hidden, deliveredCatalogue, work.findings);
    const barred = new Set(work.findings.map(({ key }) => key));
    const best = decide(model, suspicion, work.bench, evidence, barred, new Set(), { depth: 1 }).checks[0];
    if (!best) break;
    work.check(best.place);
  }
  return work.findings;
}

function run({ file, world, orders, seed }: ScoreJob): readonly Scores[] {
  const machine = parseMachine(JSON.parse(readFileSync(file, 'utf8')));
  const truth = worldOf(seed, world);
  const learned = taught(machine, truth, seed + 31 * world);
  return Array.from({ length: orders }, (_, i): Scores => {
    const hidden = drawOrder(machine, truth, seeded(seed + 1000 * world + i), deliveredCatalogue);
    const findings = lookedAt(hidden, seed * 2 + 1000 * world + i);
    const of = (catalogue: Catalogue): Bits => [bits(hidden, catalogue, []), bits(hidden, catalogue, findings)];
    return {
      delivered: of(deliveredCatalogue),
      learned: of(learned),
      knowing: of(truth),
      'learned weights': of(withWeights(deliveredCatalogue, learned)),
      'knowing weights': of(withWeights(deliveredCatalogue, truth)),
    };
  });
}

parentPort?.postMessage(run(workerData as ScoreJob));
