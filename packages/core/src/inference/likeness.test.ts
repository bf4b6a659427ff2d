import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { causesOf, type Cause } from '../observation/causes';
import { machineOfFamily } from '../path/families';
import { routeOf } from '../path/route';
import { plainEvidence } from '../testing/evidence';
import type { Evidence } from './evidence';
import { unlisted } from './likeness';

const machine = machineOfFamily('geared-flexible', 'm', 'M');
const [one, other] = causesOf({ machine, catalogue, symptoms: [], before: [] }, routeOf(machine)) as [Cause, Cause];

/** An answer of a check by two causes; a fault that nobody knows shows it in one case of two. */
const answer = (id: string, given: readonly [number, number], sound: number): Evidence =>
  plainEvidence(id, given, { sound, flat: 0.5, elsewhere: 0.5 });

test('on the path it keeps to one likeness: two answers by hand', () => {
  const both = ['a', 'b'].map((id) => answer(id, [0.9, 0.1], 0.2));
  const { log, aside, like } = unlisted([one, other], [0.5, 0.5], both);
  // A fifth of each answer is anyhow: 0.8 · 0.9 + 0.2 · 0.5 and 0.8 · 0.1 + 0.2 · 0.5.
  const [a, b] = [0.5 * 0.82 ** 2, 0.5 * 0.18 ** 2];
  const [shows, lies] = [0.5 * (a + b), 0.5 * 0.2 ** 2];
  expect(Math.exp(log)).toBeCloseTo(shows + lies, 12);
  expect(aside).toBeCloseTo(lies / (shows + lies), 12);
  expect(like[0]).toBeCloseTo(a / (a + b), 12);
  expect(like[1]).toBeCloseTo(b / (a + b), 12);
});

test('aside of the path it makes a complaint like a listed one, and checks say nothing of which', () => {
  const complaint: Evidence = { ...answer('symptom:thin', [0.9, 0.1], 0.5), symptom: 'thin' };
  const checks = [answer('c', [0.01, 0.6], 0.9)];
  const { log } = unlisted([one, other], [0.8, 0.2], [complaint, ...checks]);
  const shows = 0.8 * 0.82 * (0.8 * 0.01 + 0.1) + 0.2 * 0.18 * (0.8 * 0.6 + 0.1);
  const lies = (0.8 * 0.82 + 0.2 * 0.18) * 0.9;
  expect(Math.exp(log)).toBeCloseTo(0.5 * shows + 0.5 * lies, 12);
});

test('when it began is told by what a fault is: no likeness comes of it', () => {
  const onset: Evidence = { ...answer('onset:after-work', [0.9, 0.1], 0.4), onset: 'after-work', elsewhere: 0.4 };
  const { like, log } = unlisted([one, other], [0.7, 0.3], [onset]);
  expect(like[0]).toBeCloseTo(0.7, 12);
  expect(Math.exp(log)).toBeCloseTo(0.4, 12);
});
