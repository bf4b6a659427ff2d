import 'reflect-metadata';
import { Type, type ClassConstructor } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  Equals,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsISO8601,
  IsNumber,
  IsString,
  Length,
  Matches,
  Max,
  Min,
  ValidateBy,
  ValidateIf,
  ValidateNested,
} from 'class-validator';

/**
 * The few rules of which every record of the catalogue is made, each put together from class-validator's own. The published
 * schema and the limits of the form are derived from them; see `publish.ts` and `limits.ts`.
 */
const all =
  (...rules: readonly PropertyDecorator[]): PropertyDecorator =>
  (target, property) => {
    for (const rule of rules) rule(target, property);
  };

const ID = /^[A-Za-z0-9][A-Za-z0-9._:-]*$/;
const ID_LENGTH = 60;
const SAYS = 'zealous:says';

/** What the published schema says of a field beside its rule. */
export const Says =
  (text: string): PropertyDecorator =>
  (target, property) =>
    Reflect.defineMetadata(SAYS, text, target, property);

/** The text given by {@link Says}. */
export const saidOf = (of: ClassConstructor<unknown>, property: string): string | undefined =>
  Reflect.getMetadata(SAYS, of.prototype as object, property) as string | undefined;

/** The field may be absent; null is not absence. */
export const Maybe = (): PropertyDecorator => ValidateIf((_record, value) => value !== undefined);

/** A short name by which other records refer to this one. */
export const Id = (): PropertyDecorator => {
  const message = `must be a short name of 1 to ${ID_LENGTH} letters and figures, with . _ : - between`;
  return all(IsString({ message }), Length(1, ID_LENGTH, { message }), Matches(ID, { message }));
};

/** A list of such names. */
export const Ids = (most: number, least = 0): PropertyDecorator => {
  const message = `must be a list of ${least} to ${most} short names`;
  return all(
    IsArray({ message }),
    ArrayMinSize(least, { message }),
    ArrayMaxSize(most, { message }),
    IsString({ each: true, message }),
    Length(1, ID_LENGTH, { each: true, message }),
    Matches(ID, { each: true, message }),
  );
};

/** Words for a person. */
export const Words = (most: number, least = 1): PropertyDecorator => {
  const message = `must be text of ${least} to ${most} characters`;
  return all(IsString({ message }), Length(least, most, { message }));
};

/** A day of the calendar, ISO 8601, without a time. */
export const Day = (): PropertyDecorator => {
  const message = 'must be a day, as 2026-11-30';
  return all(IsISO8601({ strict: true }, { message }), Length(10, 10, { message }));
};

/** A number between two bounds, both included. */
export const Quantity = (min: number, max: number): PropertyDecorator => {
  const message = `must be a number from ${min} to ${max}`;
  return all(
    IsNumber({ allowInfinity: false, allowNaN: false }, { message }),
    Min(min, { message }),
    Max(max, { message }),
  );
};

/** A whole number between two bounds. */
export const Whole = (min: number, max: number): PropertyDecorator => {
  const message = `must be a whole number from ${min} to ${max}`;
  return all(IsInt({ message }), Min(min, { message }), Max(max, { message }));
};

/** A probability. */
export const Share = (): PropertyDecorator => Quantity(0, 1);

/** Numbers in a row, each between two bounds. */
export const Numbers = (least: number, most: number, min: number, max: number): PropertyDecorator => {
  const message = `must be ${least === most ? least : `${least} to ${most}`} numbers from ${min} to ${max}`;
  return all(
    IsArray({ message }),
    ArrayMinSize(least, { message }),
    ArrayMaxSize(most, { message }),
    IsNumber({ allowInfinity: false, allowNaN: false }, { each: true, message }),
    Min(min, { each: true, message }),
    Max(max, { each: true, message }),
  );
};

export const Flag = (): PropertyDecorator => IsBoolean({ message: 'must be true or false' });

/** One of a few words. */
export const OneOf = (words: readonly string[]): PropertyDecorator =>
  IsIn(words, { message: `must be one of: ${words.join(', ')}` });

/** Exactly this word. */
export const Only = (word: string): PropertyDecorator => Equals(word, { message: `must be "${word}"` });

/** Some of a few words, none twice. */
export const SomeOf = (words: readonly string[], least = 0): PropertyDecorator => {
  const message = `must be a list without repeats of: ${words.join(', ')}`;
  return all(
    IsArray({ message }),
    ArrayMinSize(least, { message }),
    ArrayMaxSize(words.length, { message }),
    ArrayUnique({ message }),
    IsIn(words, { each: true, message }),
  );
};

/** A record in the record. */
export const Part = (of: () => ClassConstructor<object>): PropertyDecorator =>
  all(ValidateNested({ message: 'must be an object with fields' }), Type(of));

/** Records in a row. */
export const Rows = (of: () => ClassConstructor<object>, most: number, least = 0): PropertyDecorator => {
  const message = `must be a list of ${least} to ${most}`;
  return all(
    IsArray({ message }),
    ArrayMinSize(least, { message }),
    ArrayMaxSize(most, { message }),
    ValidateNested({ each: true, message: 'must be an object with fields' }),
    Type(of),
  );
};

/** What an entry of a map must be. Maps are what decorators do not carry by themselves; this one is published with its schema. */
export interface EntryRule {
  /** What is wrong, from the pointer below the entry; undefined when nothing is. */
  readonly fault: (value: unknown) => { readonly path: string; readonly reason: string } | undefined;
  readonly schema: Readonly<Record<string, unknown>>;
  readonly limits?: { readonly min: number; readonly max: number };
  /** The class of an entry that is a record of its own. */
  readonly part?: ClassConstructor<object>;
}

export const numberEntry = (min: number, max: number): EntryRule => ({
  fault: (value) =>
    typeof value === 'number' && value >= min && value <= max
      ? undefined
      : { path: '', reason: `must be a number from ${min} to ${max}` },
  schema: { type: 'number', minimum: min, maximum: max },
  limits: { min, max },
});

export const idsEntry = (most: number): EntryRule => ({
  fault: (value) =>
    Array.isArray(value) &&
    value.length <= most &&
    value.every((word) => typeof word === 'string' && word.length <= ID_LENGTH && ID.test(word))
      ? undefined
      : { path: '', reason: `must be a list of up to ${most} short names` },
  schema: {
    type: 'array',
    maxItems: most,
    items: { type: 'string', minLength: 1, maxLength: ID_LENGTH, pattern: ID.source },
  },
});

/** A map of maps. */
export const mapEntry = (inner: EntryRule): EntryRule => ({
  fault: (value) => mapFault(value, inner),
  schema: { type: 'object', additionalProperties: inner.schema },
});

const plain = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

export interface MapOptions {
  readonly keys?: readonly string[];
  readonly least?: number;
}

function mapFault(value: unknown, rule: EntryRule, { keys, least = 0 }: MapOptions = {}) {
  if (!plain(value)) return { path: '', reason: 'must be an object' };
  if (Object.keys(value).length < least) return { path: '', reason: 'must not be empty' };
  for (const [key, entry] of Object.entries(value)) {
    if (keys && !keys.includes(key)) return { path: `/${key}`, reason: `must be one of: ${keys.join(', ')}` };
    const fault = rule.fault(entry);
    if (fault) return { path: `/${key}${fault.path}`, reason: fault.reason };
  }
  return undefined;
}

/** Name under which {@link MapOf} is found among a class's rules, by the schema and by the form. */
export const MAP = 'mapOf';
/** The same for {@link Values}. */
export const VALUES = 'valuesOf';

/** Names with a value each. */
export const MapOf = (rule: EntryRule, options: MapOptions = {}): PropertyDecorator =>
  ValidateBy({
    name: MAP,
    constraints: [rule, options],
    validator: {
      validate: (value) => mapFault(value, rule, options) === undefined,
      defaultMessage: (args) => {
        const fault = mapFault(args?.value, rule, options);
        return fault ? `${fault.path}${fault.path ? ': ' : ''}${fault.reason}` : '';
      },
    },
  });

/** Values of a parameter: words or yes and no. */
export const Values = (most: number): PropertyDecorator => {
  const fits = (value: unknown): boolean =>
    Array.isArray(value) &&
    value.length >= 1 &&
    value.length <= most &&
    value.every((word) => typeof word === 'boolean' || (typeof word === 'string' && word.length <= ID_LENGTH));
  return ValidateBy({
    name: VALUES,
    constraints: [most],
    validator: { validate: fits, defaultMessage: () => `must be a list of 1 to ${most} words, or true or false` },
  });
};

export const valuesSchema = (most: number): Readonly<Record<string, unknown>> => ({
  type: 'array',
  minItems: 1,
  maxItems: most,
  items: { type: ['string', 'boolean'], maxLength: ID_LENGTH },
});

/** The schema of a map, as published. */
export const mapSchema = (rule: EntryRule, { keys, least }: MapOptions): Readonly<Record<string, unknown>> => ({
  type: 'object',
  ...(keys ? { propertyNames: { enum: keys } } : {}),
  ...(least === undefined ? {} : { minProperties: least }),
  additionalProperties: rule.schema,
});
