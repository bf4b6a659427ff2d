import { faultsOfEntry } from '@zealous/contracts/entries';
import type { EventBodies } from '@zealous/core';
import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useShopHistoryQuery } from '../data/api';
import { FormChoice, FormNumber, FormText } from '../ui/form/FormFields';
import { filled, useEntryForm } from '../ui/form/useEntryForm';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

export type FittedPart = Partial<Omit<EventBodies['part-replaced'], 'station' | 'part'>>;

const GENUINE = [
  { id: 'yes', label: 'Genuine' },
  { id: 'no', label: 'Other maker' },
  { id: 'unknown', label: 'Don’t know' },
] as const;

/** What is typed of the part; a number that is none stays as it was typed, and is refused at its field. */
type Typed = { readonly [K in keyof FittedPart]: FittedPart[K] | string };

/** Judged as the entry will be, whose station and part are the step's. */
const bodyOf = (values: Typed): object => ({ station: 'station', part: 'part', ...filled(values) });

/** The part that is fitted: looked at for the same flaw first, then noted by maker and batch. */
export function PartFields({
  part,
  fitted,
  onChange,
}: {
  readonly part: FittedPart;
  /** It is in already, and was seen to cure. */
  readonly fitted: boolean;
  readonly onChange: (part: FittedPart) => void;
}) {
  const [open, setOpen] = useState(false);
  const history = useShopHistoryQuery().data;
  const word = (text: string | undefined): string => (text ?? '').trim().toLowerCase();
  const before = (history?.parts ?? []).filter(
    (item) =>
      part.maker && word(item.maker) === word(part.maker) && (!part.batch || word(item.batch) === word(part.batch)),
  );
  const again = before.filter((item) => item.again);
  const { control, subscribe } = useEntryForm<'part-replaced', Typed>({
    type: 'part-replaced',
    defaults: part as Typed,
    toBody: bodyOf,
  });
  // What fits is noted at once; what does not stands at its field with its error, and is not noted.
  useEffect(
    () =>
      subscribe({
        formState: { values: true },
        callback: ({ values }) => {
          const wrong = faultsOfEntry('part-replaced', bodyOf(values)).map(({ path }) => path.slice(1));
          const fits = Object.entries(filled(values)).filter(([name]) => !wrong.includes(name));
          onChange(Object.fromEntries(fits) as FittedPart);
        },
      }),
    [subscribe, onChange],
  );
  return (
    <View style={styles.column}>
      {fitted ? null : <Text bold>Look for the same flaw in the new part before it is fitted.</Text>}
      {open ? (
        <View style={styles.column}>
          <View style={styles.row}>
            <FormText control={control} name="maker" label="Maker" most={60} style={styles.grow} />
            <FormText control={control} name="batch" label="Batch" most={60} style={styles.grow} />
          </View>
          <View style={styles.row}>
            <FormNumber control={control} name="price" label="Price" style={styles.grow} />
            <FormNumber control={control} name="hours" label="Hours on it" style={styles.grow} />
            <FormNumber control={control} name="oldHours" label="Hours on the old one" style={styles.grow} />
          </View>
          {before.length > 0 ? (
            <Text kind="small" bold={again.length > 0} tone={again.length > 0 ? 'fault' : 'soft'}>
              {`Fitted here before: ${before.length}${again.length > 0 ? `, and renewed again at ${again.length}: ${again.map((item) => `${item.machine} ${item.batch}`).join(', ')}. Look for the same flaw.` : ', none renewed again so far.'}`}
            </Text>
          ) : null}
          <FormChoice control={control} name="genuine" label="Genuine or not" options={GENUINE} />
        </View>
      ) : (
        <Button
          label="Note maker, batch, price, hours"
          kind="quiet"
          icon="plus"
          onPress={() => setOpen(true)}
          style={styles.start}
        />
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  column: { gap: space.s },
  row: { flexDirection: 'row', alignItems: 'flex-end', gap: space.s },
  grow: { flex: 1 },
  start: { alignSelf: 'flex-start' },
});
