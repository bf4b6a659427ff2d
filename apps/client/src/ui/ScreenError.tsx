import type { ErrorBoundaryProps } from 'expo-router';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { useAppStore } from '../data/store';
import { Notice } from './Card';
import { Page } from './Page';
import { saveFile } from './saveFile';
import { Button } from './Button';
import { Text } from './Text';
import { space } from './tokens';

/** In place of a screen that could not be drawn: the rest of the application goes on, and nothing that was recorded is lost. */
export function ErrorBoundary({ error, retry }: ErrorBoundaryProps) {
  const router = useRouter();
  const store = useAppStore();
  const unsent = store.getState().orders.outbox;
  return (
    <Page title="This screen could not be drawn" back="/">
      <View style={styles.column} role="alert">
        <Notice
          title="Something on this screen does not fit together"
          text="What was recorded is kept: on the server, and on this device what is not sent yet. The other screens go on working."
          action="Try again"
          onAction={() => void retry()}
        />
        <View style={styles.row}>
          <Button label="To the bench" kind="quiet" onPress={() => router.replace('/')} />
          <Button label="Load the page anew" kind="quiet" onPress={() => globalThis.location?.reload()} />
          {unsent.length > 0 ? (
            <Button
              label={`Save ${unsent.length === 1 ? 'the unsent entry' : `the ${unsent.length} unsent entries`}`}
              kind="quiet"
              icon="save"
              onPress={() => saveFile('unsent-entries.json', 'application/json', JSON.stringify(unsent, null, 2))}
            />
          ) : null}
        </View>
        <Text kind="small" tone="soft">{`For whoever mends it: ${error.message}`}</Text>
      </View>
    </Page>
  );
}

const styles = StyleSheet.create({
  column: { gap: space.m },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
});
