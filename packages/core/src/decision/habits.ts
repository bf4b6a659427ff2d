import type { StationKind } from '../path/machine';
import type { CheckForecast } from './checkForecast';
import type { Model } from './model';

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

/** A habit goes to the first kind of place that still has an open check of its own, and there takes the quickest. */
export function byHabit(
  { kinds }: Habit,
  model: Pick<Model, 'route'>,
  checks: readonly CheckForecast[],
): CheckForecast | undefined {
  const kindOf = new Map(model.route.stops.map(({ station }) => [station.id, station.kind]));
  for (const group of kinds) {
    const own = checks
      .filter(({ place, done }) => {
        const kind = kindOf.get(place.station);
        return !done && kind !== undefined && group.includes(kind) && place.check.reach !== 'span';
      })
      .sort((a, b) => a.price.opened.length - b.price.opened.length || a.checkMinutes - b.checkMinutes)[0];
    if (own) return own;
  }
  return undefined;
}
