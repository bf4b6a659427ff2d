import { KIND_NAMES, PARAM_FIELDS, STATION_KINDS, type Catalogue, type ChangeKind } from '@zealous/core';
import { flag, number, one, several, text, words, type Loose, type RecordField } from '../ui/form/fields';

const STATIONS = STATION_KINDS.map((id) => ({ id: id as string, label: KIND_NAMES[id] }));
const heat = one('heat', 'Heat it needs', { any: 'Any', cold: 'Cold to touch', hot: 'Hot' });
const power = one('power', 'Power it needs', { any: 'Any', off: 'Off', on: 'On' });
const PARAMS = Object.fromEntries(
  Object.values(PARAM_FIELDS).flatMap((fields) => fields.map(({ name, label }) => [name, label])),
);
const PREDICTIONS = {
  'pull-force': 'Pull, from spool and bends',
  'thermistor-ohms': 'Thermistor, from its table',
  'heater-ohms': 'Heater, from volts and watts',
};
const needs = one('needs', 'To be opened', {
  nothing: 'Nothing',
  open: 'What covers the station',
  mouth: 'A way in for a strand',
});

/** What is asked of each kind of record. */
export function fieldsOf(kind: ChangeKind, catalogue: Catalogue): readonly RecordField[] {
  if (kind === 'modes')
    return [
      text('name', 'Name', 100),
      number('weight', 'Weight, 1 rare to 10 common', 0, 10),
      {
        name: 'where',
        label: 'Where it sits, and its share there',
        kind: { type: 'weights', options: STATIONS, usual: 1 },
      },
      { name: 'shows', label: 'How it shows, with the chance of each', kind: { type: 'own', name: 'shows' } },
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
            number('p', 'Chance that it shows', 0, 1),
            number('mean', 'Around', -10000, 1000000),
            number('sd', 'Spread', 0.0001, 1000000),
            flag('relative', 'Both are multiples of what a sound machine reads'),
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
            number('by', 'So many times', 0.01, 100),
            text('why', 'Why, in the words shown', 120),
            number('weeksLoadedMin', 'Weeks loaded, at least', 0, 520),
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
            one('param', 'A parameter of the station', PARAMS, true),
            words('is', 'The parameter is one of'),
            number('atLeast', 'The parameter is at least', 0, 100000),
            number('below', 'The parameter is below', 0, 100000),
          ],
        },
      },
      {
        name: 'only',
        label: 'Only at stations where',
        kind: {
          type: 'part',
          fresh: { param: 'material', is: ['PTFE'] },
          fields: [one('param', 'Parameter', PARAMS), words('is', 'Is one of')],
        },
      },
      {
        name: 'together',
        label: 'Found together with: so many times likelier than chance',
        kind: { type: 'weights', options: catalogue.modes.map(({ id, name }) => ({ id, label: name })), usual: 3 },
      },
      {
        name: 'onset',
        label: 'When it begins: so many times likelier than usual',
        kind: { type: 'weights', options: catalogue.onsets, usual: 3 },
      },
      several(
        'remedies',
        'Remedies, gentlest first',
        catalogue.remedies.map(({ id, name }) => ({ id, label: name })),
      ),
      text('watch', 'What to watch afterwards', 300, true),
    ];
  if (kind === 'checks')
    return [
      text('name', 'Name', 120),
      text('how', 'How it is done, in two lines', 400, true),
      number('minutes', 'Minutes of work', 0, 600),
      heat,
      power,
      needs,
      several('kinds', 'Done at', STATIONS),
      one('reach', 'What it can see from there', {
        station: 'The station',
        span: 'The span between two openings',
        downstream: 'From there on',
        upward: 'From below up to the heat break',
        after: 'All after it',
        before: 'All up to it',
        lane: 'The lane',
        path: 'The whole path',
      }),
      {
        name: 'results',
        label: 'Results, looked for in this order; the last one is the normal one',
        kind: { type: 'own', name: 'results' },
      },
      {
        name: 'quantity',
        label: 'A measured number',
        kind: {
          type: 'part',
          fresh: { reads: 'fed', unit: 'mm', normal: { mean: 100, sd: 1 }, min: 0, max: 120, bands: [90, 98] },
          fields: [
            text('reads', 'Reading: the name that failures use for it', 40),
            text('unit', 'Unit', 12),
            {
              name: 'normal',
              label: 'A sound machine reads',
              kind: {
                type: 'part',
                fresh: { mean: 1, sd: 0.1 },
                fields: [number('mean', 'Around', -10000, 1000000), number('sd', 'Spread', 0.0001, 1000000)],
              },
            },
            one('predict', 'Worked out from the machine’s data', PREDICTIONS, true),
            number('min', 'Least that can be read', -10000, 1000000),
            number('max', 'Most that can be read', -10000, 1000000),
            { name: 'bands', label: 'Edges between bands', kind: { type: 'numbers' } },
          ],
        },
      },
      number('miss', 'Misses what is there, share', 0, 1),
      number('falseAlarm', 'Reports what is not there, share', 0, 1),
      number('risk', 'Price of its risk, minutes', 0, 60),
    ];
  if (kind === 'materials')
    return [
      text('name', 'Name', 60),
      number('printC', 'Print temperature, °C', 100, 500),
      number('unclogC', 'Temperature to clear a clog, °C', 100, 500),
      number('pullC', 'Temperature of the cold pull, °C', 20, 400),
      number('glassC', 'Glass transition, °C', -100, 400),
      number('dryC', 'Drying, °C', 20, 200),
      number('dryHours', 'Drying, hours', 0, 100),
      several(
        'solvents',
        'Solvents that take it, the first to be tried first',
        catalogue.solvents.map(({ id, name }) => ({ id, label: name })),
      ),
      several(
        'traits',
        'Traits',
        [...new Set(catalogue.materials.flatMap(({ traits }) => traits))].map((id) => ({ id, label: id })),
      ),
      text('origin', 'Where the figures come from', 300, true),
    ];
  if (kind === 'solvents')
    return [
      text('name', 'Name', 60),
      number('flashC', 'Flash point, °C', -100, 400),
      number('lowerLimitPct', 'Lower explosive limit, % by volume', 0, 100),
      number('exposurePpm', 'Workplace limit over a shift, ppm', 0, 100000),
      { name: 'soakHours', label: 'Soak, hours from and to', kind: { type: 'numbers' } },
      text('care', 'Care', 400, true),
      text('origin', 'Where the figures come from', 300, true),
    ];
  if (kind === 'terms') return [number('hourlyRate', 'What an hour at the bench is worth', 0.01, 100000)];
  return [
    text('name', 'Name', 100),
    text('how', 'How it is done', 500, true),
    text('stop', 'Stop rule', 200, true),
    number('minutes', 'Minutes of work', 0, 600),
    number('cures', 'Cures, share', 0, 1),
    heat,
    power,
    needs,
    number('price', 'Price of the part', 0, 100000),
    {
      name: 'offers',
      label: 'What can be fitted',
      kind: {
        type: 'rows',
        add: 'Add something to fit',
        fresh: { id: 'own', name: 'Part', kind: 'part', price: 10, minutes: 15, lifeHours: 1500, origin: 'this shop' },
        fields: [
          text('id', 'Short name, letters and figures', 60),
          text('name', 'Name', 80),
          one('kind', 'Kind', { part: 'Part', kit: 'Kit', assembly: 'Whole assembly', upgrade: 'Better design' }),
          number('price', 'Price', 0, 100000),
          number('minutes', 'Minutes to fit it', 0, 600),
          number('lifeHours', 'Printing hours until half need renewing', 1, 1000000),
          number('lifeHoursAbrasive', 'The same with abrasive filament', 1, 1000000),
          text('flaw', 'A flaw to look for before it is fitted', 200),
          text('origin', 'Where the figures come from', 200),
        ],
      },
    },
  ];
}

/** A new record to begin from; valid but for what only the person knows. */
export function freshRecord(kind: ChangeKind, id: string): Loose {
  if (kind === 'modes')
    return {
      id,
      name: 'New failure mode',
      weight: 2,
      where: { nozzle: 1 },
      shows: {},
      onset: {},
      remedies: ['renew-part'],
    };
  if (kind === 'checks')
    return {
      id,
      name: 'New check of {station}',
      how: 'What to do, in two lines.',
      minutes: 2,
      heat: 'any',
      power: 'any',
      at: 'each',
      kinds: ['nozzle'],
      reach: 'station',
      needs: 'nothing',
      results: [
        { id: 'found', label: 'Found', when: { visible: ['worn'] } },
        { id: 'sound', label: 'Sound' },
      ],
      miss: 0.1,
      falseAlarm: 0.05,
    };
  if (kind === 'materials')
    return { id, name: 'New filament', printC: 210, unclogC: 240, pullC: 90, traits: [], origin: 'this shop' };
  if (kind === 'solvents')
    return {
      id,
      name: 'New solvent',
      flashC: 0,
      lowerLimitPct: 2,
      exposurePpm: 200,
      soakHours: [24, 48],
      care: 'As its safety data sheet says.',
      origin: 'its safety data sheet',
    };
  return {
    id,
    name: 'New remedy',
    how: 'What to do.',
    minutes: 5,
    heat: 'cold',
    power: 'off',
    needs: 'open',
    cures: 0.7,
    origin: 'this shop',
  };
}
