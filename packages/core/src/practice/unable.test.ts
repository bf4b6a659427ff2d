import { decidedOn, doChecks } from '../testing/caseDecision';
import { CaseBench } from './caseBench';
import type { PracticeCase } from './practiceCase';

/** A cracked arm, and a fan choked with dust on a day on which nobody can look at the fan (common practice, no source). */
const CHOKED: PracticeCase = {
  id: 'arm-cracked-fan-choked',
  family: 'enclosed-shroud',
  story: 'Under-extrudes since winter, worse on the long ones.',
  reason: 'Cracked arm; the fan is choked too.',
  symptoms: ['thin', 'notch', 'stops-midway'],
  onsets: ['slowly', 'after-hours'],
  material: 'PLA',
  faults: [
    {
      station: 'extruder',
      mode: 'arm-cracked',
      sees: {
        'look-gears@extruder': { result: 'cracked' },
        listen: { result: 'slips' },
        'free-air': { result: 'thin' },
        'look-tip': { result: 'chewed' },
      },
    },
    { station: 'sink', mode: 'heat-creep', sees: { 'sink-temp@sink': { result: 'hot' } } },
  ],
};
/** What is done before the arm is renewed, and after it. */
const BEFORE = ['turn-spool@spool', 'look-tip@extruder', 'motor-temp@extruder', 'look-gears@extruder'];
const AFTER = [
  'look-joint@block',
  'sink-temp@sink',
  'listen@extruder',
  'tug@coupler',
  'compare-settings@job',
  'look-gears@extruder',
  'read-print@job',
];
const BARRED = new Set(['feel-fan@sink', 'look-soft@sink']);

test('what cannot be looked at and costs little is tried before a part is renewed on suspicion or somebody is asked', () => {
  const work = new CaseBench(CHOKED);
  doChecks(work, BEFORE);
  work.repair('extruder', 'arm-cracked', work.remedy('renew-arm'));
  doChecks(work, AFTER);
  const { decision, first } = decidedOn(work, BARRED);
  expect(decision.advice).toBe('repair');
  expect(first?.station.id).toBe('sink');
  expect(first?.remedy.replaces).toBeUndefined();
});
