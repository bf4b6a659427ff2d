import type { ChosenCause, OrderState, RungTry } from './state';

/** The cause under work, and those taken on with it. */
export const causesUnderWork = ({ cause, also }: OrderState): readonly ChosenCause[] => (cause ? [cause, ...also] : []);

/** What was tried at a cause, in that order. */
export const triesAt = (
  { tries }: OrderState,
  { station, mode }: Pick<ChosenCause, 'station' | 'mode'>,
): readonly RungTry[] => tries.filter((item) => item.station === station && item.mode === mode);

/** Whether one of the tries at a cause cleared it. */
export const isCleared = (state: OrderState, cause: Pick<ChosenCause, 'station' | 'mode'>): boolean =>
  triesAt(state, cause).some((item) => item.outcome === 'cleared');

/** The causes under work that their remedy cleared: they stay in the record while another one is taken on. */
export const clearedSoFar = (state: OrderState): OrderState['cured'] =>
  causesUnderWork(state)
    .filter((cause) => isCleared(state, cause))
    .map(({ eventId, station, mode }) => ({
      id: eventId,
      station,
      mode,
      remedies: triesAt(state, { station, mode }).map((item) => item.remedy),
    }));
