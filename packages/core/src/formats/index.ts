/** Open formats at the border: schema first, then what a schema cannot say. Kept apart from the engine, which needs none of it. */
import Ajv, { type ErrorObject, type ValidateFunction } from 'ajv';
import addFormats from 'ajv-formats';
import { catalogueFaults } from '../catalogue/faults';
import { CHANGE_KINDS, migrateShop, withShopChanges, type ChangeKind, type ShopCatalogue } from '../catalogue/shop';
import type { Catalogue } from '../catalogue/types';
import type { Learned } from '../learn';
import type { OrderEvent, OrderFile } from '../order/events';
import { MACHINE_VERSION, type Machine } from '../path/machine';
import { migrateMachine } from '../path/migrate';
import { machineFaults } from '../path/validate';
import { textFault } from '../text/wellFormed';
import catalogueSchema from './schemas/catalogue.schema.json';
import eventSchema from './schemas/event.schema.json';
import learnedSchema from './schemas/learned.schema.json';
import machineSchema from './schemas/machine.schema.json';
import orderSchema from './schemas/order.schema.json';
import practiceSchema from './schemas/practice-record.schema.json';
import shopSchema from './schemas/shop-catalogue.schema.json';

export const schemas = {
  machine: machineSchema,
  event: eventSchema,
  order: orderSchema,
  catalogue: catalogueSchema,
  'shop-catalogue': shopSchema,
  learned: learnedSchema,
  'practice-record': practiceSchema,
};

/** A file or message that does not fit its format. `path` is a JSON pointer to the place at fault. */
export class FormatError extends Error {
  constructor(
    readonly path: string,
    readonly reason: string,
  ) {
    super(`${path || '/'}: ${reason}`);
    this.name = 'FormatError';
  }
}

const ajv = new Ajv({
  allErrors: false,
  discriminator: true,
  strict: true,
  strictRequired: false,
  allowUnionTypes: true,
});
addFormats(ajv, ['uuid', 'date-time', 'date']);
ajv.addSchema(machineSchema);
ajv.addSchema(eventSchema);

const validators = new Map<string, ValidateFunction>();
const validator = (schema: { $id: string }): ValidateFunction => {
  const known = validators.get(schema.$id) ?? ajv.getSchema(schema.$id) ?? ajv.compile(schema);
  validators.set(schema.$id, known);
  return known;
};

/** What is wrong, in words for the person who wrote the file. */
function describe(error: ErrorObject): FormatError {
  const { instancePath, keyword, params } = error;
  switch (keyword) {
    case 'additionalProperties':
      return new FormatError(
        `${instancePath}/${params['additionalProperty']}`,
        'unknown field; remove it or correct its name',
      );
    case 'required':
      return new FormatError(`${instancePath}/${params['missingProperty']}`, 'this field is missing');
    case 'enum':
      return new FormatError(instancePath, `must be one of: ${(params['allowedValues'] as unknown[]).join(', ')}`);
    case 'const':
      return new FormatError(instancePath, `must be "${params['allowedValue']}"`);
    case 'discriminator':
      return new FormatError(`${instancePath}/${params['tag']}`, `unknown kind "${String(params['tagValue'])}"`);
    default:
      return new FormatError(instancePath, error.message ?? 'does not fit the format');
  }
}

function check<T>(schema: { $id: string }, value: unknown): T {
  const unfit = textFault(value);
  if (unfit) throw new FormatError(unfit.path, unfit.reason);
  const validate = validator(schema);
  if (validate(value)) return value as T;
  const error = validate.errors?.[0];
  throw error ? describe(error) : new FormatError('', 'does not fit the format');
}

/** @throws FormatError with the path of the first fault. */
export function parseMachine(value: unknown): Machine {
  const migrated = migrateMachine(value);
  const version =
    typeof migrated === 'object' && migrated !== null && 'version' in migrated ? migrated.version : undefined;
  if (typeof version === 'number' && version !== MACHINE_VERSION)
    throw new FormatError('/version', `must be "${MACHINE_VERSION}"; this program cannot read version ${version}`);
  const machine = check<Machine>(machineSchema, migrated);
  const fault = machineFaults(machine)[0];
  if (fault) throw new FormatError(fault.path, fault.message);
  return machine;
}

/** @throws FormatError with the path of the first fault. */
export function parseEvent(value: unknown): OrderEvent {
  const event = check<OrderEvent>(eventSchema, value);
  const year = new Date(event.at).getUTCFullYear();
  if (!(year >= FIRST_YEAR && year <= LAST_YEAR))
    throw new FormatError('/at', `the year must lie between ${FIRST_YEAR} and ${LAST_YEAR}; set the clock`);
  return event;
}
/** Years in which an entry can have been made; what lies outside is a clock that is wrong. */
const FIRST_YEAR = 2000;
const LAST_YEAR = 2199;

/** @throws FormatError with the path of the first fault. */
export function parseCatalogue(value: unknown): Catalogue {
  const catalogue = check<Catalogue>(catalogueSchema, value);
  const fault = catalogueFaults(catalogue)[0];
  if (fault) throw new FormatError(fault.path, fault.message);
  return catalogue;
}

/** The shop's changes, together with the delivered catalogue. @throws FormatError with the path of the first fault. */
export function parseShopCatalogue(value: unknown, delivered: Catalogue): ShopCatalogue {
  const shop = check<ShopCatalogue>(shopSchema, migrateShop(value, delivered));
  const whole = withShopChanges(delivered, shop);
  try {
    parseCatalogue(JSON.parse(JSON.stringify(whole)));
  } catch (error) {
    throw error instanceof FormatError ? inChange(shop, whole, error) : error;
  }
  return shop;
}

/** A fault in the whole catalogue, said of the change that brought it. */
function inChange(shop: ShopCatalogue, whole: Catalogue, fault: FormatError): FormatError {
  const [, kind, index, ...rest] = fault.path.split('/');
  const id = CHANGE_KINDS.some((known) => known === kind) ? whole[kind as ChangeKind][Number(index)]?.id : undefined;
  const at = shop.changes.findIndex((change) => change.kind === kind && change.id === id);
  return at < 0
    ? fault
    : new FormatError(`/changes/${at}/fields${rest.length ? `/${rest.join('/')}` : ''}`, fault.reason);
}

/** Somebody’s rounds on the practice bench. @throws FormatError with the path of the first fault. */
export const parsePractice = (value: unknown): { readonly person: string; readonly rounds: readonly unknown[] } =>
  check(practiceSchema, value);

/** @throws FormatError with the path of the first fault. */
export const parseLearned = (value: unknown): Learned => check<Learned>(learnedSchema, value);

const migrateOrder = (value: unknown): unknown =>
  typeof value === 'object' && value !== null && 'machine' in value
    ? { ...value, machine: migrateMachine(value.machine) }
    : value;

/** @throws FormatError with the path of the first fault. */
export function parseOrder(value: unknown): OrderFile {
  const order = check<OrderFile>(orderSchema, migrateOrder(value));
  const fault = machineFaults(order.machine)[0];
  if (fault) throw new FormatError(`/machine${fault.path}`, fault.message);
  return order;
}

/** Text to JSON. @throws FormatError that says where the text breaks off. */
export function parseJson(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch (error) {
    throw new FormatError('', `not JSON: ${(error as Error).message}`);
  }
}
