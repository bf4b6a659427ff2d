import { minutesText, waysTo, type Machine, type PlanStep } from '@zealous/core';
import { StyleSheet, View } from 'react-native';
import { Choice } from '../ui/Choice';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

/** A part that comes off in more than one way: the quickest is planned, the technician may prefer another. */
export function WayChoice({
  machine,
  step,
  off,
  onPick,
}: {
  readonly machine: Machine;
  readonly step: PlanStep;
  readonly off: ReadonlySet<string>;
  readonly onPick: (way: string) => void;
}) {
  if (step.opens === undefined) return null;
  const ways = waysTo(machine, step.opens, off);
  if (ways.length < 2) return null;
  const least = ways[0]?.minutes ?? 0;
  return (
    <View style={styles.list}>
      <Text bold>Which way</Text>
      <Choice
        label="Which way it comes off"
        options={ways.map(({ way, name, minutes }) => ({
          id: way,
          label: `${name[0]?.toUpperCase()}${name.slice(1)}, ${minutesText(minutes)}${minutes > least + 0.5 ? ` (${minutesText(minutes - least)} more)` : ''}`,
        }))}
        chosen={[step.way ?? '']}
        onToggle={onPick}
      />
    </View>
  );
}

const styles = StyleSheet.create({ list: { gap: space.s } });
