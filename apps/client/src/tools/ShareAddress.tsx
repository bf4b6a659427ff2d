import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

type Sent = 'not' | 'copied' | 'shown';

/** Hands the page with its figures to somebody: by what the device shares with, else by the address. */
export function ShareAddress() {
  const [sent, setSent] = useState<Sent>('not');
  const share = async (): Promise<void> => {
    const { title } = document;
    const url = window.location.href;
    // Neither is there on a page that came over plain HTTP from another device.
    const { share: offered, clipboard } = navigator as Partial<Navigator>;
    try {
      if (offered) await offered.call(navigator, { title, url });
      else if (clipboard) await clipboard.writeText(url).then(() => setSent('copied'));
      else setSent('shown');
    } catch (error) {
      // Sharing was given up by hand.
      if ((error as Error).name !== 'AbortError') setSent('shown');
    }
  };
  return (
    <View style={styles.column}>
      <Button
        label="Send these figures to somebody"
        kind="quiet"
        icon="share"
        onPress={() => void share()}
        style={styles.start}
      />
      {sent === 'copied' ? <Text live>The address of this page is copied: it brings these figures.</Text> : null}
      {sent === 'shown' ? <Text live>{window.location.href}</Text> : null}
    </View>
  );
}

const styles = StyleSheet.create({ column: { gap: space.xs }, start: { alignSelf: 'flex-start' } });
