import type { Catalogue } from '@zealous/core';
import { flag, number, one, several, text, words, type RecordField } from '../ui/form/fields';
import { LINES, TOOLS } from './helpers';
import { PREDICTIONS, STATIONS, cautionsOf, deedFields, heat, names, power, toolsOf } from './workFields';

const needs = one('needs', 'To be opened', {
  nothing: 'Nothing',
  open: 'What covers the station',
  mouth: 'A way in for a strand',
});

const REACHES = {
  station: 'The station',
  near: 'The station and what a tube joins to it',
  span: 'The span between two openings',
  downstream: 'From there on',
  upward: 'From below up to the heat break',
  after: 'All after it',
  before: 'All ahead of it',
  lane: 'The lane',
  path: 'The whole path',
};

/** What is asked of a check. */
export const checkFields = (catalogue: Catalogue, PARAMS: Readonly<Record<string, string>>): readonly RecordField[] => [
  text('name', 'Name'),
  text('how', 'How it is done, in two lines', true),
  number('minutes', 'Minutes of work'),
  heat,
  power,
  needs,
  several('kinds', 'Done at', STATIONS),
  one('reach', 'What it can see from there', REACHES),
  {
    name: 'reachWhere',
    label: 'What it sees instead at some stations',
    kind: {
      type: 'part',
      fresh: { param: 'nozzleKind', is: ['one-piece'], reach: 'upward' },
      fields: [one('param', 'Where this', PARAMS), words('is', 'Is one of'), one('reach', 'It sees', REACHES)],
    },
  },
  {
    name: 'results',
    label: 'Results, looked for in this order; the last one is the normal one',
    kind: { type: 'own', name: 'results' },
  },
  {
    name: 'earlier',
    label: 'Answers that it gives no more, still read in orders that have them',
    kind: {
      type: 'rows',
      add: 'Add an earlier answer',
      fresh: { id: 'earlier', label: 'Earlier answer', stands: ['normal'] },
      fields: [
        text('id', 'Its id in the orders'),
        text('label', 'Label'),
        words('stands', 'Meant one of these results, by id'),
      ],
    },
  },
  {
    name: 'quantity',
    label: 'A measured number',
    kind: {
      type: 'part',
      fresh: { reads: 'fed', unit: 'mm', normal: { mean: 100, sd: 1 }, min: 0, max: 120, bands: [90, 98] },
      fields: [
        text('reads', 'Reading: the name that failures use for it'),
        text('unit', 'Unit'),
        {
          name: 'normal',
          label: 'A sound machine reads',
          kind: {
            type: 'part',
            fresh: { mean: 1, sd: 0.1 },
            fields: [number('mean', 'Around'), number('sd', 'Spread')],
          },
        },
        one('predict', 'Worked out from the machine’s data', PREDICTIONS),
        number('min', 'Least that can be read'),
        number('max', 'Most that can be read'),
        { name: 'bands', label: 'Edges between bands', kind: { type: 'numbers' } },
      ],
    },
  },
  flag('items', 'One look that may show several things: each is ticked by itself'),
  one('intake', 'Answered at take-in by', {
    failedAfterMinutes: 'The minutes at which the print failed',
    failedAtMm: 'The height at which the print failed',
  }),
  one('tool', 'Worked out by', TOOLS, true),
  one('byLine', 'By a machine on its line', LINES, true),
  one('like', 'Asks the same by other means as', names(catalogue.checks), true),
  several('history', 'Only where one of these was done before', catalogue.before),
  number('miss', 'Misses what is there, share'),
  number('falseAlarm', 'Reports what is not there, share'),
  number('risk', 'Price of its risk, minutes'),
  one('at', 'Done', { each: 'At each such station', span: 'Over each span between openings', once: 'Once' }),
  {
    name: 'only',
    label: 'Only at stations where',
    kind: {
      type: 'part',
      fresh: { param: 'lining', is: ['none'] },
      fields: [one('param', 'Parameter', PARAMS), words('is', 'Is one of'), number('atLeast', 'Is at least')],
    },
  },
  flag('swap', 'A swap: what it reaches is out of play afterwards'),
  one('keeps', 'A swap that cured is kept by', names(catalogue.remedies), true),
  flag('severalLanes', 'Only where several lanes lead to the head'),
  flag('amongLanes', 'Only on machines with several lanes'),
  ...deedFields,
  one('asks', 'Asks the owner', { onset: 'When it began' }),
  toolsOf(catalogue),
  cautionsOf(catalogue),
  text('source', 'What its errors come from, shared with other checks'),
];
