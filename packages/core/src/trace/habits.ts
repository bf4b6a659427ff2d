import type { StationKind } from '../path/machine';

/** A fixed order of the trade: places are taken on kind by kind, whatever was found. */
export interface Habit {
  readonly id: string;
  readonly name: string;
  readonly kinds: readonly (readonly StationKind[])[];
}

/** Orders that technicians keep to by habit (practice). */
export const HABITS: readonly Habit[] = [
  {
    id: 'filament-first',
    name: 'Filament first',
    kinds: [
      ['spool'],
      ['nozzle'],
      ['extruder', 'guide-tube'],
      ['tube', 'coupler', 'guide', 'hub-port', 'heat-break'],
      ['heat-sink', 'heat-block'],
      ['hub', 'sensor', 'cutter'],
      ['buffer', 'gate'],
      ['job'],
    ],
  },
  {
    id: 'nozzle-first',
    name: 'Nozzle first',
    kinds: [
      ['nozzle', 'heat-break', 'heat-block'],
      ['extruder', 'guide-tube'],
      ['heat-sink'],
      ['tube', 'coupler', 'guide'],
      ['spool', 'job'],
      ['hub', 'hub-port', 'sensor', 'cutter', 'buffer', 'gate'],
    ],
  },
  {
    id: 'hub-first',
    name: 'Hub first',
    kinds: [
      ['hub', 'hub-port', 'sensor', 'cutter'],
      ['coupler', 'tube', 'guide'],
      ['extruder', 'guide-tube'],
      ['buffer', 'gate', 'spool'],
      ['heat-break', 'nozzle', 'heat-block', 'heat-sink'],
      ['job'],
    ],
  },
  {
    id: 'outside-first',
    name: 'Power off and outside first',
    kinds: [
      ['spool', 'guide', 'gate'],
      ['buffer', 'coupler', 'tube'],
      ['hub-port', 'hub', 'sensor'],
      ['extruder', 'guide-tube', 'cutter'],
      ['heat-break', 'nozzle', 'heat-block', 'heat-sink'],
      ['job'],
    ],
  },
];
