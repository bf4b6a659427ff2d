import { recordFaults } from '@zealous/contracts/catalogue';
import { CHANGE_KINDS, deliveredCatalogue, type CatalogueRecord } from '@zealous/core';
import { fieldsOf } from './fields';
import type { Loose, RecordField } from '../ui/form/fields';
import { fieldAt, recordOf, valuesOf } from '../ui/form/recordValues';

test('every record of the catalogue goes through its form unchanged', () => {
  let records = 0;
  for (const kind of CHANGE_KINDS) {
    const fields = fieldsOf(kind, deliveredCatalogue);
    for (const record of deliveredCatalogue[kind] as readonly CatalogueRecord[]) {
      const loose = record as unknown as Loose;
      expect(recordOf(fields, valuesOf(fields, loose))).toEqual(loose);
      expect(recordFaults(kind, recordOf(fields, valuesOf(fields, loose)))).toEqual([]);
      records++;
    }
  }
  expect(records).toBeGreaterThan(100);
});

const FIELDS: readonly RecordField[] = [
  { name: 'name', label: 'Name', kind: { type: 'text' } },
  {
    name: 'limit',
    label: 'Limit',
    kind: { type: 'part', fresh: {}, fields: [{ name: 'c', label: '°C', kind: { type: 'number' } }] },
  },
  {
    name: 'reads',
    label: 'Reads',
    kind: {
      type: 'rows',
      add: 'Add',
      fresh: {},
      key: 'what',
      fields: [
        { name: 'what', label: 'What', kind: { type: 'text' } },
        { name: 'mean', label: 'Mean', kind: { type: 'number' } },
      ],
    },
  },
];
const RECORD = { name: 'Plug', kept: [1], limit: { c: 200 }, reads: { fed: { mean: 4 }, pull: { mean: 9 } } };

test('rows under their own names are counted in the form; what is emptied is taken out, what is not asked for stays', () => {
  const values = valuesOf(FIELDS, RECORD);
  expect(values['reads']).toEqual([
    { what: 'fed', mean: 4 },
    { what: 'pull', mean: 9 },
  ]);
  expect(recordOf(FIELDS, { ...values, name: '', limit: undefined, reads: [{ what: '', mean: 1 }] })).toEqual({
    kept: [1],
  });
});

test.each([
  ['/name', 'name'],
  ['/limit/c', 'limit.c'],
  ['/limit', 'limit'],
  ['/reads/pull/mean', 'reads.1.mean'],
  ['/reads/pull', 'reads'],
  ['/reads/pull/kept', 'reads'],
  ['/reads/nobody/mean', 'reads'],
  ['/kept/0', ''],
  ['', ''],
])('the fault at %p of the record is said at %p of the form', (pointer, name) => {
  expect(fieldAt(FIELDS, valuesOf(FIELDS, RECORD), pointer)).toBe(name);
});
