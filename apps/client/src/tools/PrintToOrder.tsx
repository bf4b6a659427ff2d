import {
  checksOnLane,
  fitFeedCurve,
  stopResult,
  toldStop,
  type AskedAtStop,
  type CheckAtPlace,
  type EventBodies,
  type OrderState,
  type StopPlace,
  type StopVerdict,
} from '@zealous/core';
import { useRouter } from 'expo-router';
import { useOrder, useRecorder } from '../data/useOrder';
import { Button } from '../ui/Button';

/** What is known already of the print that failed, and where what is read may be written. */
export interface OrderFigures {
  readonly order?: string;
  /** The check that asked for it; absent where the order takes no finding any more. */
  readonly place?: CheckAtPlace;
  /** What was given at the taking-in. */
  readonly intake?: EventBodies['intake-corrected'];
  readonly strandMm?: number;
  readonly heightMm?: number | undefined;
  readonly minutes?: number | undefined;
  readonly meltsMm3PerS?: number | undefined;
}

export const NOTHING_KNOWN: OrderFigures = {};

function given(intake: NonNullable<OrderState['intake']>): EventBodies['intake-corrected'] {
  const { number: _number, machineId: _machine, at: _at, by: _by, askedAt: _askedAt, ...rest } = intake;
  return rest;
}

/** No figures until the order is there. */
export function useOrderFigures(
  id: string,
  key: string,
): { readonly figures?: OrderFigures; readonly failure?: string } {
  const { order, failure } = useOrder(id);
  if (!order) return failure === undefined ? {} : { failure };
  const { machine, catalogue } = order;
  const { intake, curve, closed } = order.state;
  const place = closed
    ? undefined
    : checksOnLane(catalogue, machine, intake?.lane).find((item) => item.key === key && item.check.tool);
  const flow = curve && curve.length >= 4 ? fitFeedCurve(curve, machine.strandMm).flowMm3PerS : undefined;
  return {
    figures: {
      order: id,
      ...(intake ? { intake: given(intake) } : {}),
      ...(place ? { place } : {}),
      strandMm: machine.strandMm,
      heightMm: intake?.failedAtMm,
      minutes: intake?.failedAfterMinutes,
      meltsMm3PerS: flow === undefined ? undefined : Number(flow.toFixed(1)),
    },
  };
}

/**
 * Writes what was read into the order, as the finding of the check that asked for it; and where or when it stopped into the
 * taking-in: past that the job that failed must run before the repair is proved.
 */
export function PrintToOrder({
  order,
  place,
  intake,
  stop,
  verdict,
  asked,
}: {
  readonly order: string;
  readonly place: CheckAtPlace;
  readonly intake: EventBodies['intake-corrected'] | undefined;
  readonly stop: StopPlace;
  readonly verdict: StopVerdict;
  readonly asked: AskedAtStop;
}) {
  const router = useRouter();
  const record = useRecorder(order);
  const found = stopResult(place.check, verdict, asked);
  if (!found) return null;
  const { result, value } = found;
  return (
    <Button
      label="Write it into the order"
      kind="main"
      icon="check"
      onPress={() => {
        const right = intake && { ...intake, ...toldStop(stop) };
        if (right && (right.failedAtMm !== intake.failedAtMm || right.failedAfterMinutes !== intake.failedAfterMinutes))
          record('intake-corrected', right);
        record('finding-recorded', { key: place.key, result: result.id, ...(value === undefined ? {} : { value }) });
        router.replace(`/order/${order}/trace`);
      }}
    />
  );
}
