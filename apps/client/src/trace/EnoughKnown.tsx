import type { Assessment, SetSuspicion } from '@zealous/core';
import { percent } from '@zealous/core';
import { StyleSheet, View } from 'react-native';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

export interface EnoughProps {
  readonly assessment: Assessment;
  readonly onRepair: (station: string, mode: string, advised: boolean) => void;
  readonly onBoth: (set: SetSuspicion) => void;
  readonly onGoOn: () => void;
  readonly onOther: () => void;
  readonly onUndo?: () => void;
}

/** From so much on, several faults at once are what is offered first (chosen). */
const TOGETHER = 0.5;

/** Repairing is worth more than checking on: with the numbers, and the choice. */
export function EnoughKnown({ assessment, onRepair, onBoth, onGoOn, onOther, onUndo }: EnoughProps) {
  const { advice, causes } = assessment;
  const name = (station: string): string =>
    assessment.stations.find((item) => item.station === station)?.name ?? station;
  const advised = causes.find((cause) => cause.station === advice.station && cause.mode === advice.mode);
  // Several faults that are likelier together than anything else are repaired together.
  const together = assessment.sets.find(({ share }) => share >= TOGETHER);
  const others = causes.filter((cause) => cause !== advised).slice(0, 2);
  return (
    <View style={styles.column}>
      <Text kind="large" bold heading={2}>
        {advised ? 'Repair now: enough is known' : 'Nothing on the list is likely enough'}
      </Text>
      <Text>{advice.text}</Text>
      {together ? (
        <Button
          label={`Repair ${together.stations.length > 2 ? 'all' : 'both'} in one go: ${together.text}, ${percent(together.share)}`}
          icon="repair"
          kind="main"
          onPress={() => onBoth(together)}
        />
      ) : null}
      {advised ? (
        <Button
          label={`Repair ${name(advised.station)}: ${advised.name.toLowerCase()}, ${percent(advised.suspicion)}`}
          icon="repair"
          {...(together ? {} : { kind: 'main' as const })}
          onPress={() => onRepair(advised.station, advised.mode, true)}
        />
      ) : null}
      {others.map((cause) => (
        <Button
          key={`${cause.station}/${cause.mode}`}
          label={`${name(cause.station)}: ${cause.name.toLowerCase()}, ${percent(cause.suspicion)}`}
          onPress={() => onRepair(cause.station, cause.mode, false)}
        />
      ))}
      {assessment.sets.slice(0, together ? 0 : 1).map((set) => (
        <Button
          key={set.text}
          label={`${set.stations.length > 2 ? 'All' : 'Both'} in one go: ${set.text}, ${percent(set.share)}`}
          onPress={() => onBoth(set)}
        />
      ))}
      <View style={styles.choices}>
        <Button label="Go on checking" kind="quiet" onPress={onGoOn} />
        <Button label="Choose a check" kind="quiet" onPress={onOther} />
        {onUndo ? <Button label="Undo" icon="undo" kind="quiet" onPress={onUndo} /> : null}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  column: { gap: space.s },
  choices: { flexDirection: 'row', justifyContent: 'space-between', flexWrap: 'wrap' },
});
