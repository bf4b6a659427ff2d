import { minutesText, percent, type Assessment, type RankedCheck, type Sight } from '@zealous/core';
import { StyleSheet, View } from 'react-native';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

/** Under the strand: several causes at once, something not on the list and what speaks for it, and the map of what is cleared. */
export function UnderStrand({ sight, onCleared }: { readonly sight: Sight; readonly onCleared: () => void }) {
  const { elsewhere, stations, unexplained, beside, sets } = sight;
  const cleared = stations.filter((station) => station.clearedBy !== undefined).length;
  return (
    <View style={styles.under}>
      {elsewhere >= 0.05 ? (
        <Text kind="small" tone="doubt" bold>{`Something not on the list: ${percent(elsewhere)}`}</Text>
      ) : null}
      {beside ? (
        <Text kind="small" tone="doubt">
          {beside}
        </Text>
      ) : null}
      {unexplained.map((label) => (
        <Text key={label} kind="small" tone="doubt">{`The likeliest listed cause leaves unexplained: ${label}`}</Text>
      ))}
      {sets.map((set) => (
        <Text key={set.text} kind="small" tone="doubt">
          {`${set.stations.length === 2 ? 'Two' : set.stations.length} at once, ${percent(set.share)}: ${set.text}`}
        </Text>
      ))}
      {cleared === 0 ? (
        <Text kind="small" tone="soft">
          Nothing is cleared yet.
        </Text>
      ) : (
        <Button
          label={`${cleared} of ${stations.length} cleared: by what?`}
          kind="quiet"
          onPress={onCleared}
          style={styles.start}
        />
      )}
    </View>
  );
}

export interface BesideProps {
  readonly assessment: Assessment;
  readonly check: RankedCheck;
  /** A fixed order of the trade that is kept to. */
  readonly habit?: string | undefined;
  readonly onTake: (key: string) => void;
}

/** Lines beside the check: what may be done meanwhile, a better one found by a longer look, what the habit costs. */
export function BesideCheck({ assessment, check, habit, onTake }: BesideProps) {
  const best = assessment.checks.find((item) => !item.done);
  const gain = best ? check.expectedMinutes - best.expectedMinutes : 0;
  const kept = assessment.habits.find((item) => item.id === habit);
  const byHabit = kept?.key === check.key;
  return (
    <View style={styles.beside}>
      {assessment.advice.apart && best?.key === check.key ? (
        <Text kind="small" tone="doubt">
          {assessment.advice.text}
        </Text>
      ) : null}
      {check.meanwhile.map((item) => (
        <Button
          key={item.key}
          label={`Meanwhile: ${item.name}`}
          kind="quiet"
          listed
          onPress={() => onTake(item.key)}
          style={styles.slim}
        >
          <Text kind="small" tone="soft">{`${minutesText(item.minutes)}, while it heats or cools`}</Text>
        </Button>
      ))}
      {kept && byHabit ? (
        <Text kind="small" tone="soft">
          {`By habit, ${kept.name.toLowerCase()}: about ${minutesText(kept.moreMinutes ?? 0)} more than the tracer’s choice.`}
        </Text>
      ) : null}
      {best && best.key !== check.key && gain >= 0.5 ? (
        <Button
          label={`${byHabit ? 'The tracer’s choice' : 'A longer look prefers'}: ${best.name}`}
          kind="quiet"
          listed
          onPress={() => onTake(best.key)}
          style={styles.slim}
        >
          <Text kind="small" tone="soft">{`saves about ${minutesText(gain)}`}</Text>
        </Button>
      ) : null}
      {assessment.advice.nearTie && best?.key === check.key ? (
        <Text kind="small" tone="soft">
          Two checks are about equal: the next best would take about as long; the gentler one stands here.
        </Text>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  under: { paddingHorizontal: space.l, paddingBottom: space.s, gap: space.xs },
  beside: { gap: space.xs },
  start: { alignSelf: 'flex-start', paddingHorizontal: 0 },
  slim: { justifyContent: 'flex-start', paddingHorizontal: 0 },
});
