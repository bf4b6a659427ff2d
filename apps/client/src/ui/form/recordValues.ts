import type { Loose, RecordField } from './fields';

/**
 * What a form holds of a record, and back. A form counts its rows; a record of the open formats may hold them under their own names.
 * What the form does not ask for goes through unchanged.
 */
export type Values = Record<string, unknown>;

const filledIn = (value: unknown): boolean => value !== undefined && value !== '';

export function valuesOf(fields: readonly RecordField[], record: Loose): Values {
  const values: Values = { ...record };
  for (const { name, kind } of fields) {
    const value = record[name];
    if (value === undefined) continue;
    if (kind.type === 'part') values[name] = valuesOf(kind.fields, value as Loose);
    if (kind.type === 'rows') {
      const { key, fields: inner } = kind;
      const rows = key
        ? Object.entries(value as Readonly<Record<string, Loose>>).map(([id, row]): Loose => ({ [key]: id, ...row }))
        : (value as readonly Loose[]);
      values[name] = rows.map((row) => valuesOf(inner, row));
    }
  }
  return values;
}

/** What is emptied is taken out; a row that stands under its own name waits in the form until it has one. */
export function recordOf(fields: readonly RecordField[], values: Loose): Loose {
  const record: Values = Object.fromEntries(Object.entries(values).filter(([, value]) => filledIn(value)));
  for (const { name, kind } of fields) {
    const value = record[name];
    if (value === undefined) continue;
    if (kind.type === 'part') record[name] = recordOf(kind.fields, value as Loose);
    if (kind.type === 'rows') {
      const { key, fields: inner } = kind;
      const rows = (value as readonly Loose[]).map((row) => recordOf(inner, row));
      const named = key ? rows.filter((row) => filledIn(row[key])) : rows;
      if (named.length === 0 && !kind.needed) delete record[name];
      else record[name] = key ? Object.fromEntries(named.map(({ [key]: id, ...row }) => [String(id), row])) : named;
    }
  }
  return record;
}

/**
 * The field of the form at which a fault of the record is said.
 *
 * @param pointer JSON pointer within the record
 * @returns the field's name as the form knows it, with points between; empty where the form does not ask for it
 */
export function fieldAt(fields: readonly RecordField[], values: Loose, pointer: string): string {
  const [name = '', ...below] = pointer.split('/').slice(1);
  const kind = fields.find((field) => field.name === name)?.kind;
  if (!kind) return '';
  const [id, ...inRow] = below;
  if (kind.type === 'part' && id !== undefined) {
    const inner = fieldAt(kind.fields, (values[name] ?? {}) as Loose, `/${below.join('/')}`);
    return inner ? `${name}.${inner}` : name;
  }
  if (kind.type === 'rows' && id !== undefined) {
    const { key } = kind;
    const rows = (values[name] ?? []) as readonly Loose[];
    const row = key ? rows.findIndex((item) => item[key] === id) : Number(id);
    const inner = inRow.length > 0 && row >= 0 ? fieldAt(kind.fields, rows[row] ?? {}, `/${inRow.join('/')}`) : '';
    // What a row is not asked for is said under the list.
    return inner ? `${name}.${row}.${inner}` : name;
  }
  return name;
}
