import { itemsAt, type Machine } from '@zealous/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useCatalogue } from '../data/useCatalogue';
import { Choice } from '../ui/Choice';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

export interface ByTheWayProps {
  readonly machine: Machine;
  readonly lane?: string;
  readonly station: string;
  readonly onSeen: (key: string, result: string, innocent: boolean) => void;
}

/** Something that was seen at a place without looking for it, in the words of the looks that there are for it. */
export function ByTheWay({ machine, lane, station, onSeen }: ByTheWayProps) {
  const catalogue = useCatalogue();
  const [open, setOpen] = useState(false);
  const [chosen, setChosen] = useState<string | undefined>(undefined);
  const items = itemsAt(catalogue, machine, lane, station);
  if (items.length === 0) return null;
  if (!open) return <Button label="Seen by the way" onPress={() => setOpen(true)} style={styles.start} />;
  const say = (innocent: boolean): void => {
    const item = items.find(({ id }) => id === chosen);
    if (item) onSeen(item.key, item.result, innocent);
  };
  return (
    <View style={styles.column}>
      <Text bold>What did you see there?</Text>
      <Choice
        label="Seen by the way"
        options={items.map(({ id, label }) => ({ id, label }))}
        chosen={chosen === undefined ? [] : [chosen]}
        onToggle={setChosen}
      />
      <View style={styles.row}>
        <Button
          label="Write it down"
          kind="main"
          disabled={chosen === undefined}
          onPress={() => say(false)}
          style={styles.grow}
        />
        <Button
          label="Real, but not the cause"
          disabled={chosen === undefined}
          onPress={() => say(true)}
          style={styles.grow}
        />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  start: { alignSelf: 'flex-start' },
  column: { gap: space.s },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
  grow: { flexGrow: 1, flexBasis: '47%' },
});
