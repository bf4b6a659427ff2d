import {
  DEED_EFFECTS,
  KIND_NAMES,
  PLACES,
  STATION_KINDS,
  type DeedEffect,
  type Catalogue,
  type Hazard,
  type Place,
} from '@zealous/core';
import { flag, number, one, several, text, words, type RecordField } from '../ui/form/fields';

/** Choices by id, in the words of the records. */
export const names = (
  list: readonly { readonly id: string; readonly name: string }[],
): Readonly<Record<string, string>> => Object.fromEntries(list.map(({ id, name }) => [id, name]));
export const STATIONS = STATION_KINDS.map((id) => ({ id: id as string, label: KIND_NAMES[id] }));
type Params = Readonly<Record<string, string>>;

export const toolsOf = (catalogue: Catalogue): RecordField =>
  several(
    'tools',
    'Tools and consumables',
    catalogue.tools.map(({ id, name }) => ({ id, label: name })),
  );
export const cautionsOf = (catalogue: Catalogue): RecordField =>
  several(
    'cautions',
    'Cautions beside those that its heat, tools and parts bring',
    catalogue.cautions.map(({ id, line }) => ({ id, label: line })),
  );

/** Conditions on the path. */
export const whenField = (params: Params): RecordField => ({
  name: 'when',
  label: 'Only where all of these hold',
  kind: {
    type: 'rows',
    add: 'Add a condition',
    fresh: { param: 'nozzleKind', is: ['two-piece'] },
    fields: [
      one('kind', 'At a station of the path; else the one under work', KIND_NAMES),
      one('param', 'Parameter', params),
      words('is', 'Is one of'),
      number('atLeast', 'Is at least'),
      number('below', 'Is below'),
    ],
  },
});

const PLACE_NAMES: Readonly<Record<Place, string>> = {
  here: 'What covers this station',
  mouth: 'The way in ahead of it',
  exit: 'The next opening after it',
  ends: 'Both ends of its tube',
  nozzle: 'What covers the nozzle',
  'hot-end': 'The hot end',
  ports: 'Every port of the hub',
};
const EFFECT_NAMES: Readonly<Record<DeedEffect, string>> = {
  'takes-off': 'The hot end comes off hot, in pliers',
  wets: 'The part is wet with solvent',
  dries: 'The part is dry again',
  'back-to-print': 'Target back to print heat at once',
  'target-zero': 'Target to zero',
  empties: 'The strand is cut and accounted for',
  'test-piece': 'A piece is tried in the solvent',
  'draws-out': 'A fresh strand goes in and comes out again',
};

export const HAZARD_NAMES: Readonly<Record<Hazard, string>> = {
  heat: 'Heat',
  ptfe: 'PTFE on the heated stretch',
  spring: 'A spring that may fly',
  plugs: 'Plugs that are moved',
  cable: 'A part on its cable',
  push: 'A push by hand',
  solvent: 'Solvent',
  dry: 'A part that was wet',
  'small-parts': 'Small parts that drop out',
  homing: 'A head that homes or moves',
};

/** What a reading can be worked out from. */
export const PREDICTIONS = {
  'pull-force': 'Pull, from spool and bends',
  'thermistor-ohms': 'Thermistor, from its table',
  'heater-ohms': 'Heater, from volts and watts',
};

export const heat = one('heat', 'Heat it needs', { any: 'Any', cold: 'Cold to touch', hot: 'Hot' });
export const power = one('power', 'Power it needs', { any: 'Any', off: 'Off', on: 'On' });

/** What is said of anything that is done at the bench: an action, a check, a proof. */
export const deedFields: readonly RecordField[] = [
  one('strand', 'The strand must be', { clear: 'Out, or accounted for' }),
  one('push', 'A push or press from above', { head: 'In the head', hand: 'With the part in the hand' }),
  one('exit', 'The push expects something to leave', { hot: 'As melt', open: 'At an open end', none: 'Not at all' }),
  one('hands', 'Touched with', { bare: 'Bare hands', tool: 'A tool' }),
  several(
    'does',
    'What it changes',
    DEED_EFFECTS.map((id) => ({ id, label: EFFECT_NAMES[id] })),
  ),
];

/** What an action needs, does and may do. */
export const actionFields = (catalogue: Catalogue, params: Params): readonly RecordField[] => [
  text('name', 'Name; empty: the remedy’s'),
  text('how', 'How it is done', true),
  text('stop', 'Stop rule', true),
  number('minutes', 'Minutes of work'),
  number('waitMinutes', 'Minutes of waiting'),
  heat,
  one('target', 'Hot at', {
    print: 'Print heat',
    unclog: 'Heat to clear a clog',
    pull: 'Heat of the cold pull',
    seat: 'Heat to seat a tube',
  }),
  power,
  several(
    'places',
    'What must be off',
    PLACES.map((id) => ({ id, label: PLACE_NAMES[id] })),
  ),
  whenField(params),
  ...deedFields,
  toolsOf(catalogue),
  cautionsOf(catalogue),
  flag('once', 'Done once, also when the remedy is tried again'),
];

const idField = text('id', 'Short name, letters and figures');

/** A remedy: its chance, what it offers, and its actions in their order. */
export const remedyFields = (catalogue: Catalogue, params: Params): readonly RecordField[] => [
  ...actionFields(catalogue, params).map((field) => (field.name === 'name' ? text('name', 'Name') : field)),
  number('cures', 'Cures, share'),
  several('kinds', 'Only at', STATIONS),
  number('boreAtLeastMm', 'Only for a bore of at least, mm'),
  number('boreBelowMm', 'Only for a bore below, mm'),
  several(
    'materials',
    'Only for the filaments',
    catalogue.materials.map(({ id, name }) => ({ id, label: name })),
  ),
  flag('leavesFilament', 'The filament need not come out'),
  flag('needsSolvent', 'Only for plastics that a solvent takes'),
  flag('takesOut', 'Takes the thing out rather than pushing it on'),
  text('replaces', 'The part that it renews'),
  number('price', 'Price of the part'),
  number('tries', 'So many tries without progress'),
  number('risk', 'Price of its risk, minutes'),
  one('measures', 'Before and after', { depth: 'The depth by rod' }),
  {
    name: 'takes',
    label: 'What else it takes away',
    kind: {
      type: 'rows',
      add: 'Add what it takes away too',
      fresh: { place: 'ends', cures: 0.5 },
      fields: [
        one('place', 'Where', {
          ends: 'At both neighbours',
          'hot-end': 'In the whole hot end',
          path: 'Anywhere on the path',
        }),
        several(
          'modes',
          'Only these failures',
          catalogue.modes.map(({ id, name }) => ({ id, label: name })),
        ),
        number('cures', 'Takes them away, share'),
      ],
    },
  },
  {
    name: 'outcomes',
    label: 'What may come of it; none: the usual three',
    kind: {
      type: 'rows',
      add: 'Add an outcome',
      fresh: { id: 'own', label: 'It is clear', means: 'cleared' },
      fields: [
        idField,
        text('label', 'In the words shown'),
        one('means', 'It means', { cleared: 'Cleared', better: 'Further', 'no-change': 'No change', worse: 'Worse' }),
        {
          name: 'finding',
          label: 'It is a finding of the check',
          kind: {
            type: 'part',
            fresh: { check: 'needle', result: 'in' },
            fields: [
              one('check', 'Check', Object.fromEntries(catalogue.checks.map(({ id, name }) => [id, name]))),
              one(
                'result',
                'Result',
                Object.fromEntries(catalogue.checks.flatMap(({ results }) => results.map((r) => [r.id, r.label]))),
              ),
            ],
          },
        },
      ],
    },
  },
  {
    name: 'actions',
    label: 'Its actions, in this order; none: the remedy is one action',
    kind: {
      type: 'rows',
      add: 'Add an action',
      fresh: { id: 'own', how: 'What to do.', minutes: 5, heat: 'cold', power: 'off' },
      fields: [idField, ...actionFields(catalogue, params)],
    },
  },
  {
    name: 'offers',
    label: 'What can be fitted',
    kind: {
      type: 'rows',
      add: 'Add something to fit',
      fresh: { id: 'own', name: 'Part', kind: 'part', price: 10, minutes: 15, lifeHours: 1500, origin: 'this shop' },
      fields: [
        idField,
        text('name', 'Name'),
        one('kind', 'Kind', {
          spare: 'From the machine’s own box',
          part: 'Part',
          kit: 'Kit',
          assembly: 'Whole assembly',
          upgrade: 'Better design',
        }),
        whenField(params),
        number('price', 'Price'),
        number('minutes', 'Minutes to fit it'),
        number('lifeHours', 'Printing hours until half need renewing'),
        number('lifeHoursAbrasive', 'The same with abrasive filament'),
        text('flaw', 'A flaw to look for before it is fitted'),
        text('origin', 'Where the figures come from'),
      ],
    },
  },
  text('origin', 'Where it comes from'),
];

/** What a measurement reads under a failure mode, and what raises or lowers its weight. */
export const modeRows = (catalogue: Catalogue, params: Params): readonly RecordField[] => [
  {
    name: 'reads',
    label: 'What a measurement reads under it',
    kind: {
      type: 'rows',
      key: 'reading',
      add: 'Add a reading',
      fresh: { p: 0.7, mean: 1, sd: 0.3 },
      fields: [
        one(
          'reading',
          'Reading',
          Object.fromEntries(
            catalogue.checks.flatMap(({ quantity }) =>
              quantity ? [[quantity.reads, `${quantity.reads}, ${quantity.unit}`]] : [],
            ),
          ),
        ),
        number('p', 'Chance that it shows'),
        number('mean', 'Around'),
        number('sd', 'Spread'),
        flag('relative', 'Both are multiples of what a sound machine reads'),
        flag('creeps', 'Sooner or later with how soon the strand softens in the hot end'),
      ],
    },
  },
  {
    name: 'raised',
    label: 'What raises or lowers its weight',
    kind: {
      type: 'rows',
      add: 'Add a condition',
      fresh: { by: 2, why: 'Why' },
      fields: [
        number('by', 'So many times'),
        text('why', 'Why, in the words shown'),
        number('weeksLoadedMin', 'Weeks loaded, at least'),
        several(
          'material',
          'Filament',
          catalogue.materials.map(({ id, name }) => ({ id, label: name })),
        ),
        several(
          'trait',
          'Trait of the filament',
          [...new Set(catalogue.materials.flatMap(({ traits }) => traits))].map((id) => ({ id, label: id })),
        ),
        flag('hotterBefore', 'A hotter plastic ran before'),
        several('history', 'Done before', catalogue.before),
        one('param', 'A parameter of the station', params),
        words('is', 'The parameter is one of'),
        number('atLeast', 'The parameter is at least'),
        number('below', 'The parameter is below'),
      ],
    },
  },
];
