import { checksOnLane, type CheckAtPlace, type Machine } from '@zealous/core';
import { useRouter } from 'expo-router';
import { useOrder, useRecorder } from '../data/useOrder';
import { Button } from '../ui/Button';

/** The order whose check asked for a force, and what is known of it. */
export interface GaugeOrder {
  readonly id: string;
  readonly machine: Machine;
  readonly lane: string | undefined;
  readonly material: string | undefined;
  /** Absent where the order takes no finding any more. */
  readonly place: CheckAtPlace | undefined;
}

/** Nothing until the order is there. */
export function useGaugeOrder(id: string, key: string): { readonly found?: GaugeOrder; readonly failure?: string } {
  const { order, failure } = useOrder(id);
  if (!order) return failure === undefined ? {} : { failure };
  const { machine, catalogue, state } = order;
  const { intake, closed } = state;
  const place = closed
    ? undefined
    : checksOnLane(catalogue, machine, intake?.lane).find((item) => item.key === key && item.check.quantity);
  return { found: { id, machine, lane: intake?.lane, material: intake?.material, place } };
}

/** Writes the gauge's reading at the gears into the order, as the finding of the check that asked for it. */
export function GaugeToOrder({ order, newtons }: { readonly order: GaugeOrder; readonly newtons: number }) {
  const router = useRouter();
  const record = useRecorder(order.id);
  const { place } = order;
  const result = place?.check.results[0];
  if (!place || !result) return null;
  return (
    <Button
      label="Write it into the order"
      kind="main"
      icon="check"
      onPress={() => {
        record('finding-recorded', { key: place.key, result: result.id, value: newtons });
        router.replace(`/order/${order.id}/trace`);
      }}
    />
  );
}
