import type { OrderState } from '../order/state';

/** Checks not to offer: those said to be impossible here. */
export const barredKeys = (state: OrderState): ReadonlySet<string> => new Set(state.notDone.map((item) => item.key));
