import type { StationKind, StationParams } from './machine';

/** Every parameter that a station may state; a name that is missing here does not compile. */
const PARAMS: Readonly<Record<keyof StationParams, true>> = {
  lengthMm: true,
  boreMm: true,
  outerMm: true,
  bendRad: true,
  material: true,
  dragN: true,
  thread: true,
  lining: true,
  arm: true,
  teeth: true,
  springRule: true,
  principle: true,
  fan: true,
  nozzleKind: true,
  stepsPerMm: true,
  ratio: true,
  heaterW: true,
  heaterV: true,
  hours: true,
  ageMonths: true,
  ports: true,
  mirrored: true,
  side: true,
  spannerMm: true,
  limitC: true,
  shortLimitC: true,
  shortMinutes: true,
};
export const STATION_PARAMS = Object.keys(PARAMS) as readonly (keyof StationParams)[];

/** A parameter of a station as it is asked for: a number with its unit, or one of some values. */
export interface ParamField {
  readonly name: keyof StationParams;
  readonly label: string;
  readonly unit?: string;
  readonly values?: readonly { readonly id: string; readonly label: string }[];
}

const length: ParamField = { name: 'lengthMm', label: 'Length along the path', unit: 'mm' };
const bore: ParamField = { name: 'boreMm', label: 'Bore', unit: 'mm' };
const outer: ParamField = { name: 'outerMm', label: 'Outer diameter', unit: 'mm' };
/** Angles are kept in radians, the unit of the formula that they go into (capstan); people are asked and told in degrees. */
export const RADIANS = 'rad';
export const DEGREES_A_RADIAN = 180 / Math.PI;
const bend: ParamField = { name: 'bendRad', label: 'All its bends together', unit: RADIANS };
const hours: ParamField = { name: 'hours', label: 'Hours on it', unit: 'h' };
const age: ParamField = { name: 'ageMonths', label: 'Age', unit: 'months' };
const choice = (name: keyof StationParams, label: string, values: Readonly<Record<string, string>>): ParamField => ({
  name,
  label,
  values: Object.entries(values).map(([id, text]) => ({ id, label: text })),
});
const material = choice('material', 'Material', { PTFE: 'PTFE', nylon: 'Nylon' });

/** What is asked of each kind of station; everything may stay open. */
export const PARAM_FIELDS: Readonly<Record<StationKind, readonly ParamField[]>> = {
  spool: [length, { name: 'dragN', label: 'Pull that turns it', unit: 'N' }],
  guide: [length, bend],
  gate: [length, age],
  buffer: [length, age],
  sensor: [
    length,
    choice('principle', 'Principle', { lever: 'Lever', 'through-beam': 'Through-beam', reflective: 'Reflective' }),
  ],
  tube: [length, bore, outer, bend, material, age],
  coupler: [
    length,
    choice('thread', 'Thread', { M6: 'M6', M10: 'M10' }),
    choice('side', 'Its tube ends', { hot: 'At the hot end', cold: 'Elsewhere' }),
    { name: 'spannerMm', label: 'Spanner', unit: 'mm' },
    choice('teeth', 'Teeth', { plastic: 'Plastic', metal: 'Metal' }),
  ],
  'hub-port': [length],
  hub: [length, { name: 'ports', label: 'Ports' }],
  cutter: [length],
  extruder: [
    length,
    choice('teeth', 'Gear', { brass: 'Brass', steel: 'Plain steel', hardened: 'Hardened' }),
    choice('arm', 'Idler arm', { plastic: 'Plastic', metal: 'Metal' }),
    choice('springRule', 'Spring screw', {
      home: 'Goes home',
      threads: 'Three to four threads show',
      turns: 'By counted turns',
    }),
    { name: 'ratio', label: 'Gear ratio' },
    { name: 'stepsPerMm', label: 'Steps per mm' },
    age,
  ],
  'guide-tube': [length, bore],
  'heat-sink': [length, choice('fan', 'Fan', { always: 'Always on', 'by-temperature': 'By temperature' })],
  'heat-break': [
    length,
    choice('lining', 'Lining', {
      'to-nozzle': 'To the nozzle',
      above: 'Above only',
      none: 'All-metal',
      unknown: 'Not known: ask',
    }),
    bore,
    { name: 'limitC', label: 'Hottest for long', unit: '°C' },
    { name: 'shortLimitC', label: 'Hottest for minutes', unit: '°C' },
    { name: 'shortMinutes', label: 'For so many', unit: 'min' },
    age,
  ],
  'heat-block': [
    length,
    { name: 'heaterW', label: 'Heater', unit: 'W' },
    { name: 'heaterV', label: 'Heater', unit: 'V' },
  ],
  nozzle: [
    length,
    bore,
    choice('nozzleKind', 'Kind', {
      'one-piece': 'One piece with its heat break',
      'two-piece': 'Two-piece',
      'quick-change': 'Quick-change',
      bolted: 'Bolted',
    }),
    hours,
  ],
  job: [],
};

/** The trade's words for the kinds of station. */
export const KIND_NAMES: Readonly<Record<StationKind, string>> = {
  spool: 'Spool and holder',
  guide: 'Guide or inlet',
  gate: 'Feeder gate',
  buffer: 'Buffer',
  sensor: 'Filament sensor',
  tube: 'Tube',
  coupler: 'Coupler',
  'hub-port': 'Hub port',
  hub: 'Hub or splitter',
  cutter: 'Cutter',
  extruder: 'Extruder',
  'guide-tube': 'Short guide tube',
  'heat-sink': 'Heat sink and fan',
  'heat-break': 'Liner or heat break',
  'heat-block': 'Heat block',
  nozzle: 'Nozzle',
  job: 'Print job and settings',
};
