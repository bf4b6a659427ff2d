import { FormatError, parseShopCatalogue } from '../formats/index';
import { dunlin } from '../testing/machines';
import { routeOf } from '../path/route';
import { causesOf } from '../trace/causes';
import { deliveredCatalogue as delivered } from './index';
import {
  catalogueFaults,
  changeBetween,
  noShopChanges,
  withShopChanges,
  type ShopCatalogue,
  type ShopChange,
} from './shop';

const shop = (...changes: ShopChange[]): ShopCatalogue => ({ ...noShopChanges, changes });
const weight: ShopChange = { kind: 'modes', id: 'stub', op: 'change', fields: { weight: 3 } };
const stub = delivered.modes.find((mode) => mode.id === 'stub');
const fault = (...changes: ShopChange[]): string => {
  try {
    parseShopCatalogue(shop(...changes), delivered);
    return 'accepted';
  } catch (error) {
    if (error instanceof FormatError) return error.message;
    throw error;
  }
};

test('the delivered catalogue holds together', () => {
  expect(catalogueFaults(delivered)).toEqual([]);
});

test('a change holds only what differs, so a new delivery changes everything else', () => {
  if (!stub) throw new Error('test data');
  expect(changeBetween('modes', stub, { ...stub, weight: 3 })).toEqual(weight);
  expect(changeBetween('modes', stub, stub)).toBeUndefined();
  const newer = {
    ...delivered,
    modes: delivered.modes.map((mode) => (mode.id === 'stub' ? { ...mode, name: 'Stub', weight: 7 } : mode)),
  };
  expect(withShopChanges(newer, shop(weight)).modes.find((mode) => mode.id === 'stub')).toMatchObject({
    name: 'Stub',
    weight: 3,
  });
});

test('what is retired weighs nothing any more, but is still known', () => {
  const changed = withShopChanges(delivered, shop({ kind: 'modes', id: 'stub', op: 'retire' }));
  expect(changed.modes.some((mode) => mode.id === 'stub')).toBe(true);
  const kase = { machine: dunlin, catalogue: changed, symptoms: [], before: [] };
  expect(causesOf(kase, routeOf(dunlin)).some((cause) => cause.mode.id === 'stub')).toBe(false);
});

test('what is added takes part', () => {
  const fields = {
    name: 'Sand in the path',
    weight: 9,
    where: { tube: 1 },
    shows: { 'passage-cold': { drags: 0.9 } },
    remedies: ['renew-tube'],
  };
  const changed = withShopChanges(delivered, shop({ kind: 'modes', id: 'sand', op: 'add', fields }));
  const kase = { machine: dunlin, catalogue: changed, symptoms: [], before: [] };
  expect(causesOf(kase, routeOf(dunlin)).some((cause) => cause.id === 'tube-a/sand')).toBe(true);
  expect(fault({ kind: 'modes', id: 'sand', op: 'add', fields })).toBe('accepted');
});

test('a change to what is delivered no more has no effect', () => {
  const gone: ShopChange = { kind: 'checks', id: 'dowsing', op: 'change', fields: { minutes: 1 } };
  expect(withShopChanges(delivered, shop(gone)).checks).toEqual(delivered.checks);
});

test.each<[string, ShopChange, RegExp]>([
  [
    'an unknown dimension',
    { kind: 'modes', id: 'stub', op: 'change', fields: { shows: { smell: { bad: 0.5 } } } },
    /changes\/0\/fields\/shows\/smell: there is no dimension "smell"/,
  ],
  [
    'more than certain',
    { kind: 'modes', id: 'stub', op: 'change', fields: { shows: { strand: { none: 0.8, thin: 0.7 } } } },
    /add up to more than 1/,
  ],
  [
    'an unknown remedy',
    { kind: 'modes', id: 'stub', op: 'change', fields: { remedies: ['prayer'] } },
    /no remedy "prayer"/,
  ],
  [
    'a weight out of range',
    { kind: 'modes', id: 'stub', op: 'change', fields: { weight: 50 } },
    /changes\/0\/fields\/weight/,
  ],
  [
    'a field that there is not',
    { kind: 'checks', id: 'tug', op: 'change', fields: { mood: 'good' } },
    /mood: unknown field/,
  ],
  [
    'an added record without its fields',
    { kind: 'checks', id: 'new-one', op: 'add', fields: { name: 'X' } },
    /this field is missing/,
  ],
])('%s is refused with its place', (_name, change, message) => {
  expect(fault(change)).toMatch(message);
});
