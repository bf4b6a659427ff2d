import { useRouter, type Href } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { Button } from '../ui/Button';
import { FormText } from '../ui/form/FormFields';
import { filled, useEntryForm } from '../ui/form/useEntryForm';
import { Sheet } from '../ui/Sheet';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';
import { Glossary } from '../help/Glossary';
import type { OrderPartProps } from './OrderShell';

/** What belongs to the order as a whole, wherever it stands: a free note, the taking-in put right, and what the words mean. */
export function OrderSheet({ order, record, onClose }: OrderPartProps & { readonly onClose: () => void }) {
  const router = useRouter();
  const { state } = order;
  const form = useEntryForm<'note-added', { readonly text?: string }>({
    type: 'note-added',
    keep: `note:${order.id}`,
    defaults: {},
    toBody: filled,
  });
  return (
    <Sheet title={`Order ${state.intake?.number ?? ''}`} open onClose={onClose}>
      <FormText control={form.control} name="text" label="A note for the record" most={2000} lines />
      <Button
        label="Write the note down"
        kind="main"
        icon="save"
        onPress={() =>
          form.submit((body) => {
            record('note-added', body);
            form.reset({ text: '' });
          })
        }
      />
      {state.notes.slice(-3).map(({ at, text }) => (
        <Text key={at} kind="small" tone="soft">
          {`Noted: ${text}`}
        </Text>
      ))}
      {state.closed ? null : (
        <Button
          label="Put the taking-in right"
          icon="edit"
          onPress={() => {
            onClose();
            router.push(`/order/${order.id}/intake` as Href);
          }}
        />
      )}
      <View style={styles.words}>
        <Glossary />
      </View>
    </Sheet>
  );
}

const styles = StyleSheet.create({ words: { marginTop: space.m } });
