import { CHANGE_KINDS, deliveredCatalogue } from '@zealous/core';
import { limitsOf, RECORDS } from '@zealous/contracts/catalogue';
import type { FieldKind, RecordField } from '../ui/form/fields';
import { fieldsOf } from './fields';

/** Set by the screen itself: the id when it is added, retiring by its own button. */
const ELSEWHERE = ['id', 'retired'];
type Contract = Parameters<typeof limitsOf>[0];

/** Kinds of contract field that a kind of form field can set. */
const CARRIES: Readonly<Record<Exclude<FieldKind['type'], 'own'>, readonly string[]>> = {
  text: ['text'],
  number: ['number'],
  one: ['text'],
  several: ['words'],
  flag: ['flag'],
  words: ['words', 'values'],
  numbers: ['numbers'],
  weights: ['map'],
  part: ['part'],
  rows: ['rows', 'map'],
};

/** Every way in which a form says something else than the contract, parts and rows included. */
function differences(fields: readonly RecordField[], of: Contract, at: string, nested = false): readonly string[] {
  const limits = limitsOf(of);
  const asked = new Set(fields.map(({ name }) => name));
  const missing = Object.keys(limits).filter(
    (name) => !asked.has(name) && !(ELSEWHERE.includes(name) && (!nested || name === 'retired')),
  );
  const found = fields.flatMap(({ name, kind }): readonly string[] => {
    const own = limits[name];
    // A map of records is shown as rows, with the name of each as a field.
    if (!own)
      return at.endsWith('reads') && name === 'reading' ? [] : [`${at}/${name}: the contract has no such field`];
    if (kind.type === 'own') return [];
    const words =
      kind.type === 'one' && own.words
        ? [...own.words].sort().join() ===
          kind.options
            .map(({ id }) => id)
            .sort()
            .join()
        : kind.type !== 'several' || !own.words || kind.options.every(({ id }) => own.words?.includes(id));
    return [
      ...(CARRIES[kind.type].includes(own.kind) ? [] : [`${at}/${name}: ${kind.type} cannot set ${own.kind}`]),
      ...(words ? [] : [`${at}/${name}: other words`]),
      ...(kind.type === 'text' && kind.most === undefined ? [`${at}/${name}: no length`] : []),
      ...(kind.type === 'number' && (kind.min === undefined || kind.max === undefined)
        ? [`${at}/${name}: no bounds`]
        : []),
      ...((kind.type === 'part' || kind.type === 'rows') && own.part
        ? differences(kind.fields, own.part, `${at}/${name}`, true)
        : []),
    ];
  });
  return [...missing.map((name) => `${at}/${name}: the form does not ask for it`), ...found];
}

test.each(CHANGE_KINDS)(
  '%s: the form asks for every field of the contract, in its words and within its bounds',
  (kind) => {
    expect(differences(fieldsOf(kind, deliveredCatalogue), RECORDS[kind], '')).toEqual([]);
  },
);
