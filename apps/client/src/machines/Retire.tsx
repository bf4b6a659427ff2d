import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { problemText, useRetireMachineMutation } from '../data/api';
import { AskFirst } from '../ui/AskFirst';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

/** A machine that has left the shop stands in no list any more; it can be brought back, and its visits are kept. */
export function Retire({ id, retired }: { readonly id: string; readonly retired: boolean }) {
  const [set] = useRetireMachineMutation();
  const [failure, setFailure] = useState<string | undefined>(undefined);
  const run = async (): Promise<void> => {
    try {
      await set({ id, retired: !retired }).unwrap();
      setFailure(undefined);
    } catch (error) {
      setFailure(problemText(error));
    }
  };
  return (
    <View style={styles.column}>
      {retired ? (
        <Button label="It is in the shop again" icon="undo" onPress={() => void run()} style={styles.start} />
      ) : (
        <AskFirst
          label="Retire this machine"
          question="It then stands in no list and cannot be taken in. Its visits are kept, and it can be brought back."
          yes="Retire it"
          no="Leave it"
          onYes={() => void run()}
        />
      )}
      {failure ? (
        <Text tone="fault" bold live>
          {failure}
        </Text>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({ column: { gap: space.xs, marginTop: space.l }, start: { alignSelf: 'flex-start' } });
