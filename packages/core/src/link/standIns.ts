export { StandIn } from './standIn';
export { natureOf, SOUND, type StandInNature } from './standInNature';
