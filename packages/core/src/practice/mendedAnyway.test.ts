import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { checksFor } from '../bench/places';
import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { answeredKeys } from '../decision/answered';
import { decide } from '../decision/decide';
import { modelOf } from '../decision/model';
import { evidenceOf } from '../inference/evidenceOf';
import { weigh } from '../inference/suspicion';
import { CaseBench } from './caseBench';
import type { PracticeCase } from './practiceCase';

const file = join(__dirname, '../../../../cases/nozzle-of-another-length.json');
/** What is done before the joint is tightened in vain, and after it. */
const BEFORE = ['listen', 'feel-fan', 'compare-settings', 'bend-piece', 'turn-spool', 'free-air', 'look-joint'];
const AFTER = ['look-tip', 'watch-temp', 'look-joint', 'feed-100', 'compare-settings'];

test('where one fault is as good as found and more is wrong, no check that tells nothing comes before its repair', () => {
  const work = new CaseBench(JSON.parse(readFileSync(file, 'utf8')) as PracticeCase);
  const { route, causes } = work;
  const places = checksFor(catalogue, work.machine, route);
  const check = (id: string): void => {
    const place = places.find((at) => at.check.id === id);
    if (!place) throw new Error(`no check ${id}`);
    work.check(place);
  };
  [...BEFORE, 'look-nozzle'].forEach(check);
  work.repair('nozzle', 'joint-leak', work.remedy('retighten-nozzle'));
  AFTER.forEach(check);
  const kase = work.kase();
  const model = modelOf(kase, route, causes, places);
  const byKey = new Map(places.map((place) => [place.key, place]));
  const evidence = evidenceOf(kase, causes, byKey, work.findings);
  const suspicion = weigh(causes, model.prior, evidence, model.removed);
  const answered = answeredKeys(model, work.findings);
  const decision = decide(model, suspicion, work.bench, evidence, new Set(), answered, { depth: 2 });
  expect(suspicion.share[causes.findIndex(({ id }) => id === 'nozzle/joint-leak')]).toBeGreaterThan(0.8);
  expect(decision.advice).toBe('repair');
  expect(model.groups[decision.repairOrder[0] ?? -1]?.station.id).toBe('nozzle');
});
