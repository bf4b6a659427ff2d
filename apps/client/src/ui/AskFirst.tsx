import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from './Button';
import { Text } from './Text';
import { space } from './tokens';

export interface AskFirstProps {
  readonly label: string;
  readonly icon?: string;
  /** What would be lost. */
  readonly question: string;
  readonly yes: string;
  readonly no: string;
  readonly onYes: () => void;
}

/** Something that cannot be taken back: asked once more before it is done. */
export function AskFirst({ label, icon, question, yes, no, onYes }: AskFirstProps) {
  const [asked, setAsked] = useState(false);
  if (!asked) return <Button label={label} kind="quiet" {...(icon ? { icon } : {})} onPress={() => setAsked(true)} />;
  return (
    <View style={styles.asked} role="group" aria-label={label}>
      <Text bold live>
        {question}
      </Text>
      <View style={styles.row}>
        <Button label={no} kind="quiet" onPress={() => setAsked(false)} />
        <Button label={yes} onPress={onYes} />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  asked: { gap: space.xs, flexShrink: 1 },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
});
