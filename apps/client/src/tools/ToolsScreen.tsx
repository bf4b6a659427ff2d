import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { Page } from '../ui/Page';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

/** Calculators that need no order. */
export function ToolsScreen() {
  const router = useRouter();
  return (
    <Page title="Tools">
      <View style={styles.column}>
        <Button label="How long must the tube be?" listed onPress={() => router.push('/tools/tube')}>
          <Text kind="small" tone="soft">
            Cut length, tightest bend, slack, and what happens to retraction
          </Text>
        </Button>
        <Button label="Is this too fast for the hot end?" listed onPress={() => router.push('/tools/print')}>
          <Text kind="small" tone="soft">
            From the print’s own file: flow, retractions on one piece of strand, and what was asked where it stopped
          </Text>
        </Button>
        <Button label="Why does it grind?" listed onPress={() => router.push('/tools/forces')}>
          <Text kind="small" tone="soft">
            Pull and push along the path, what gives way first, and which stretch a gauge says drags
          </Text>
        </Button>
        <Button label="Is it safe to switch off?" listed onPress={() => router.push('/tools/heat')}>
          <Text kind="small" tone="soft">
            Whether the strand softens in the cold zone: fan dead, switched off hot, or after waiting
          </Text>
        </Button>
        <Button label="What should the meter read?" listed onPress={() => router.push('/tools/meter')}>
          <Text kind="small" tone="soft">
            Heater and temperature sensor in ohms, and which temperature a reading stands for
          </Text>
        </Button>
        <Button label="Which drill, and how tight?" listed onPress={() => router.push('/tools/fits')}>
          <Text kind="small" tone="soft">
            Threads, holes that clear, travel of a turn, torque in both units, number drills
          </Text>
        </Button>
        <Button label="Practice bench" listed onPress={() => router.push('/practice')}>
          <Text kind="small" tone="soft">
            A machine with a hidden fault, for the apprentice: find it, and see your way beside the tracer’s
          </Text>
        </Button>
        <Button label="How long do parts last here?" listed onPress={() => router.push('/tools/lives')}>
          <Text kind="small" tone="soft">
            How long nozzles, tubes, gears and the rest last here, and whose were renewed again
          </Text>
        </Button>
      </View>
    </Page>
  );
}

const styles = StyleSheet.create({ column: { gap: space.s, maxWidth: 760, width: '100%', alignSelf: 'center' } });
