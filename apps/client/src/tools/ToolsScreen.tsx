import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { Page } from '../ui/Page';
import { Tap } from '../ui/Tap';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

/** Calculators that need no order. */
export function ToolsScreen() {
  const router = useRouter();
  return (
    <Page title="Tools">
      <View style={styles.column}>
        <Tap label="Tube planner" listed onPress={() => router.push('/tools/tube')}>
          <Text kind="small" tone="soft">
            Cut length, tightest bend, slack, and what happens to retraction
          </Text>
        </Tap>
        <Tap label="Part lives" listed onPress={() => router.push('/tools/lives')}>
          <Text kind="small" tone="soft">
            How long nozzles, tubes, gears and the rest last here, and whose were renewed again
          </Text>
        </Tap>
      </View>
    </Page>
  );
}

const styles = StyleSheet.create({ column: { gap: space.s, maxWidth: 760, width: '100%', alignSelf: 'center' } });
