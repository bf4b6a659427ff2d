import { StyleSheet, View } from 'react-native';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

export interface ChangeLineProps {
  /** What the last finding moved. */
  readonly said: string | undefined;
  readonly onAbout?: () => void;
  /** What was found has no word yet. */
  readonly wordless?: boolean;
  /** Takes the last finding back; there until the next check is begun. */
  readonly onUndo?: () => void;
}

/** One line after a finding: what it changed, what else is to be said of it, and the way back. */
export function ChangeLine({ said, onAbout, wordless = false, onUndo }: ChangeLineProps) {
  if (said === undefined) return null;
  return (
    <View style={styles.line}>
      <Text kind="small" bold live testID="change" style={styles.grow}>
        {said}
      </Text>
      {onAbout ? (
        <Button
          label={wordless ? 'Say what it was' : 'About it'}
          hint="What it was, a picture of it, or that it is not the cause"
          kind={wordless ? 'plain' : 'quiet'}
          onPress={onAbout}
          style={styles.slim}
        />
      ) : null}
      {onUndo ? <Button label="Undo" icon="undo" kind="quiet" onPress={onUndo} style={styles.slim} /> : null}
    </View>
  );
}

const styles = StyleSheet.create({
  line: { flexDirection: 'row', alignItems: 'center', columnGap: space.s, paddingHorizontal: space.l },
  grow: { flex: 1 },
  slim: { paddingHorizontal: space.xs },
});
