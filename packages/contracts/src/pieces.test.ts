import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Machine } from '@zealous/core';
import type { ClassConstructor } from 'class-transformer';
import schema from '../../core/src/formats/schemas/machine.schema.json';
import { faultsOf } from './catalogue/judge';
import {
  AboutMachine,
  ConnectorPiece,
  faultsOfPieces,
  FastenerPiece,
  HeatFigures,
  LosesPiece,
  MachinePlugs,
  PartPiece,
  StationAccess,
  StationFigures,
  StationPiece,
  WayPiece,
} from './pieces';
import { expectSame, type Shape } from './testing';

const { definitions } = schema as unknown as { readonly definitions: Readonly<Record<string, Shape>> };
const whole = schema as unknown as Shape;
/** Of the machine as a whole, the fields that belong to a piece. */
const only = (fits: (name: string) => boolean): Shape => ({
  properties: Object.fromEntries(Object.entries(whole.properties ?? {}).filter(([name]) => fits(name))),
  required: whole.required?.filter(fits) ?? [],
});
const ELSEWHERE = ['format', 'version', 'runs', 'parts', 'connectors'];

const PAIRS: readonly (readonly [string, ClassConstructor<object>, Shape | undefined])[] = [
  ['the machine', AboutMachine, only((name) => !ELSEWHERE.includes(name))],
  ['plugs', MachinePlugs, only((name) => name === 'connectors')],
  ['heat', HeatFigures, whole.properties?.['heat']],
  ['station', StationPiece, definitions['station']],
  ['figures', StationFigures, definitions['params']],
  ['access', StationAccess, definitions['station']?.properties?.['access']],
  ['part', PartPiece, definitions['part']],
  ['way', WayPiece, definitions['way']],
  ['fastener', FastenerPiece, definitions['fastener']],
  ['what is lost', LosesPiece, definitions['part']?.properties?.['loses']?.items],
  ['connector', ConnectorPiece, definitions['connector']],
];

test.each(PAIRS)('%s: class and published schema have the same fields, bounds and words', (_name, of, shape) => {
  expectSame(of, shape ?? {});
});

test('every machine that is delivered fits, piece by piece', () => {
  const folder = join(__dirname, '../../../demo/machines');
  const files = readdirSync(folder).filter((file) => file.endsWith('.json'));
  expect(files.length).toBeGreaterThan(0);
  for (const file of files)
    expect([file, faultsOfPieces(JSON.parse(readFileSync(join(folder, file), 'utf8')) as Machine)]).toEqual([file, []]);
});

test('all that is wrong with a part is said at once, each at its place', () => {
  const part = {
    id: 'cover',
    name: '',
    minutesOff: -1,
    minutesOn: 2,
    heat: 'warm',
    power: 'any',
    off: 'Lift it.',
    on: 'Put it back.',
    fasteners: [{ count: 2.5, what: 'screw' }],
  };
  expect(faultsOf(PartPiece, part).map(({ path }) => path)).toEqual([
    '/name',
    '/minutesOff',
    '/heat',
    '/fasteners/0/count',
  ]);
});
