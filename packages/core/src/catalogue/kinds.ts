/** The words that records of the catalogue are made of, for those who judge a record and need nothing else of the core. */
export { STATION_KINDS, type StationKind } from '../path/machine';
export { LINE_SIGNS } from './lineSigns';
export { CHANGE_KINDS, type ChangeKind } from './shop';
export { COMPLAINED_ABOUT, DEED_EFFECTS, HAZARDS, PLACES, PURPOSES } from './types';
