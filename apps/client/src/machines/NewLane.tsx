import { addLane, laneRuns, type Machine } from '@zealous/core';
import { StyleSheet, View } from 'react-native';
import { Button } from '../ui/Button';

/** Another lane like its neighbours, where lanes merge already. */
export function NewLane({
  machine,
  onChange,
}: {
  readonly machine: Machine;
  readonly onChange: (machine: Machine) => void;
}) {
  const into = machine.runs.find((run) => run.into !== undefined)?.into;
  if (into === undefined) return null;
  return (
    <View style={styles.start}>
      <Button
        label="Another lane like these"
        icon="plus"
        kind="quiet"
        onPress={() => onChange(addLane(machine, `Lane ${laneRuns(machine).length + 1}`, into))}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  start: { justifyContent: 'flex-start', alignSelf: 'flex-start', flexDirection: 'row', alignItems: 'center' },
});
