/// <reference path="./storage.d.ts" />
import { defaultMetadataStorage } from 'class-transformer/cjs/storage';
import type { ClassConstructor } from 'class-transformer';
import { getMetadataStorage } from 'class-validator';
import { MAP, VALUES, type EntryRule } from './rules';

/** What a form needs to know of one field, read from the rules of its class. */
export interface Limits {
  readonly optional: boolean;
  readonly min?: number;
  readonly max?: number;
  /** Most characters of a text. */
  readonly length?: number;
  /** Words that it may be, or that a list may hold. */
  readonly words?: readonly string[];
  /** The class of a part or of each row. */
  readonly part?: ClassConstructor<object>;
  /** Bounds of the numbers of a map. */
  readonly entry?: { readonly min: number; readonly max: number };
  readonly kind: 'number' | 'text' | 'flag' | 'words' | 'numbers' | 'map' | 'values' | 'part' | 'rows';
}

type Rule = {
  readonly name?: string;
  readonly type: string;
  readonly each?: boolean;
  readonly constraints?: readonly unknown[];
};

const kindOf = (rules: readonly Rule[], nested: boolean): Limits['kind'] => {
  const has = (name: string): boolean => rules.some((rule) => rule.name === name);
  const list = has('isArray');
  if (nested) return list ? 'rows' : 'part';
  if (has(MAP)) return 'map';
  if (has(VALUES)) return 'values';
  if (has('isBoolean')) return 'flag';
  if (has('isNumber') || has('isInt')) return list ? 'numbers' : 'number';
  return list ? 'words' : 'text';
};

const kept = new WeakMap<ClassConstructor<object>, Readonly<Record<string, Limits>>>();

/** Limits of every field of a contract class, by name. A form asks at every letter: they are read once. */
export function limitsOf(of: ClassConstructor<object>): Readonly<Record<string, Limits>> {
  const known = kept.get(of) ?? read(of);
  kept.set(of, known);
  return known;
}

function read(of: ClassConstructor<object>): Readonly<Record<string, Limits>> {
  const rules = getMetadataStorage().getTargetValidationMetadatas(of, '', true, false) as readonly (Rule & {
    readonly propertyName: string;
  })[];
  const names = [...new Set(rules.map(({ propertyName }) => propertyName))];
  return Object.fromEntries(
    names.map((name): [string, Limits] => {
      const own = rules.filter(({ propertyName }) => propertyName === name);
      const first = (rule: string, index = 0): unknown => own.find((one) => one.name === rule)?.constraints?.[index];
      const map = first(MAP) as EntryRule | undefined;
      const part = map ? map.part : defaultMetadataStorage.findTypeMetadata(of, name)?.typeFunction();
      const [min, max, length, words] = [first('min'), first('max'), first('isLength', 1), first('isIn')];
      return [
        name,
        {
          optional: own.some(({ type }) => type === 'conditionalValidation'),
          kind: kindOf(own, part !== undefined && !map),
          ...(typeof min === 'number' ? { min } : {}),
          ...(typeof max === 'number' ? { max } : {}),
          ...(typeof length === 'number' ? { length } : {}),
          ...(Array.isArray(words) ? { words: words as string[] } : {}),
          ...(part ? { part } : {}),
          ...(map?.limits ? { entry: map.limits } : {}),
        },
      ];
    }),
  );
}
