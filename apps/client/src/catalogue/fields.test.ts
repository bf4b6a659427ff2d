import { ACTION_FIELDS, CHANGE_KINDS, deliveredCatalogue, OFFER_FIELDS, RECORD_FIELDS } from '@zealous/core';
import catalogueSchema from '../../../../packages/core/src/formats/schemas/catalogue.schema.json';
import type { RecordField } from '../ui/form/fields';
import { fieldsOf } from './fields';

/** Set by the screen itself: the id when it is added, retiring by its own button. */
const ELSEWHERE = ['id', 'retired'];
const properties = catalogueSchema.properties as unknown as Record<
  string,
  { items: { properties: Record<string, unknown> } }
>;
const named = (fields: readonly RecordField[]): readonly string[] => fields.map(({ name }) => name).sort();
const asked = (list: readonly string[]): readonly string[] => list.filter((name) => !ELSEWHERE.includes(name)).sort();

test.each(CHANGE_KINDS)('%s: the type, the published schema and the form have the same fields', (kind) => {
  const own = RECORD_FIELDS[kind];
  expect(asked(Object.keys(properties[kind]?.items.properties ?? {}))).toEqual(asked(own));
  expect(named(fieldsOf(kind, deliveredCatalogue))).toEqual(asked(own));
});

test('actions and offers too, inside a remedy', () => {
  const remedy = fieldsOf('remedies', deliveredCatalogue);
  const rows = (name: string): readonly string[] => {
    const field = remedy.find((one) => one.name === name);
    return field?.kind.type === 'rows' ? named(field.kind.fields) : [];
  };
  expect(rows('actions')).toEqual([...ACTION_FIELDS].sort());
  expect(rows('offers')).toEqual([...OFFER_FIELDS].sort());
  const items = properties['remedies']?.items.properties as Record<string, { items: { properties: object } }>;
  expect(Object.keys(items['actions']?.items.properties ?? {}).sort()).toEqual([...ACTION_FIELDS].sort());
  expect(Object.keys(items['offers']?.items.properties ?? {}).sort()).toEqual([...OFFER_FIELDS].sort());
});
