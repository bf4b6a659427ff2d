import { keyOf } from '../bench/stepKeys';
import type { OrderState } from './state';

/** Parts whose closing was skipped, with the reason. */
export const leftOffOf = (state: OrderState): Readonly<Record<string, string>> =>
  Object.fromEntries(
    Object.entries(state.steps).flatMap(([id, { skipped }]) => {
      const key = keyOf(id);
      const part = key.startsWith('close:') ? key.slice('close:'.length).split('/')[0] : undefined;
      return part !== undefined && skipped !== undefined && state.off.includes(part) ? [[part, skipped]] : [];
    }),
  );
