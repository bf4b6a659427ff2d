import { parsePractice } from '@zealous/core/formats';
import schema from '../../core/src/formats/schemas/practice-record.schema.json';
import { limitsOf } from './catalogue/limits';
import { PracticeRecord, PracticeRound, readPracticeRecord } from './practice';

const round = {
  id: '5d0f0f5e-0000-4000-8000-000000000001',
  person: 'bench 1',
  at: '2026-11-27T09:30:00.000Z',
  level: 'hands',
  hidden: 'gears-and-arm',
  family: 'hub-head',
  outcome: 'cured',
  minutes: 41.5,
  tracerMinutes: 38,
  looks: 3,
  repairs: 2,
  soundRenewed: 0,
  accidents: ['off-hot'],
};
const record = { format: 'zealous-tracer/practice-record', version: 1, person: 'bench 1', rounds: [round] };

test('class and published schema have the same fields', () => {
  expect(Object.keys(limitsOf(PracticeRecord)).sort()).toEqual(Object.keys(schema.properties).sort());
  const rounds = schema.properties.rounds.items;
  expect(Object.keys(limitsOf(PracticeRound)).sort()).toEqual(Object.keys(rounds.properties).sort());
});

test('both take a record as it is saved, and refuse the same faults, said at their place', () => {
  expect(parsePractice(record).rounds).toEqual([round]);
  expect(readPracticeRecord(JSON.stringify(record)).rounds).toEqual([round]);
  const spoiled: readonly (readonly [object, RegExp])[] = [
    [{ ...record, version: 2 }, /\/version: must be 1/],
    [{ ...record, format: 'other' }, /\/format/],
    [{ ...record, rounds: [{ ...round, minutes: -1 }] }, /\/rounds\/0\/minutes/],
    [{ ...record, rounds: [{ ...round, outcome: 'won' }] }, /\/rounds\/0\/outcome/],
    [{ ...record, rounds: [{ ...round, more: 1 }] }, /\/rounds\/0\/more/],
    [{ ...record, rounds: [{ ...round, at: 'yesterday' }] }, /\/rounds\/0\/at/],
  ];
  for (const [file, said] of spoiled) {
    expect(() => parsePractice(file)).toThrow(said.source.includes('must be 1') ? /version/ : said);
    expect(() => readPracticeRecord(JSON.stringify(file))).toThrow(said);
  }
  expect(() => readPracticeRecord('{')).toThrow(/no JSON/);
});
