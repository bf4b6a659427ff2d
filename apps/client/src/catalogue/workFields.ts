import {
  ACTION_EFFECTS,
  KIND_NAMES,
  PLACES,
  STATION_KINDS,
  type ActionEffect,
  type Catalogue,
  type Hazard,
  type Place,
} from '@zealous/core';
import { flag, number, one, several, text, words, type RecordField } from '../ui/form/fields';

const STATIONS = STATION_KINDS.map((id) => ({ id: id as string, label: KIND_NAMES[id] }));
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
      one('kind', 'At a station of the path; else the one under work', KIND_NAMES, true),
      one('param', 'Parameter', params),
      words('is', 'Is one of'),
      number('atLeast', 'Is at least', 0, 100000),
      number('below', 'Is below', 0, 100000),
    ],
  },
});

const PLACE_NAMES: Readonly<Record<Place, string>> = {
  here: 'What covers this station',
  mouth: 'The way in ahead of it',
  exit: 'The next opening after it',
  ends: 'Both ends of its tube',
  'hot-end': 'The hot end',
  ports: 'Every port of the hub',
};
const EFFECT_NAMES: Readonly<Record<ActionEffect, string>> = {
  'takes-off': 'The hot end comes off hot, in pliers',
  wets: 'The part is wet with solvent',
  dries: 'The part is dry again',
  'back-to-print': 'Target back to print heat at once',
  'target-zero': 'Target to zero',
  loads: 'The strand is loaded',
  empties: 'The strand is cut and accounted for',
  'test-piece': 'A piece is tried in the solvent',
  spares: 'The box of spares is looked through',
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

/** What an action needs, does and may do. */
export const actionFields = (catalogue: Catalogue, params: Params): readonly RecordField[] => [
  text('name', 'Name; empty: the remedy’s', 100),
  text('how', 'How it is done', 600, true),
  text('stop', 'Stop rule', 200, true),
  number('minutes', 'Minutes of work', 0, 600),
  number('waitMinutes', 'Minutes of waiting', 0, 10000),
  one('heat', 'Heat it needs', { any: 'Any', cold: 'Cold to touch', hot: 'Hot' }),
  one(
    'target',
    'Hot at',
    { print: 'Print heat', unclog: 'Heat to clear a clog', pull: 'Heat of the cold pull', seat: 'Heat to seat a tube' },
    true,
  ),
  one('power', 'Power it needs', { any: 'Any', off: 'Off', on: 'On' }),
  several(
    'places',
    'What must be off',
    PLACES.map((id) => ({ id, label: PLACE_NAMES[id] })),
  ),
  whenField(params),
  one('strand', 'The strand must be', { clear: 'Out, or accounted for', in: 'Loaded' }, true),
  one('push', 'A push or press from above', { head: 'In the head', hand: 'With the part in the hand' }, true),
  one(
    'exit',
    'The push expects something to leave',
    { hot: 'As melt', open: 'At an open end', none: 'Not at all' },
    true,
  ),
  one('hands', 'Touched with', { bare: 'Bare hands', tool: 'A tool' }, true),
  several(
    'does',
    'What it changes',
    ACTION_EFFECTS.map((id) => ({ id, label: EFFECT_NAMES[id] })),
  ),
  toolsOf(catalogue),
  cautionsOf(catalogue),
  flag('once', 'Done once, also when the remedy is tried again'),
];

const idField = text('id', 'Short name, letters and figures', 60);

/** A remedy: its chance, what it offers, and its actions in their order. */
export const remedyFields = (catalogue: Catalogue, params: Params): readonly RecordField[] => [
  ...actionFields(catalogue, params).map((field) => (field.name === 'name' ? text('name', 'Name', 100) : field)),
  number('cures', 'Cures, share', 0, 1),
  several('kinds', 'Only at', STATIONS),
  number('boreAtLeastMm', 'Only for a bore of at least, mm', 0, 20),
  number('boreBelowMm', 'Only for a bore below, mm', 0, 20),
  several(
    'materials',
    'Only for the filaments',
    catalogue.materials.map(({ id, name }) => ({ id, label: name })),
  ),
  flag('leavesFilament', 'The filament need not come out'),
  flag('needsSolvent', 'Only for plastics that a solvent takes'),
  flag('takesOut', 'Takes the thing out rather than pushing it on'),
  text('replaces', 'The part that it renews', 60),
  number('price', 'Price of the part', 0, 100000),
  number('tries', 'So many tries without progress', 1, 20),
  number('risk', 'Price of its risk, minutes', 0, 600),
  one('measures', 'Before and after', { depth: 'The depth by rod' }, true),
  {
    name: 'outcomes',
    label: 'What may come of it; none: the usual three',
    kind: {
      type: 'rows',
      add: 'Add an outcome',
      fresh: { id: 'own', label: 'It is clear', means: 'cleared' },
      fields: [
        idField,
        text('label', 'In the words shown', 80),
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
        text('name', 'Name', 80),
        one('kind', 'Kind', {
          spare: 'From the machine’s own box',
          part: 'Part',
          kit: 'Kit',
          assembly: 'Whole assembly',
          upgrade: 'Better design',
        }),
        whenField(params),
        number('price', 'Price', 0, 100000),
        number('minutes', 'Minutes to fit it', 0, 600),
        number('lifeHours', 'Printing hours until half need renewing', 1, 1000000),
        number('lifeHoursAbrasive', 'The same with abrasive filament', 1, 1000000),
        text('flaw', 'A flaw to look for before it is fitted', 200),
        text('origin', 'Where the figures come from', 200),
      ],
    },
  },
  text('origin', 'Where it comes from', 200),
];
