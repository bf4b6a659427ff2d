/// <reference path="./storage.d.ts" />
/** The published schema of the catalogue, derived from the contract classes. Used by `npm run formats` and by its test only. */
import { CHANGE_KINDS } from '@zealous/core/kinds';
import { defaultMetadataStorage } from 'class-transformer/cjs/storage';
import type { ClassConstructor } from 'class-transformer';
import { getMetadataStorage } from 'class-validator';
import { validationMetadatasToSchemas } from 'class-validator-jsonschema';
import { ReadingContract, RECORDS } from './records';
import { MAP, mapSchema, saidOf, VALUES, valuesSchema, type EntryRule, type MapOptions } from './rules';

/** Most records of a kind, and the least where it is not none. */
const COUNTS: Readonly<Record<(typeof CHANGE_KINDS)[number], readonly [least: number, most: number]>> = {
  modes: [0, 400],
  checks: [0, 400],
  remedies: [0, 400],
  materials: [0, 200],
  solvents: [0, 40],
  terms: [1, 1],
  tools: [0, 300],
  cautions: [0, 100],
  proofs: [0, 60],
  standing: [0, 60],
  symptoms: [0, 60],
  onsets: [0, 60],
  dimensions: [0, 60],
  before: [0, 60],
};

type Storage = NonNullable<
  NonNullable<Parameters<typeof validationMetadatasToSchemas>[0]>['classTransformerMetadataStorage']
>;
/** What the library takes from a converter. */
type SchemaObject = ReturnType<typeof validationMetadatasToSchemas>[string];
type Schema = Record<string, unknown>;
interface Definition extends Schema {
  properties: Record<string, Schema>;
  required?: string[];
}

/** Classes by name, those of parts included. */
function classesFrom(roots: readonly ClassConstructor<object>[]): ReadonlyMap<string, ClassConstructor<object>> {
  const found = new Map<string, ClassConstructor<object>>();
  const visit = (one: ClassConstructor<object>): void => {
    if (found.has(one.name)) return;
    found.set(one.name, one);
    for (const { propertyName } of getMetadataStorage().getTargetValidationMetadatas(one, '', true, false)) {
      const part = defaultMetadataStorage.findTypeMetadata(one, propertyName)?.typeFunction();
      if (part) visit(part as ClassConstructor<object>);
    }
  };
  roots.forEach(visit);
  return found;
}

/** JSON Schema, draft 7. */
export function catalogueSchema(): Schema {
  const derived = validationMetadatasToSchemas({
    classTransformerMetadataStorage: defaultMetadataStorage as unknown as Storage,
    refPointerPrefix: '#/definitions/',
    additionalConverters: {
      [MAP]: ({ constraints }) => mapSchema(constraints[0] as EntryRule, constraints[1] as MapOptions) as SchemaObject,
      [VALUES]: ({ constraints }) => valuesSchema(constraints[0] as number) as SchemaObject,
      equals: ({ constraints }) => ({ const: constraints[0] as unknown }) as SchemaObject,
    },
  }) as unknown as Readonly<Record<string, Definition>>;
  const classes = classesFrom([...Object.values<ClassConstructor<object>>(RECORDS), ReadingContract]);
  const definitions = Object.fromEntries(
    [...classes]
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([name, one]) => {
        const { properties, required } = derived[name] as Definition;
        const fields = Object.entries(properties).map(([field, schema]): [string, Schema] => {
          const text = saidOf(one, field);
          return [field, text === undefined ? schema : { ...schema, description: text }];
        });
        return [
          name,
          {
            type: 'object',
            properties: Object.fromEntries(fields),
            required: required ?? [],
            additionalProperties: false,
          },
        ];
      }),
  );
  return {
    $schema: 'http://json-schema.org/draft-07/schema#',
    $id: 'urn:zealous-tracer:catalogue:2',
    title: 'What can fail, what can be checked, what can be done',
    type: 'object',
    properties: {
      format: { const: 'zealous-tracer/catalogue' },
      version: { const: 2 },
      ...Object.fromEntries(
        CHANGE_KINDS.map((kind) => [
          kind,
          {
            type: 'array',
            minItems: COUNTS[kind][0],
            maxItems: COUNTS[kind][1],
            items: { $ref: `#/definitions/${RECORDS[kind].name}` },
          },
        ]),
      ),
    },
    required: ['format', 'version', ...CHANGE_KINDS],
    additionalProperties: false,
    definitions,
  };
}
