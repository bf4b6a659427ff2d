import type { Assessment, PairSuspicion } from '@zealous/core';
import { percent } from '@zealous/core';
import { StyleSheet, View } from 'react-native';
import { Tap } from '../ui/Tap';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

export interface EnoughProps {
  readonly assessment: Assessment;
  readonly onRepair: (station: string, mode: string, advised: boolean) => void;
  readonly onBoth: (pair: PairSuspicion) => void;
  readonly onGoOn: () => void;
  readonly onOther: () => void;
  readonly onUndo?: () => void;
}

/** Repairing is worth more than checking on: with the numbers, and the choice. */
export function EnoughKnown({ assessment, onRepair, onBoth, onGoOn, onOther, onUndo }: EnoughProps) {
  const { advice, causes } = assessment;
  const name = (station: string): string =>
    assessment.stations.find((item) => item.station === station)?.name ?? station;
  const advised = causes.find((cause) => cause.station === advice.station && cause.mode === advice.mode);
  const others = causes.filter((cause) => cause !== advised).slice(0, 2);
  return (
    <View style={styles.column}>
      <Text kind="large" bold heading={2}>
        {advised ? 'Repair now: enough is known' : 'Nothing on the list is likely enough'}
      </Text>
      <Text>{advice.text}</Text>
      {advised ? (
        <Tap
          label={`Repair ${name(advised.station)}: ${advised.name.toLowerCase()}, ${percent(advised.suspicion)}`}
          icon="repair"
          kind="main"
          onPress={() => onRepair(advised.station, advised.mode, true)}
        />
      ) : null}
      {others.map((cause) => (
        <Tap
          key={`${cause.station}/${cause.mode}`}
          label={`${name(cause.station)}: ${cause.name.toLowerCase()}, ${percent(cause.suspicion)}`}
          onPress={() => onRepair(cause.station, cause.mode, false)}
        />
      ))}
      {assessment.pairs.slice(0, 1).map((pair) => (
        <Tap
          key={pair.text}
          label={`Both in one opening: ${pair.text.toLowerCase()}, ${percent(pair.share)}`}
          onPress={() => onBoth(pair)}
        />
      ))}
      <View style={styles.choices}>
        <Tap label="Go on checking" kind="quiet" onPress={onGoOn} />
        <Tap label="Choose a check" kind="quiet" onPress={onOther} />
        {onUndo ? <Tap label="Undo" icon="undo" kind="quiet" onPress={onUndo} /> : null}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  column: { gap: space.s },
  choices: { flexDirection: 'row', justifyContent: 'space-between', flexWrap: 'wrap' },
});
