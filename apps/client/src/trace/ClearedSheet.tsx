import { percent, type Assessment } from '@zealous/core';
import { StyleSheet, View } from 'react-native';
import { TouchableRipple } from 'react-native-paper';
import { Icon } from '../ui/Icon';
import { Sheet } from '../ui/Sheet';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { space, TARGET } from '../ui/tokens';

/** The path from spool to nozzle: what is cleared by which finding, and what is still open. Each place opens from here too. */
export function ClearedSheet({
  assessment,
  onStation,
  onClose,
}: {
  readonly assessment: Assessment;
  readonly onStation: (id: string) => void;
  readonly onClose: () => void;
}) {
  const palette = usePalette();
  const shares = assessment.stations.reduce((sum, { suspicion }) => sum + Math.round(suspicion * 100), 0) / 100;
  return (
    <Sheet title="What is cleared, and by what" open onClose={onClose}>
      {shares > 1 ? (
        <Text kind="small" tone="soft">
          Several faults may be there at once, so the shares may come to more than 100 %.
        </Text>
      ) : null}
      <View role="list" aria-label="Path">
        {assessment.stations.map((station, i) => {
          const { clearedBy } = station;
          const first = clearedBy !== undefined && assessment.stations[i - 1]?.clearedBy !== clearedBy;
          return (
            <View key={station.station} role="listitem">
              <TouchableRipple role="button" onPress={() => onStation(station.station)}>
                <View style={styles.row}>
                  <View
                    style={[
                      styles.bar,
                      clearedBy === undefined
                        ? { backgroundColor: palette.doubtWash, width: 10 }
                        : { backgroundColor: palette.clear, width: 3, marginHorizontal: 3.5 },
                    ]}
                  />
                  <View style={styles.words}>
                    <View style={styles.line}>
                      <Text
                        bold={clearedBy === undefined}
                        tone={clearedBy === undefined ? 'ink' : 'clear'}
                        style={styles.grow}
                      >
                        {station.name}
                      </Text>
                      {clearedBy === undefined ? (
                        <Text kind="small" tone="doubt">
                          {station.suspicion < 0.01 ? 'open' : percent(station.suspicion)}
                        </Text>
                      ) : (
                        <Icon name="check" size={18} color={palette.clear} />
                      )}
                    </View>
                    {first ? (
                      <Text kind="small" tone="soft">
                        {clearedBy}
                      </Text>
                    ) : null}
                  </View>
                </View>
              </TouchableRipple>
            </View>
          );
        })}
      </View>
    </Sheet>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: space.m, minHeight: TARGET },
  bar: { alignSelf: 'stretch' },
  words: { flex: 1, justifyContent: 'center', paddingVertical: space.xs },
  line: { flexDirection: 'row', gap: space.s, alignItems: 'center' },
  grow: { flex: 1 },
});
