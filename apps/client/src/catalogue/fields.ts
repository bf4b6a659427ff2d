import {
  HAZARDS,
  KIND_NAMES,
  PARAM_FIELDS,
  PURPOSES,
  STATION_KINDS,
  type Catalogue,
  type ChangeKind,
} from '@zealous/core';
import { flag, number, one, several, text, words, type RecordField } from '../ui/form/fields';
import { HAZARD_NAMES, PREDICTIONS, actionFields, remedyFields, toolsOf, cautionsOf, whenField } from './workFields';

const STATIONS = STATION_KINDS.map((id) => ({ id: id as string, label: KIND_NAMES[id] }));
const heat = one('heat', 'Heat it needs', { any: 'Any', cold: 'Cold to touch', hot: 'Hot' });
const power = one('power', 'Power it needs', { any: 'Any', off: 'Off', on: 'On' });
const PARAMS = Object.fromEntries(
  Object.values(PARAM_FIELDS).flatMap((fields) => fields.map(({ name, label }) => [name, label])),
);
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
      {
        name: 'sits',
        label: 'Where in the station it sits: from and to, as shares of its length',
        kind: { type: 'numbers' },
      },
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
      one('at', 'Done', { each: 'At each such station', span: 'Over each span between openings', once: 'Once' }),
      {
        name: 'only',
        label: 'Only at stations where',
        kind: {
          type: 'part',
          fresh: { param: 'lining', is: ['none'] },
          fields: [
            one('param', 'Parameter', PARAMS),
            words('is', 'Is one of'),
            number('atLeast', 'Is at least', 0, 100000),
          ],
        },
      },
      flag('swap', 'A swap: what it reaches is out of play afterwards'),
      flag('severalLanes', 'Only where several lanes lead to the head'),
      flag('drawsOut', 'A fresh strand is pushed in and drawn out again'),
      one('asks', 'Asks the owner', { onset: 'When it began' }, true),
      toolsOf(catalogue),
      cautionsOf(catalogue),
      text('source', 'What its errors come from, shared with other checks', 60),
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
      { name: 'printRangeC', label: 'Print range on its label, °C from and to', kind: { type: 'numbers' } },
      flag('assumed', 'Stands for a filament that is not known'),
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
  if (kind === 'terms')
    return [text('name', 'Name', 60), number('hourlyRate', 'What an hour at the bench is worth', 0.01, 100000)];
  if (kind === 'tools')
    return [
      text('name', 'Name; {needle}, {rod}, {bit}, {spanner} stand for the path’s own size', 80),
      one(
        'hazard',
        'Its use calls for the caution',
        Object.fromEntries(catalogue.cautions.map((c) => [c.id, c.line])),
        true,
      ),
      one(
        'sized',
        'Its size follows',
        { needle: 'The nozzle', rod: 'The heat break', bit: 'The tube', spanner: 'The flats' },
        true,
      ),
      flag('consumable', 'It is used up'),
    ];
  if (kind === 'cautions')
    return [
      text('line', 'One line with its reason', 200, true),
      text('more', 'The longer card', 400, true),
      text('sign', 'Sign, by its standard and word', 60),
      one('shape', 'Shape of the sign', { triangle: 'Triangle', diamond: 'Diamond', circle: 'Circle' }),
      several(
        'marks',
        'Shown by itself wherever there is',
        HAZARDS.map((id) => ({ id, label: HAZARD_NAMES[id] })),
      ),
    ];
  if (kind === 'proofs')
    return [
      text('name', 'Name', 100),
      text('how', 'How it is shown', 300, true),
      number('minutes', 'Minutes of work', 0, 600),
      heat,
      power,
      cautionsOf(catalogue),
      several('kinds', 'Only on paths with', STATIONS),
      several('worked', 'When a cause or a renewed part lay at', STATIONS),
      several('touched', 'When this was laid open', STATIONS),
      several(
        'remedies',
        'When one of these was done',
        catalogue.remedies.map(({ id, name }) => ({ id, label: name })),
      ),
      several(
        'modes',
        'When one of these was the cause',
        catalogue.modes.map(({ id, name }) => ({ id, label: name })),
      ),
      several('onsets', 'When the fault began so', catalogue.onsets),
      whenField(PARAMS),
      text('why', 'Why it is asked for, in the words shown', 120),
      one('form', 'Asked for with', { bed: 'The bed, point by point', run: 'How far the job ran' }, true),
      flag('quantity', 'With the fed length as a number'),
      { name: 'fails', label: 'What it would fail at', kind: { type: 'own', name: 'when' } },
      number('miss', 'Passes all the same, share', 0, 1),
    ];
  if (kind === 'standing')
    return [
      one('purpose', 'What the plan asks it for', Object.fromEntries(PURPOSES.map((id) => [id, id]))),
      ...actionFields(catalogue, PARAMS),
    ];
  if (kind === 'symptoms')
    return [
      text('label', 'In the owner’s words', 80),
      { name: 'when', label: 'It is what is seen of', kind: { type: 'own', name: 'when' } },
      number('miss', 'Not told though it is there, share', 0, 1),
      number('falseAlarm', 'Told though it is not there, share', 0, 1),
    ];
  if (kind === 'onsets')
    return [text('label', 'When it begins', 80), flag('inPrint', 'In a print: its height and minutes are asked')];
  if (kind === 'dimensions')
    return [text('name', 'Name', 60), words('values', 'Its values, the normal one first, worst last')];
  if (kind === 'before')
    return [
      text('label', 'What was done', 80),
      {
        name: 'finding',
        label: 'It amounts to a finding',
        kind: {
          type: 'part',
          fresh: { check: 'swap-spool', result: 'same' },
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
      several(
        'tried',
        'Remedies that this was, in vain',
        catalogue.remedies.map(({ id, name }) => ({ id, label: name })),
      ),
    ];
  return remedyFields(catalogue, PARAMS);
}
