import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from './Button';
import { Text } from './Text';
import { space } from './tokens';

type Sent = 'not' | 'copied' | 'shown';

export interface ShareButtonProps {
  readonly label: string;
  /** What goes out: words, or an address. */
  readonly what: () => { readonly title: string; readonly text?: string; readonly url?: string };
  /** Said when the device shares with nothing and it was copied instead. */
  readonly copied: string;
}

/** Hands something to somebody: by what the device shares with, else by a copy, else shown to be copied by hand. */
export function ShareButton({ label, what, copied }: ShareButtonProps) {
  const [sent, setSent] = useState<Sent>('not');
  const [shown, setShown] = useState('');
  const share = async (): Promise<void> => {
    const data = what();
    const words = data.url ?? data.text ?? '';
    setShown(words);
    // Neither is there on a page that came over plain HTTP from another device.
    const { share: offered, clipboard } = navigator as Partial<Navigator>;
    try {
      if (offered) await offered.call(navigator, data);
      else if (clipboard) await clipboard.writeText(words).then(() => setSent('copied'));
      else setSent('shown');
    } catch (error) {
      // Sharing was given up by hand.
      if ((error as Error).name !== 'AbortError') setSent('shown');
    }
  };
  return (
    <View style={styles.column}>
      <Button label={label} kind="quiet" icon="share" onPress={() => void share()} style={styles.start} />
      {sent === 'copied' ? <Text live>{copied}</Text> : null}
      {sent === 'shown' ? <Text live>{shown}</Text> : null}
    </View>
  );
}

const styles = StyleSheet.create({
  // As wide as the row at most: in a row that wraps, a long label in large text would run off the side.
  column: { gap: space.xs, maxWidth: '100%' },
  start: { alignSelf: 'flex-start' },
});
