import { FormatError, parseShopCatalogue } from '../formats/index';
import { dunlin } from '../testing/machines';
import { routeOf } from '../path/route';
import { causesOf } from '../observation/causes';
import { deliveredCatalogue as delivered } from './index';
import { catalogueFaults } from './faults';
import {
  changeBetween,
  noShopChanges,
  soundCatalogue,
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
    { kind: 'modes', id: 'stub', op: 'change', fields: { shows: { taste: { bad: 0.5 } } } },
    /changes\/0\/fields\/shows\/taste: there is no dimension "taste"/,
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

describe('no word leads nowhere', () => {
  const remedy = (fields: Record<string, unknown>): ShopChange => ({
    kind: 'remedies',
    id: 'needle',
    op: 'change',
    fields,
  });
  const check = (fields: Record<string, unknown>): ShopChange => ({
    kind: 'checks',
    id: 'needle',
    op: 'change',
    fields,
  });
  const mode = (fields: Record<string, unknown>): ShopChange => ({ kind: 'modes', id: 'stub', op: 'change', fields });
  test.each<[string, ShopChange, RegExp]>([
    ['caution', remedy({ cautions: ['dragons'] }), /no caution "dragons"/],
    ['tool', remedy({ tools: ['wand'] }), /no tool "wand"/],
    ['caution of a check', check({ cautions: ['dragons'] }), /no caution "dragons"/],
    ['tool of a check', check({ tools: ['wand'] }), /no tool "wand"/],
    ['parameter', mode({ only: { param: 'mood', is: ['good'] } }), /no parameter "mood"/],
    ['parameter of a condition', remedy({ when: [{ param: 'mood', is: ['good'] }] }), /no parameter "mood"/],
    ['trait', mode({ raised: [{ by: 2, why: 'x', trait: ['cheerful'] }] }), /no trait "cheerful"/],
    ['history', mode({ raised: [{ by: 2, why: 'x', history: ['danced'] }] }), /no history "danced"/],
    ['material', remedy({ materials: ['cheese'] }), /no material "cheese"/],
    ['reading', mode({ reads: { mood: { p: 1, mean: 1, sd: 1 } } }), /no reading "mood"/],
    ['placeholder', remedy({ how: 'Turn it by {magic}.' }), /"\{magic\}" stands for nothing/],
    [
      'symptom value',
      { kind: 'symptoms', id: 'thin', op: 'change', fields: { when: { strand: ['sad'] } } },
      /"strand" has no value "sad"/,
    ],
    [
      'dimension',
      { kind: 'symptoms', id: 'thin', op: 'change', fields: { when: { taste: ['bad'] } } },
      /no dimension "taste"/,
    ],
    [
      'finding of what was done before',
      { kind: 'before', id: 'cold-pulled', op: 'change', fields: { finding: { check: 'prayer', result: 'x' } } },
      /no check "prayer"/,
    ],
    [
      'remedy of a proof',
      { kind: 'proofs', id: 'mark-still', op: 'change', fields: { remedies: ['prayer'] } },
      /no remedy "prayer"/,
    ],
    [
      'hazard of a tool',
      { kind: 'tools', id: 'needle', op: 'change', fields: { hazard: 'dragons' } },
      /no caution "dragons"/,
    ],
    [
      'a value that others name',
      { kind: 'dimensions', id: 'strand', op: 'change', fields: { values: ['even', 'thin'] } },
      /"strand" has no value/,
    ],
    ['melt without heat', remedy({ heat: 'cold', power: 'off' }), /what leaves as melt needs heat/],
  ])('%s', (_name, change, message) => {
    expect(fault(change)).toMatch(message);
  });
});

test('a change that holds together no more is left out and said; the others stay, also one that needs another', () => {
  const tool: ShopChange = { kind: 'tools', id: 'own-hook', op: 'add', fields: { name: 'own hook' } };
  const uses: ShopChange = { kind: 'remedies', id: 'needle', op: 'change', fields: { tools: ['needle', 'own-hook'] } };
  const bad: ShopChange = { kind: 'remedies', id: 'rod', op: 'change', fields: { tools: ['gone-tool'] } };
  const { catalogue, leftOut } = soundCatalogue(delivered, shop(uses, bad, tool, weight));
  expect(leftOut).toEqual([{ change: bad, why: 'there is no tool "gone-tool"' }]);
  expect(catalogue.remedies.find(({ id }) => id === 'needle')?.tools).toContain('own-hook');
  expect(catalogue.modes.find(({ id }) => id === 'stub')?.weight).toBe(3);
  expect(catalogueFaults(catalogue)).toEqual([]);
  expect(soundCatalogue(delivered, shop(weight)).leftOut).toEqual([]);
});

test('a change of version 1 is brought to the present: what is to be open becomes places, tools that were written out become records', () => {
  const fields = {
    name: 'Own way',
    how: 'Do it.',
    minutes: 3,
    heat: 'cold',
    power: 'off',
    needs: 'open',
    cures: 0.5,
    origin: 'here',
    tools: ['fine tweezers', 'a bent spoon'],
  };
  const old: ShopChange = { kind: 'remedies', id: 'own-way', op: 'add', fields };
  const changed = withShopChanges(delivered, shop(old));
  expect(changed.remedies.find(({ id }) => id === 'own-way')).toMatchObject({
    places: ['here'],
    tools: ['fine-tweezers', 'a-bent-spoon'],
  });
  expect(changed.tools.find(({ id }) => id === 'a-bent-spoon')?.name).toBe('a bent spoon');
  expect(fault(old)).toBe('accepted');
});
