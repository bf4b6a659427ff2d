import type { SetSuspicion } from '@zealous/core';
import { useRouter } from 'expo-router';
import { orderHref } from '../orders/links';
import type { OrderPartProps } from '../orders/OrderShell';

/** What is taken on for repair, and the way to its work. */
export function useCauses({ order, record }: OrderPartProps) {
  const router = useRouter();
  const toWork = (): void => router.replace(orderHref(order.id, 'plan'));
  const choose = (at: string, mode: string, advised: boolean): void => {
    record('cause-chosen', { station: at, mode, advised });
    toWork();
  };
  const both = ({ stations, modes }: SetSuspicion): void => {
    stations.forEach((at, i) => {
      const mode = modes[i] ?? '';
      if (i === 0) record('cause-chosen', { station: at, mode, advised: true });
      else record('cause-added', { station: at, mode });
    });
    toWork();
  };
  /** Beside one that is under work already it is taken on in the same opening. */
  const takeOn = (at: string, mode: string): void => {
    if (!order.state.cause) return choose(at, mode, false);
    record('cause-added', { station: at, mode });
    toWork();
  };
  return { choose, both, takeOn, toWork };
}
