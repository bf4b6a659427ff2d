import { CHANGE_KINDS, deliveredCatalogue, type ChangeKind } from '@zealous/core';
import { parseCatalogue, schemas } from '@zealous/core/formats';
import published from '../../../../docs/formats/catalogue.schema.json';
import { limitsOf, RECORDS, recordFaults } from './index';
import { catalogueSchema } from './publish';

type Loose = Record<string, unknown>;
const records = (kind: ChangeKind): readonly Loose[] => deliveredCatalogue[kind] as unknown as readonly Loose[];
const one = (kind: ChangeKind): Loose => ({ ...(records(kind)[0] as Loose) });

test('the published schema and the one that files are read by are what the contracts say: else run `npm run formats`', () => {
  const derived = JSON.parse(JSON.stringify(catalogueSchema())) as unknown;
  expect(schemas.catalogue).toEqual(derived);
  expect(published).toEqual(derived);
});

test.each(CHANGE_KINDS)(
  '%s: every delivered record fits its contract; a field that is strange or missing does not',
  (kind) => {
    for (const record of records(kind)) expect(recordFaults(kind, record)).toEqual([]);
    expect(recordFaults(kind, { ...one(kind), surprise: 1 })).toEqual([
      { path: '/surprise', reason: 'unknown field; remove it or correct its name' },
    ]);
    expect(recordFaults(kind, {}).map(({ reason }) => reason)).toContain('this field is missing');
    expect(recordFaults(kind, {}, true)).toEqual([]);
  },
);

/** One value just inside and one just outside each bound, taken from the contract and put to both judges. */
describe('contract and schema judge alike', () => {
  const accepted = (kind: ChangeKind, record: Loose): boolean => {
    try {
      parseCatalogue({ ...deliveredCatalogue, [kind]: [record, ...records(kind).slice(1)] });
      return true;
    } catch (error) {
      // What the whole says of it (a name that leads nowhere) is not the business of the record.
      return !/must|missing|unknown field/.test((error as Error).message);
    }
  };
  const cases = CHANGE_KINDS.flatMap((kind) =>
    Object.entries(limitsOf(RECORDS[kind])).flatMap(([name, { kind: what, min, max, length }]) =>
      what === 'number' && min !== undefined && max !== undefined
        ? ([min, min - 1, max, max + 1] as const).map((value) => ({ kind, name, value: value as unknown }))
        : what === 'text' && length !== undefined && name !== 'id'
          ? [length, length + 1].map((n) => ({ kind, name, value: 'x'.repeat(n) as unknown }))
          : what === 'flag'
            ? [true, 'yes'].map((value) => ({ kind, name, value: value as unknown }))
            : [],
    ),
  );
  test('bounds of numbers, lengths of texts, yes and no', () => {
    expect(cases.length).toBeGreaterThan(150);
    for (const { kind, name, value } of cases) {
      const record = { ...one(kind), [name]: value };
      const said = recordFaults(kind, record).length === 0;
      expect({ kind, name, value, accepted: accepted(kind, record) }).toEqual({ kind, name, value, accepted: said });
    }
  });
});

test('a fault inside parts, rows and maps is told by its pointer', () => {
  const remedy = { ...one('remedies'), offers: [{ id: 'a', name: 'A', kind: 'gift', price: 1 }] };
  expect(recordFaults('remedies', remedy)).toContainEqual({
    path: '/offers/0/kind',
    reason: 'must be one of: spare, part, kit, assembly, upgrade',
  });
  const mode = { ...one('modes'), shows: { strand: { thin: 2 } }, reads: { fed: { p: 0.5, mean: 90, sd: 0 } } };
  expect(recordFaults('modes', mode)).toEqual([
    { path: '/shows/strand/thin', reason: 'must be a number from 0 to 1' },
    { path: '/reads/fed/sd', reason: 'must be a number from 0.0001 to 1000000' },
  ]);
  expect(recordFaults('modes', { ...one('modes'), where: { attic: 1 } })[0]?.path).toBe('/where/attic');
  expect(recordFaults('checks', { ...one('checks'), quantity: 'much' })[0]?.path).toBe('/quantity');
  expect(recordFaults('modes', null)).toEqual([{ path: '', reason: 'must be an object with fields' }]);
});
