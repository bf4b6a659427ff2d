import type { RoundBench } from '../practice/roundBench';
import { placesOf } from '../practice/roundBench';

export type SensorHabit = 'follows' | 'stuck-present' | 'stuck-absent' | 'flickers';

/** How a simulated printer behaves; what its hidden fault does to what a line can ask. */
export interface StandInNature {
  /** Strand that comes of a millimetre asked. */
  readonly fed: number;
  readonly sensor: SensorHabit;
  readonly heat: 'steady' | 'odd' | 'slow';
  /** Its time constant of cooling against the description’s. */
  readonly coolFactor: number;
  /** Steps a millimetre in its firmware against the right ones. */
  readonly stepsOff?: number;
  /** Whether its firmware sets the target to zero after a time without feeding. */
  readonly idleOff: boolean;
}

export const SOUND: StandInNature = { fed: 1, sensor: 'follows', heat: 'steady', coolFactor: 1, idleOff: true };

/** The opposite of what a switch says. */
export const other = (word: string): string => (word === 'open' ? 'TRIGGERED' : 'open');

const SENSORS: readonly SensorHabit[] = ['follows', 'stuck-present', 'stuck-absent', 'flickers'];

/** The nature that a hidden fault gives a printer: what the checks by the machine itself would find on its bench. */
export function natureOf(bench: RoundBench, coolFactor: number): StandInNature {
  const found = (check: string) => {
    const place = placesOf(bench).find((one) => one.check.id === check);
    return place && bench.look(place);
  };
  const fed = found('feed-100')?.value;
  const sensor = found('sensor-signal')?.result;
  const heat = found('watch-temp')?.result;
  return {
    fed: fed === undefined ? 1 : fed / 100,
    sensor: SENSORS.find((habit) => habit === sensor) ?? 'follows',
    heat: heat === 'odd' || heat === 'slow' ? heat : 'steady',
    coolFactor,
    idleOff: true,
  };
}
