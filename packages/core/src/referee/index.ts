export { playPlan } from './play';
export { ACCIDENTS, type Accident, type AccidentId, type Deed, type PlayedStep, type Scene } from './types';
