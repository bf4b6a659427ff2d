import {
  deliveredCatalogue,
  machineOfFamily,
  noShopChanges,
  nothingLearned,
  noCounts,
  type ShopChange,
} from '@zealous/core';
import { problemText } from './api';
import { builderReducer, buildingBegun, buildingEnded, built } from './builderSlice';
import { beliefFor, catalogueFrom } from './shopCatalogue';
import { shopReducer, type ShopState } from './shopSlice';

const change: ShopChange = { kind: 'modes', id: 'stub', op: 'change', fields: { weight: 2 } };
const shop: ShopState = { catalogue: { ...noShopChanges, changes: [change] }, learned: nothingLearned, imports: 0 };
const machine = { id: 'dunlin', family: 'hub-head' };
const weight = (state: ShopState, useLearned = true): number =>
  beliefFor(state, useLearned, machine).modes.find((mode) => mode.id === 'stub')?.weight ?? 0;

test('the catalogue in force is one object for as long as the changes stay', () => {
  expect(catalogueFrom(shop)).toBe(catalogueFrom(shop));
  expect(catalogueFrom(shop).modes.find((mode) => mode.id === 'stub')?.weight).toBe(2);
  expect(catalogueFrom({ ...shop, catalogue: noShopChanges })).toBe(deliveredCatalogue);
});

test('what was learned moves the belief, and the switch leaves it out', () => {
  const learned = { ...nothingLearned, shop: { ...noCounts, orders: 9, modes: { stub: { found: 6, expected: 1 } } } };
  expect(weight({ ...shop, learned })).toBeGreaterThan(2);
  expect(weight({ ...shop, learned }, false)).toBe(2);
});

test('the same answer of the server changes nothing, so nothing is worked out again', () => {
  const action = {
    type: 'api/executeQuery/fulfilled',
    payload: JSON.parse(JSON.stringify(shop)) as ShopState,
    meta: { requestStatus: 'fulfilled', requestId: 'r', arg: { type: 'query', endpointName: 'shop' } },
  };
  expect(shopReducer(shop, action)).toBe(shop);
  expect(shopReducer(shop, { ...action, payload: { ...shop, imports: 1 } }).imports).toBe(1);
});

test('a description under way keeps what it was made from until it is given up', () => {
  const was = machineOfFamily('bowden-open', 'whelk', 'Whelk');
  const begun = builderReducer(undefined, buildingBegun({ machine: was, was }));
  const changed = builderReducer(begun, built({ ...was, name: 'Whelk the second' }));
  expect(changed).toMatchObject({ machine: { name: 'Whelk the second' }, was: { name: 'Whelk' } });
  expect(builderReducer(changed, buildingEnded())).toEqual({});
});

test('a problem is told with its place; no answer at all says what to do', () => {
  expect(problemText({ status: 422, data: { detail: 'must be number', path: '/machine/strandMm' } })).toBe(
    '/machine/strandMm: must be number',
  );
  expect(problemText({ status: 409, data: JSON.stringify({ detail: 'Changed meanwhile.' }) })).toBe(
    'Changed meanwhile.',
  );
  expect(problemText({ status: 'FETCH_ERROR' })).toContain('Nothing was stored');
});
