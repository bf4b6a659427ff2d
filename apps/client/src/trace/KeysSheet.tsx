import { StyleSheet, View } from 'react-native';
import { Sheet } from '../ui/Sheet';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

const KEYS: readonly (readonly [string, string])[] = [
  ['1 … 9', 'give that result of the check'],
  ['U', 'take the last finding back'],
  ['N', 'choose another check'],
  ['C', 'what is cleared, and by what'],
  ['/', 'on a list: find in it'],
  ['T', 'at work: start the timer of the step'],
  ['Tab, Enter', 'go to a station or a button, and press it'],
  ['Esc', 'close a sheet'],
  ['?', 'these keys'],
];

/** What the keyboard does while tracing. */
export function KeysSheet({ onClose }: { readonly onClose: () => void }) {
  return (
    <Sheet title="Keys" open onClose={onClose}>
      {KEYS.map(([key, what]) => (
        <View key={key} style={styles.row}>
          <Text kind="figure" style={styles.key}>
            {key}
          </Text>
          <Text style={styles.grow}>{what}</Text>
        </View>
      ))}
    </Sheet>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: space.m },
  key: { width: 110 },
  grow: { flex: 1 },
});
