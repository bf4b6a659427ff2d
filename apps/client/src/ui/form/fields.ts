/** How a field of a record is asked for. Bounds and lengths are those of the record's contract, see `limited` of the catalogue. */
export type FieldKind =
  | { readonly type: 'text'; readonly lines?: boolean; readonly most?: number }
  /** Asked in another unit than it is kept in: `asked` of those make one of these. */
  | { readonly type: 'number'; readonly min?: number; readonly max?: number; readonly asked?: number }
  | { readonly type: 'one'; readonly options: readonly Option[]; readonly optional?: boolean }
  | { readonly type: 'several'; readonly options: readonly Option[] }
  | { readonly type: 'flag' }
  /** Words or numbers with commas between them. */
  | { readonly type: 'words' }
  | { readonly type: 'numbers' }
  /** Names with a number each. */
  | {
      readonly type: 'weights';
      readonly options: readonly Option[];
      readonly usual: number;
      readonly min?: number;
      readonly max?: number;
    }
  /** A record in the record, or none; what is needed is always there, without a frame. */
  | {
      readonly type: 'part';
      readonly fields: readonly RecordField[];
      readonly fresh: Loose;
      readonly needed?: boolean;
    }
  /** Records in a row. With `key`, they stand in the record under their own name, which is that field of each. */
  | {
      readonly type: 'rows';
      readonly fields: readonly RecordField[];
      readonly fresh: Loose;
      readonly add: string;
      readonly key?: string;
      /** The list stays where it holds nothing. */
      readonly needed?: boolean;
    }
  /** Asked for by whoever shows the form. */
  | { readonly type: 'own'; readonly name: string };

export type Loose = Readonly<Record<string, unknown>>;

export interface Option {
  readonly id: string;
  readonly label: string;
}

export interface RecordField {
  readonly name: string;
  readonly label: string;
  readonly kind: FieldKind;
}

const options = (of: Readonly<Record<string, string>>): readonly Option[] =>
  Object.entries(of).map(([id, label]) => ({ id, label }));

export const text = (name: string, label: string, lines = false, most?: number): RecordField => ({
  name,
  label,
  kind: { type: 'text', ...(lines ? { lines } : {}), ...(most === undefined ? {} : { most }) },
});
export const number = (name: string, label: string, min?: number, max?: number): RecordField => ({
  name,
  label,
  kind: { type: 'number', ...(min === undefined ? {} : { min }), ...(max === undefined ? {} : { max }) },
});
/** A number that is asked in another unit, of which so many make one of those in which it is kept. */
export const numberAs = (name: string, label: string, asked: number): RecordField => ({
  name,
  label,
  kind: { type: 'number', asked },
});
export const one = (
  name: string,
  label: string,
  of: Readonly<Record<string, string>>,
  optional = false,
): RecordField => ({
  name,
  label,
  kind: { type: 'one', options: options(of), ...(optional ? { optional } : {}) },
});
export const several = (name: string, label: string, list: readonly Option[]): RecordField => ({
  name,
  label,
  kind: { type: 'several', options: list },
});
export const flag = (name: string, label: string): RecordField => ({ name, label, kind: { type: 'flag' } });
export const words = (name: string, label: string): RecordField => ({ name, label, kind: { type: 'words' } });
