import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { answeredKeys } from '../decision/answered';
import { decide } from '../decision/decide';
import { modelOf } from '../decision/model';
import { evidenceOf } from '../inference/evidenceOf';
import { weigh } from '../inference/suspicion';
import { checksFor } from '../bench/places';
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
  const { route, causes } = work;
  const places = checksFor(catalogue, work.machine, route);
  const byKey = new Map(places.map((place) => [place.key, place]));
  const check = (key: string): void => {
    const place = byKey.get(key);
    if (!place) throw new Error(`no check ${key}`);
    work.check(place);
  };
  BEFORE.forEach(check);
  const arm = catalogue.remedies.find(({ id }) => id === 'renew-arm');
  if (!arm) throw new Error('no remedy renew-arm');
  work.repair('extruder', 'arm-cracked', arm);
  AFTER.forEach(check);
  const kase = work.kase();
  const model = modelOf(kase, route, causes, places);
  const evidence = evidenceOf(kase, causes, byKey, work.findings);
  const suspicion = weigh(causes, model.prior, evidence, model.removed);
  const decision = decide(model, suspicion, work.bench, evidence, BARRED, answeredKeys(model, work.findings), {
    depth: 2,
  });
  const first = model.groups[decision.repairOrder[0] ?? -1];
  expect(decision.advice).toBe('repair');
  expect(first?.station.id).toBe('sink');
  expect(first?.remedy.replaces).toBeUndefined();
});
