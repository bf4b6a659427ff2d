import type { RoundView } from '@zealous/core/practice';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from '../ui/Button';
import { Fold } from '../ui/Fold';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

/** All checks of the machine, by where they are done, in path order. What they are worth is not said: that is the exercise. */
export function LookList({ view, onLook }: { readonly view: RoundView; readonly onLook: (key: string) => void }) {
  const [open, setOpen] = useState('');
  return (
    <View style={styles.column}>
      {view.stations.map(({ id, name }) => {
        const here = view.looks.filter(({ station }) => station === id);
        if (here.length === 0) return null;
        return (
          <Fold
            key={id}
            title={name}
            said={`${here.length} ${here.length === 1 ? 'check' : 'checks'}`}
            open={open === id}
            onToggle={() => setOpen(open === id ? '' : id)}
          >
            {here.map(({ key, name: check, at, minutes }) => (
              <Button key={key} label={check} listed testID="practice-check" onPress={() => onLook(key)}>
                <Text kind="small" tone="soft">
                  {[`${minutes} min`, at].filter(Boolean).join(', ')}
                </Text>
              </Button>
            ))}
          </Fold>
        );
      })}
    </View>
  );
}

const styles = StyleSheet.create({ column: { gap: space.s } });
