import { modeById, stationById, type Catalogue } from '@zealous/core';
import type { OpenOrder } from '../data/useOrder';

/** Title of the chosen cause, for screens that name it. */
export function causeTitle({ machine, state: { cause } }: OpenOrder, catalogue: Catalogue): string {
  if (!cause) return '';
  return `${stationById(machine, cause.station)?.name ?? cause.station}: ${(modeById(catalogue, cause.mode)?.name ?? cause.mode).toLowerCase()}`;
}
