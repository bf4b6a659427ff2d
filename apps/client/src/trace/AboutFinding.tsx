import {
  answersOf,
  isAbnormal,
  type Check,
  type CheckAtPlace,
  type OrderState,
  type RecordedFinding,
} from '@zealous/core';
import type { OrderPartProps } from '../orders/OrderShell';
import { PhotoStrip } from '../photos/PhotoStrip';
import { Button } from '../ui/Button';
import { FormText } from '../ui/form/FormFields';
import { filled, useEntryForm } from '../ui/form/useEntryForm';
import { Sheet } from '../ui/Sheet';
import { Text } from '../ui/Text';

/** Whether what was found has no word of the catalogue, and nobody has said yet what it was. */
export function wantsWords({ notes }: OrderState, { id, result, also = [] }: RecordedFinding, check: Check): boolean {
  const told = check.results.filter((item) => item.id === result || also.includes(item.id));
  return told.some(({ ownWords }) => ownWords) && !notes.some(({ findingId }) => findingId === id);
}

/** What was just found: in one’s own words what it was, a picture of it, and whether it has to do with the complaint at all. */
export function AboutFinding({
  order,
  record,
  found,
  place: { check, name },
  onClose,
}: OrderPartProps & {
  readonly found: RecordedFinding;
  readonly place: CheckAtPlace;
  readonly onClose: () => void;
}) {
  const { id, result, also = [], innocent = false } = found;
  const label = (answer: string): string => answersOf(check).find((item) => item.id === answer)?.label ?? answer;
  const form = useEntryForm<'note-added', { readonly text?: string }>({
    type: 'note-added',
    keep: `found:${id}`,
    defaults: {},
    toBody: (typed) => ({ ...filled(typed), findingId: id }),
  });
  return (
    <Sheet title="About what was just found" open onClose={onClose}>
      <Text bold>{`${name}: ${[result, ...also].map(label).join('; ')}`}</Text>
      {order.state.notes.map(({ findingId, at, text }) =>
        findingId === id ? (
          <Text key={at} kind="small" tone="soft">
            {`Said of it: ${text}`}
          </Text>
        ) : null,
      )}
      <FormText control={form.control} name="text" label="What it was, in your own words" most={2000} lines />
      <Button
        label="Write it down"
        kind={wantsWords(order.state, found, check) ? 'main' : 'plain'}
        icon="save"
        onPress={() =>
          form.submit((body) => {
            record('note-added', body);
            onClose();
          })
        }
      />
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
