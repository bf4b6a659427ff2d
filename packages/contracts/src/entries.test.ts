import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';
import schema from '../../core/src/formats/schemas/event.schema.json';
import { limitsOf } from './catalogue/limits';
import { faultsOf } from './catalogue/judge';
import { ENTRIES, type EntryForm } from './entries';
import { EventMessage } from './event';
import { expectSame, type Shape } from './testing';

const bodyOf = (type: EntryForm): Shape =>
  (
    schema.oneOf as unknown as readonly {
      readonly title: string;
      readonly properties: Readonly<Record<string, Shape>>;
    }[]
  ).find(({ title }) => title === type)?.properties['body'] ?? {};
const FORMS = Object.keys(ENTRIES) as EntryForm[];

test.each(FORMS)('%s: class and published schema have the same fields, bounds and words', (type) => {
  const body = bodyOf(type);
  expectSame(ENTRIES[type], body);
  const limits = limitsOf(ENTRIES[type]);
  for (const [name, shape] of Object.entries(body.properties ?? {})) {
    const part = limits[name]?.part;
    if (part) expect(Object.keys(limitsOf(part)).sort()).toEqual(Object.keys(shape.items?.properties ?? {}).sort());
  }
});

test('a list that holds something twice, a day that is none and a number in words are refused, each at its field', () => {
  const said = (type: EntryForm, body: object): readonly string[] =>
    faultsOf(ENTRIES[type], body).map(({ path, reason }) => `${path}: ${reason}`);
  const intake = { number: '1', machineId: 'dunlin', symptoms: ['a', 'a'], before: [] };
  expect(said('taken-in', intake)).toEqual(['/symptoms: must not hold anything twice']);
  expect(said('closed', { outcome: 'cured', watchOn: '2026-02-30' })).toEqual([
    '/watchOn: must be a day, as 2026-11-26',
  ]);
  expect(said('closed', { outcome: 'cured', minutes: 'ten' })).toEqual(['/minutes: must be a number from 0 to 100000']);
  expect(said('closed', { outcome: 'cured', minutes: 10 })).toEqual([]);
});

test('a message is judged by the class of its entry, with the path from the message on', () => {
  const message = {
    id: '5a170002-0000-4000-8000-0000000000aa',
    at: '2026-11-26T10:00:00.000Z',
    by: 'bench 1',
    type: 'closed',
    body: { outcome: 'lost' },
  };
  const [fault] = validateSync(plainToInstance(EventMessage, message));
  expect(fault?.constraints?.['fitsEntry']).toBe(
    '/body/outcome: must be one of: cured, not-cured, given-back, scrapped, mistake',
  );
});
