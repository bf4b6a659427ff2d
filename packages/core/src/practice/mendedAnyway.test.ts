import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { decidedOn, doChecks } from '../testing/caseDecision';
import { CaseBench } from './caseBench';
import type { PracticeCase } from './practiceCase';

const file = join(__dirname, '../../../../cases/nozzle-of-another-length.json');
/** What is done before the joint is tightened in vain, and after it. */
const BEFORE = ['listen', 'feel-fan', 'compare-settings', 'bend-piece', 'turn-spool', 'free-air', 'look-joint'];
const AFTER = ['look-tip', 'watch-temp', 'look-joint', 'feed-100', 'compare-settings', 'look-guide'];

test('where one fault is as good as found and more is wrong, no check that tells nothing comes before its repair', () => {
  const work = new CaseBench(JSON.parse(readFileSync(file, 'utf8')) as PracticeCase);
  doChecks(work, [...BEFORE, 'look-nozzle']);
  work.repair('nozzle', 'joint-leak', work.remedy('retighten-nozzle'));
  doChecks(work, AFTER);
  const { decision, share, first } = decidedOn(work);
  expect(share('nozzle/joint-leak')).toBeGreaterThan(0.8);
  expect(decision.advice).toBe('repair');
  expect(first?.station.id).toBe('nozzle');
});
