import { answersOf, isAbnormal, type Check, type RecordedFinding } from '@zealous/core';
import type { OrderPartProps } from '../orders/OrderShell';
import { PhotoStrip } from '../photos/PhotoStrip';
import { Button } from '../ui/Button';
import { Sheet } from '../ui/Sheet';
import { Text } from '../ui/Text';

/** What was just found: a picture of it, and whether it has to do with the complaint at all. */
export function AboutFinding({
  order,
  record,
  found,
  check,
  onClose,
}: OrderPartProps & {
  readonly found: RecordedFinding;
  readonly check: Check;
  readonly onClose: () => void;
}) {
  const { id, result, innocent = false } = found;
  return (
    <Sheet title="About what was just found" open onClose={onClose}>
      <Text bold>{`${check.name}: ${answersOf(check).find((item) => item.id === result)?.label ?? result}`}</Text>
      {isAbnormal(check, result) ? (
        <Button
          label={innocent ? 'It may be the cause' : 'Real, but not the cause'}
          onPress={() => {
            record('finding-marked', { findingId: id, innocent: !innocent });
            onClose();
          }}
        />
      ) : null}
      <PhotoStrip compact orderId={order.id} state={order.state} record={record} about={id} label="Picture" />
    </Sheet>
  );
}
