import type { RoundMove, RoundView } from '@zealous/core/practice';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from '../ui/Button';
import { Fold } from '../ui/Fold';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

/** What can be repaired, by station and by what is thought to be wrong there; at last: that it is on no list. */
export function RepairList({ view, onMove }: { readonly view: RoundView; readonly onMove: (move: RoundMove) => void }) {
  const [open, setOpen] = useState('');
  return (
    <View style={styles.column}>
      <Text kind="small" tone="soft">
        A repair goes by the plan, with its way there and its proof; its minutes are counted whether it helps or not.
      </Text>
      {view.repairs.map(({ station, stationName, causes }) => (
        <Fold
          key={station}
          title={stationName}
          said={`${causes.length} ${causes.length === 1 ? 'fault' : 'faults'} can sit here`}
          open={open === station}
          onToggle={() => setOpen(open === station ? '' : station)}
        >
          {causes.map(({ mode, name, remedies }) => (
            <View key={mode} style={styles.cause} testID={`fault-${station}-${mode}`}>
              <Text bold>{name}</Text>
              {remedies.map((remedy) => (
                <Button
                  key={remedy.id}
                  label={remedy.name}
                  hint={`for ${name}`}
                  listed
                  onPress={() => onMove({ do: 'repair', station, mode, remedy: remedy.id })}
                />
              ))}
            </View>
          ))}
          <Button
            label="It is here, and on no list: ask the maker"
            kind="quiet"
            onPress={() => onMove({ do: 'not-listed', station })}
          />
        </Fold>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({ column: { gap: space.s }, cause: { gap: space.xs } });
