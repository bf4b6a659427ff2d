import { HAZARDS, PARAM_FIELDS, PURPOSES, type Catalogue, type ChangeKind } from '@zealous/core';
import { RECORDS } from '@zealous/contracts/catalogue';
import { flag, number, one, several, text, words, type RecordField } from '../ui/form/fields';
import { limited } from '../ui/form/limited';
import {
  HAZARD_NAMES,
  STATIONS,
  names,
  actionFields,
  modeRows,
  deedFields,
  heat,
  power,
  remedyFields,
  toolsOf,
  cautionsOf,
} from './workFields';
import { checkFields } from './checkFields';
import { CREEPS } from './helpers';

const PARAMS = Object.fromEntries(
  Object.values(PARAM_FIELDS).flatMap((fields) => fields.map(({ name, label }) => [name, label])),
);
/** What is asked of each kind of record, within the bounds of its contract. */
export const fieldsOf = (kind: ChangeKind, catalogue: Catalogue): readonly RecordField[] =>
  limited(asked(kind, catalogue), RECORDS[kind]);

function asked(kind: ChangeKind, catalogue: Catalogue): readonly RecordField[] {
  if (kind === 'modes')
    return [
      text('name', 'Name'),
      number('weight', 'Weight, 1 rare to 10 common'),
      {
        name: 'where',
        label: 'Where it sits, and its share there',
        kind: { type: 'weights', options: STATIONS, usual: 1 },
      },
      { name: 'shows', label: 'How it shows, with the chance of each', kind: { type: 'own', name: 'shows' } },
      ...modeRows(catalogue, PARAMS),
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
      several(
        'curedBySwap',
        'Swaps that cure it although they do not reach it',
        catalogue.checks.filter(({ swap }) => swap).map(({ id, name }) => ({ id, label: name })),
      ),
      several('pathWith', 'Only on paths with', STATIONS),
      flag('severalLanes', 'Only where several lanes lead into the station'),
      flag('amongLanes', 'Only on machines with several lanes'),
      flag('spoilsHeat', 'While it is there, nothing may be heated'),
      flag('pullsPlug', 'With it the plug is out, however hot it is'),
      one('creep', 'The strand softens in the cold zone', CREEPS, true),
      text('watch', 'What to watch afterwards', true),
    ];
  if (kind === 'checks') return checkFields(catalogue, PARAMS);
  if (kind === 'materials')
    return [
      text('name', 'Name'),
      number('printC', 'Print temperature, °C'),
      number('unclogC', 'Temperature to clear a clog, °C'),
      number('pullC', 'Temperature of the cold pull, °C'),
      number('glassC', 'Glass transition, °C'),
      number('stiffnessMPa', 'Stiffness of the cold strand, MPa'),
      number('yieldMPa', 'Stress at which it yields, MPa'),
      number('meltPaS', 'Viscosity of the melt at 100 1/s, Pa·s'),
      number('thinning', 'How it thins with shear: 1 not at all'),
      number('dryC', 'Drying, °C'),
      number('dryHours', 'Drying, hours'),
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
      text('origin', 'Where the figures come from', true),
    ];
  if (kind === 'solvents')
    return [
      text('name', 'Name'),
      number('flashC', 'Flash point, °C'),
      number('lowerLimitPct', 'Lower explosive limit, % by volume'),
      number('exposurePpm', 'Workplace limit over a shift, ppm'),
      { name: 'soakHours', label: 'Soak, hours from and to', kind: { type: 'numbers' } },
      text('care', 'Care', true),
      text('origin', 'Where the figures come from', true),
    ];
  if (kind === 'terms')
    return [
      text('name', 'Name'),
      number('hourlyRate', 'What an hour at the bench is worth'),
      text('currency', 'Currency of the prices, as it is printed'),
      text('shop', 'Name of the shop, as it is printed'),
      text('address', 'Address of the shop, as it is printed', true),
    ];
  if (kind === 'tools')
    return [
      text('name', 'Name; {needle}, {rod}, {bit}, {spanner} stand for the path’s own size'),
      one('hazard', 'Its use calls for the caution', Object.fromEntries(catalogue.cautions.map((c) => [c.id, c.line]))),
      one('sized', 'Its size follows', {
        needle: 'The nozzle',
        rod: 'The heat break',
        bit: 'The tube',
        spanner: 'The flats',
      }),
      flag('consumable', 'It is used up'),
    ];
  if (kind === 'cautions')
    return [
      text('line', 'One line with its reason', true),
      text('more', 'The longer card', true),
      text('sign', 'Sign, by its standard and word'),
      one('shape', 'Shape of the sign', { triangle: 'Triangle', diamond: 'Diamond', circle: 'Circle' }),
      several(
        'marks',
        'Shown by itself wherever there is',
        HAZARDS.map((id) => ({ id, label: HAZARD_NAMES[id] })),
      ),
    ];
  if (kind === 'proofs')
    return [
      text('name', 'Name'),
      text('how', 'How it is shown', true),
      number('minutes', 'Minutes of work'),
      heat,
      power,
      ...deedFields,
      toolsOf(catalogue),
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
      text('why', 'Why it is asked for, in the words shown'),
      one('form', 'Asked for with', { bed: 'The bed, point by point', run: 'How far the job ran' }),
      flag('quantity', 'With the fed length as a number'),
      one('like', 'The check that asks the same', names(catalogue.checks), true),
      { name: 'fails', label: 'What it would fail at', kind: { type: 'own', name: 'when' } },
      number('miss', 'Passes all the same, share'),
    ];
  if (kind === 'standing')
    return [
      one('purpose', 'What the plan asks it for', Object.fromEntries(PURPOSES.map((id) => [id, id]))),
      ...actionFields(catalogue, PARAMS),
    ];
  if (kind === 'symptoms')
    return [
      text('label', 'In the owner’s words'),
      one('about', 'A complaint about', {
        print: 'The print',
        filament: 'How the filament runs',
        machine: 'The machine itself',
      }),
      { name: 'when', label: 'It is what is seen of', kind: { type: 'own', name: 'when' } },
      number('miss', 'Not told though it is there, share'),
      number('falseAlarm', 'Told though it is not there, share'),
      text('since', 'Asked from this day on, as 2026-11-30'),
      cautionsOf(catalogue),
    ];
  if (kind === 'onsets')
    return [
      text('label', 'When it begins'),
      flag('inPrint', 'In a print: its height and minutes are asked'),
      flag('after', 'It is something that it began after, not where or when it shows'),
    ];
  if (kind === 'dimensions')
    return [
      text('name', 'Name'),
      words('values', 'Its values, the normal one first, worst last'),
      flag('byEye', 'It is seen by eye once a place is open'),
    ];
  if (kind === 'before')
    return [
      text('label', 'What was done'),
      flag('asCure', 'It was tried against the fault'),
      {
        name: 'finding',
        label: 'It amounts to a finding',
        kind: {
          type: 'part',
          fresh: { check: 'swap-spool', result: 'same' },
          fields: [
            one('check', 'Check', names(catalogue.checks)),
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
