import type { EventBodies } from '@zealous/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useShopHistoryQuery } from '../data/api';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { NumberField } from '../ui/form/NumberField';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

export type FittedPart = Partial<Omit<EventBodies['part-replaced'], 'station' | 'part'>>;

const GENUINE = [
  { id: 'yes', label: 'Genuine' },
  { id: 'no', label: 'Other maker' },
  { id: 'unknown', label: 'Don’t know' },
] as const;
const hours = (n: number): boolean => n >= 0 && n <= 1_000_000;

/** The part that is fitted: looked at for the same flaw first, then noted by maker and batch. */
export function PartFields({
  part,
  onChange,
}: {
  readonly part: FittedPart;
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
  const set = <K extends keyof FittedPart>(name: K, value: FittedPart[K] | undefined): void => {
    const { [name]: _old, ...rest } = part;
    onChange(value === undefined || value === '' ? rest : { ...rest, [name]: value });
  };
  return (
    <View style={styles.column}>
      <Text bold>Look for the same flaw in the new part before it is fitted.</Text>
      {open ? (
        <View style={styles.column}>
          <View style={styles.row}>
            <Field
              label="Maker"
              value={part.maker ?? ''}
              onChange={(text) => set('maker', text)}
              most={60}
              style={styles.grow}
            />
            <Field
              label="Batch"
              value={part.batch ?? ''}
              onChange={(text) => set('batch', text)}
              most={60}
              style={styles.grow}
            />
          </View>
          <View style={styles.row}>
            <NumberField
              label="Price"
              value={part.price}
              fits={(n) => n >= 0 && n <= 100_000}
              onChange={(n) => set('price', n)}
              style={styles.grow}
            />
            <NumberField
              label="Hours on it"
              value={part.hours}
              fits={hours}
              onChange={(n) => set('hours', n)}
              style={styles.grow}
            />
            <NumberField
              label="Hours on the old one"
              value={part.oldHours}
              fits={hours}
              onChange={(n) => set('oldHours', n)}
              style={styles.grow}
            />
          </View>
          {before.length > 0 ? (
            <Text kind="small" bold={again.length > 0} tone={again.length > 0 ? 'fault' : 'soft'}>
              {`Fitted here before: ${before.length}${again.length > 0 ? `, and renewed again at ${again.length}: ${again.map((item) => `${item.machine} ${item.batch}`).join(', ')}. Look for the same flaw.` : ', none renewed again so far.'}`}
            </Text>
          ) : null}
          <Choice
            label="Genuine or not"
            options={GENUINE}
            chosen={part.genuine ? [part.genuine] : []}
            onToggle={(id) => set('genuine', id)}
          />
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
