import type { ChosenCause, OrderState } from './state';

/** The cause under work, and those taken on with it. */
export const causesUnderWork = ({ cause, also }: OrderState): readonly ChosenCause[] => (cause ? [cause, ...also] : []);

/** Whether the last try at a cause cleared it. */
export const isCleared = ({ tries }: OrderState, { station, mode }: Pick<ChosenCause, 'station' | 'mode'>): boolean =>
  tries.some((item) => item.station === station && item.mode === mode && item.outcome === 'cleared');

/** The causes under work that their remedy cleared: they stay in the record while another one is taken on. */
export const clearedSoFar = (state: OrderState): OrderState['cured'] =>
  causesUnderWork(state)
    .filter((cause) => isCleared(state, cause))
    .map(({ eventId, station, mode }) => ({
      id: eventId,
      station,
      mode,
      remedies: state.tries.filter((item) => item.station === station && item.mode === mode).map((item) => item.remedy),
    }));
