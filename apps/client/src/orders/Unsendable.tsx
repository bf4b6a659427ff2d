import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { eventMended, recoveredRead, refusedDropped, type Unsent } from '../data/ordersSlice';
import { useAppDispatch, useAppSelector } from '../data/store';
import type { OpenOrder } from '../data/useOrder';
import { Field } from '../ui/Field';
import { Icon } from '../ui/Icon';
import { saveFile } from '../ui/saveFile';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { space } from '../ui/tokens';
import { valueAt, withValueAt } from './pointer';

/** Entries of an order that cannot be sent as they are: each says why, and can be mended, tried again, saved or removed. */
export function Unsendable({ order }: { readonly order: OpenOrder }) {
  const palette = usePalette();
  const dispatch = useAppDispatch();
  const recovered = useAppSelector((root) => root.orders.recovered[order.id]);
  const stuck = order.unsent.filter((item) => item.problem);
  return (
    <>
      {recovered ? (
        <View role="status" style={[styles.entry, { backgroundColor: palette.warmWash }]}>
          <Text kind="small" style={styles.grow}>
            {`The server had lost ${recovered === 1 ? 'an entry' : `${recovered} entries`} of this order, as after an older backup. This device kept ${recovered === 1 ? 'it' : 'them'} and sends ${recovered === 1 ? 'it' : 'them'} again.`}
          </Text>
          <Button label="Read" kind="quiet" onPress={() => dispatch(recoveredRead(order.id))} />
        </View>
      ) : null}
      {stuck.map((item) => (
        <Entry key={item.event.id} item={item} />
      ))}
    </>
  );
}

function Entry({ item }: { readonly item: Unsent }) {
  const palette = usePalette();
  const dispatch = useAppDispatch();
  const { event, problem } = item;
  const wrong = problem?.path === undefined ? undefined : valueAt(event, problem.path);
  const mendable = typeof wrong === 'string' && problem?.path?.startsWith('/body/');
  const [text, setText] = useState<string | undefined>(undefined);
  const passing = problem?.passing === true;
  return (
    <View role="alert" style={[styles.entry, { backgroundColor: passing ? palette.warmWash : palette.faultWash }]}>
      <Icon name="alert" color={palette.fault} />
      <View style={styles.words}>
        <Text bold tone="fault">
          {problem?.title ?? 'Not taken'}
        </Text>
        <Text kind="small">
          {passing
            ? `${problem.detail} The entry is kept and tried again; other orders go on.`
            : `${problem?.detail ?? ''} Remove this entry; then record again what fits.`}
        </Text>
        {text === undefined ? null : <Field label="What it says" value={text} onChange={setText} lines />}
        <View style={styles.taps}>
          {mendable && text === undefined ? (
            <Button label="Mend it" kind="quiet" icon="edit" onPress={() => setText(wrong)} />
          ) : null}
          {text === undefined ? (
            <Button label="Try again" kind="quiet" onPress={() => dispatch(eventMended(event))} />
          ) : (
            <Button
              label="Send it so"
              kind="main"
              onPress={() => dispatch(eventMended(withValueAt(event, problem?.path ?? '', text)))}
            />
          )}
          <Button
            label="Save it"
            kind="quiet"
            icon="save"
            onPress={() => saveFile(`entry-${event.id}.json`, 'application/json', JSON.stringify(item, null, 2))}
          />
          <Button label="Remove entry" kind="quiet" onPress={() => dispatch(refusedDropped(event.id))} />
        </View>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  entry: { flexDirection: 'row', alignItems: 'flex-start', gap: space.s, padding: space.m },
  words: { flex: 1, gap: space.xs },
  grow: { flex: 1 },
  taps: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
});
