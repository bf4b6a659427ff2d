import type { LineSign } from '../catalogue/lineSigns';
import type { Check } from '../catalogue/types';
import { placesOf, type RoundBench } from '../practice/roundBench';

/** How a simulated printer behaves; what its hidden fault does to what a line can ask. */
export interface StandInNature {
  /** Strand that comes of a millimetre asked. */
  readonly fed: number;
  readonly sensor: LineSign;
  readonly heat: LineSign;
  /** Its time constant of cooling against the description’s. */
  readonly coolFactor: number;
  /** Steps a millimetre in its firmware against the right ones. */
  readonly stepsOff?: number;
  /** Whether its firmware sets the target to zero after a time without feeding. */
  readonly idleOff: boolean;
}

export const SOUND: StandInNature = { fed: 1, sensor: 'follows', heat: 'steady', coolFactor: 1, idleOff: true };

/** What is asked of the gears, mm, by the check that measures it. */
const ASKED_MM = 100;

/** The nature that a hidden fault gives a printer: what the checks by the machine itself would find on its bench. */
export function natureOf(bench: RoundBench, coolFactor: number): StandInNature {
  const found = (line: NonNullable<Check['byLine']>) => {
    const place = placesOf(bench).find(({ check }) => check.byLine === line);
    const finding = place && bench.look(place);
    return {
      value: finding?.value,
      sign: place?.check.results.find(({ id }) => id === finding?.result)?.sign,
    };
  };
  const fed = (found('feed').value ?? ASKED_MM) / ASKED_MM;
  // Steps that differ are what makes it feed otherwise: the gears themselves are sound.
  const steps = found('steps').sign === 'steps-differ';
  return {
    ...(steps ? { fed: 1, stepsOff: fed } : { fed }),
    sensor: found('sensor').sign ?? SOUND.sensor,
    heat: found('temperature').sign ?? SOUND.heat,
    coolFactor,
    idleOff: true,
  };
}
