import type { Assessment } from '@zealous/core';
import { Pressable, StyleSheet, View } from 'react-native';
import { Sheet } from '../ui/Sheet';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { radius, space } from '../ui/tokens';

/** The other checks, ranked, with what each costs against the best and why. */
export function OtherChecks({
  assessment,
  onClose,
  onPick,
}: {
  readonly assessment: Assessment;
  readonly onClose: () => void;
  readonly onPick: (key: string) => void;
}) {
  const palette = usePalette();
  const best = assessment.checks[0]?.expectedMinutes ?? 0;
  return (
    <Sheet title="Choose another check" open onClose={onClose}>
      <Text kind="small" tone="soft">
        Ranked by the minutes to a proved repair that may be expected when the check is done next.
      </Text>
      {assessment.checks.map((check) => {
        const more = check.expectedMinutes - best;
        return (
          <Pressable
            key={check.key}
            role="button"
            aria-label={check.name}
            onPress={() => onPick(check.key)}
            style={[styles.item, { borderColor: palette.line, backgroundColor: palette.card }]}
          >
            <View style={styles.row}>
              <Text bold style={styles.grow}>
                {check.name}
              </Text>
              <Text kind="figure" tone={more < 0.5 ? 'clear' : 'soft'}>
                {more < 0.5 ? 'best' : `+${Math.round(more)} min`}
              </Text>
            </View>
            <Text kind="small" tone="soft">{`${check.done ? 'Done already. ' : ''}${check.because[0] ?? ''}`}</Text>
            <Text kind="small">
              {[check.priceParts.join(' + '), check.opens.length ? `opens ${check.opens.join(', ')}` : undefined]
                .filter(Boolean)
                .join('; ')}
            </Text>
          </Pressable>
        );
      })}
      {assessment.checks.length === 0 ? (
        <Text>No check is left that could teach anything. Choose a cause on the strand.</Text>
      ) : null}
    </Sheet>
  );
}

const styles = StyleSheet.create({
  item: { borderWidth: 1, borderRadius: radius.m, padding: space.m, gap: space.xs, minHeight: 48 },
  row: { flexDirection: 'row', gap: space.s, alignItems: 'baseline' },
  grow: { flex: 1 },
});
