import { KIND_NAMES, STATION_KINDS, type Catalogue, type ChangeKind } from '@zealous/core';

/** How a field of a catalogue record is asked for. */
export type FieldKind =
  | { readonly type: 'text'; readonly lines?: boolean; readonly most: number }
  | { readonly type: 'number'; readonly min: number; readonly max: number; readonly optional?: boolean }
  | { readonly type: 'one'; readonly options: readonly Option[] }
  | { readonly type: 'several'; readonly options: readonly Option[] }
  /** Names with a number each. */
  | { readonly type: 'weights'; readonly options: readonly Option[]; readonly usual: number }
  /** Dimension, value, chance. */
  | { readonly type: 'shows' }
  /** Results in the order in which they are looked for. */
  | { readonly type: 'results' };

export interface Option {
  readonly id: string;
  readonly label: string;
}

export interface RecordField {
  readonly name: string;
  readonly label: string;
  readonly kind: FieldKind;
}

const options = (of: Readonly<Record<string, string>>): readonly Option[] =>
  Object.entries(of).map(([id, label]) => ({ id, label }));
const text = (name: string, label: string, most: number, lines = false): RecordField => ({
  name,
  label,
  kind: { type: 'text', most, ...(lines ? { lines } : {}) },
});
const number = (name: string, label: string, min: number, max: number, optional = false): RecordField => ({
  name,
  label,
  kind: { type: 'number', min, max, optional },
});
const one = (name: string, label: string, of: Readonly<Record<string, string>>): RecordField => ({
  name,
  label,
  kind: { type: 'one', options: options(of) },
});

const STATIONS = STATION_KINDS.map((id) => ({ id: id as string, label: KIND_NAMES[id] }));
const heat = one('heat', 'Heat it needs', { any: 'Any', cold: 'Cold to touch', hot: 'Hot' });
const power = one('power', 'Power it needs', { any: 'Any', off: 'Off', on: 'On' });
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
      { name: 'shows', label: 'How it shows, with the chance of each', kind: { type: 'shows' } },
      {
        name: 'onset',
        label: 'When it begins: so many times likelier than usual',
        kind: { type: 'weights', options: catalogue.onsets, usual: 3 },
      },
      {
        name: 'remedies',
        label: 'Remedies, gentlest first',
        kind: { type: 'several', options: catalogue.remedies.map(({ id, name }) => ({ id, label: name })) },
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
      { name: 'kinds', label: 'Done at', kind: { type: 'several', options: STATIONS } },
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
        kind: { type: 'results' },
      },
      number('miss', 'Misses what is there, share', 0, 1),
      number('falseAlarm', 'Reports what is not there, share', 0, 1),
      number('risk', 'Price of its risk, minutes', 0, 60, true),
    ];
  return [
    text('name', 'Name', 100),
    text('how', 'How it is done', 500, true),
    text('stop', 'Stop rule', 200, true),
    number('minutes', 'Minutes of work', 0, 600),
    number('cures', 'Cures, share', 0, 1),
    heat,
    power,
    needs,
    number('price', 'Price of the part', 0, 100000, true),
  ];
}

/** A new record to begin from; valid but for what only the person knows. */
export function freshRecord(kind: ChangeKind, id: string): Readonly<Record<string, unknown>> {
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
