import type { RoundMove, RoundView } from '@zealous/core/practice';
import { StyleSheet, View } from 'react-native';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

/** Heat, power, plugs, parts and filament, moved by oneself. Nothing is greyed out that a real machine would let you do. */
export function HandsPad({ view, onMove }: { readonly view: RoundView; readonly onMove: (move: RoundMove) => void }) {
  const { bench } = view;
  return (
    <View style={styles.column}>
      <Text bold heading={2}>
        Heat and power
      </Text>
      <View style={styles.row}>
        <Button label={`Heat to ${bench.hotC} °C`} icon="heat" onPress={() => onMove({ do: 'heat' })} />
        <Button
          label="Target to zero, wait until safe to touch"
          icon="cold"
          onPress={() => onMove({ do: 'cool', to: 'touch' })}
        />
        <Button
          label="Target to zero, wait until below 100 °C"
          icon="cold"
          onPress={() => onMove({ do: 'cool', to: 'switch-off' })}
        />
        {bench.power === 'on' ? (
          <Button label="Switch off and unplug" icon="power" onPress={() => onMove({ do: 'power', to: 'off' })} />
        ) : (
          <Button label="Plug in and switch on" icon="power" onPress={() => onMove({ do: 'power', to: 'on' })} />
        )}
      </View>
      <Text bold heading={2}>
        Filament and head
      </Text>
      <View style={styles.row}>
        {bench.loaded ? <Button label="Take the filament out" onPress={() => onMove({ do: 'unload' })} /> : null}
        {bench.raised ? null : <Button label="Raise the head and support it" onPress={() => onMove({ do: 'raise' })} />}
      </View>
      <Text bold heading={2}>
        Parts
      </Text>
      {bench.parts.map(({ id, name, off, service }) => (
        <View key={id} style={styles.row}>
          <Button
            label={off ? `Put back: ${name}` : `Take off: ${name}`}
            listed
            kind={off ? 'plain' : 'quiet'}
            style={styles.grow}
            onPress={() => onMove({ do: off ? 'on' : 'off', part: id })}
          />
          {off && service === 'can' ? (
            <Button label="Into its service position" onPress={() => onMove({ do: 'service', part: id })} />
          ) : null}
        </View>
      ))}
      {bench.connectors.length ? (
        <Text bold heading={2}>
          Plugs
        </Text>
      ) : null}
      {bench.connectors.map(({ id, name, loose }) => (
        <Button
          key={id}
          label={loose ? `Plug in: ${name}` : `Unplug: ${name}`}
          listed
          kind={loose ? 'plain' : 'quiet'}
          onPress={() => onMove({ do: loose ? 'plug' : 'unplug', connector: id })}
        />
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  column: { gap: space.s },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
  grow: { flexGrow: 1 },
});
