import { FAMILIES, machineOfFamily } from '../path/families';
import { BODIES } from './heatCreep';
import { heatQuestions, heatSentence, hotEndKindOf } from './heatQuestions';

test('the questions of the trade, in the order of their danger: waiting is cooler than switching off hot, a fan cooler than none', () => {
  const asked = heatQuestions({ body: BODIES.lined, ambientC: 22, targetC: 208, tauS: 180, strandMm: 1.75 }, 60);
  const peak = (id: string): number => asked.find((question) => question.id === id)?.answer.peakC ?? NaN;
  expect(asked.map(({ id }) => id)).toEqual(['off', 'waited', 'dead', 'half', 'full']);
  expect(peak('waited')).toBeLessThan(peak('off'));
  expect(peak('full')).toBeLessThan(peak('half'));
  expect(peak('half')).toBeLessThan(peak('dead'));
  for (const { spreadC } of asked) expect(spreadC).toBeGreaterThan(1);
});

test('the sentence says whether, when and where, and how sure', () => {
  const say = (peakC: number, spreadC: number, softAtS?: number): string =>
    heatSentence(
      {
        answer: { peakC, peakAtS: 600, softToMm: 7.6, ...(softAtS === undefined ? {} : { softAtS }) },
        spreadC,
        againstRule: false,
      },
      60,
    );
  expect(say(40, 5)).toBe('The strand in the cold zone stays at 40 ± 5 °C at most: it does not soften.');
  expect(say(55, 5)).toMatch(/gets to 55 ± 5 °C: below 60 °C where it softens, but not surely/);
  expect(say(90, 5, 400)).toBe(
    'The strand in the cold zone softens after 7 min, up to 8 mm above the break; it gets to 90 ± 5 °C.',
  );
  expect(say(62, 5, 45)).toMatch(/softens after 45 s, .* 62 ± 5 °C, so it is close\.$/);
});

test('what kind of hot end a machine has is read from its own stations', () => {
  const kinds = new Set(FAMILIES.map(({ id }) => hotEndKindOf(machineOfFamily(id, 'm', 'M'))));
  expect([...kinds].sort()).toEqual(['all-metal', 'lined', 'one-piece']);
});

test('switching off hot is never told to be safe, whatever is reckoned; after waiting the rule is kept', () => {
  const asked = heatQuestions(
    { body: BODIES['one-piece'], ambientC: 22, targetC: 208, tauS: 180, strandMm: 1.75 },
    147,
  );
  expect(asked.filter(({ againstRule }) => againstRule).map(({ id }) => id)).toEqual(['off']);
  for (const question of asked)
    expect([question.id, /All the same, let it cool below 100 °C/.test(heatSentence(question, 147))]).toEqual([
      question.id,
      question.againstRule,
    ]);
});
