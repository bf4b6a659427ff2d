import { limitsOf, type Limits } from '@zealous/contracts/catalogue';
import type { FieldKind, RecordField } from './fields';

type Contract = Parameters<typeof limitsOf>[0];

function bounded(kind: FieldKind, limits: Limits): FieldKind {
  switch (kind.type) {
    case 'text':
      return { ...kind, ...(limits.length === undefined ? {} : { most: limits.length }) };
    case 'number':
      return {
        ...kind,
        ...(limits.min === undefined ? {} : { min: limits.min }),
        ...(limits.max === undefined ? {} : { max: limits.max }),
      };
    case 'one':
      return { ...kind, optional: limits.optional };
    case 'weights':
      return { ...kind, ...limits.entry };
    case 'part':
    case 'rows':
      return limits.part ? { ...kind, fields: limited(kind.fields, limits.part) } : kind;
    default:
      return kind;
  }
}

/**
 * Fields with the bounds, lengths and options of the contract class that the record is judged by, parts and rows included.
 * A field that the contract has not stays as it is; the tests find it.
 */
export function limited(fields: readonly RecordField[], of: Contract): readonly RecordField[] {
  const limits = limitsOf(of);
  return fields.map((field) => {
    const own = limits[field.name];
    return own ? { ...field, kind: bounded(field.kind, own) } : field;
  });
}
