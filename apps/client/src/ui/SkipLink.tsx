import { useState } from 'react';
import { StyleSheet } from 'react-native';
import { TouchableRipple } from 'react-native-paper';
import { Text } from './Text';
import { usePalette } from './theme';
import { radius, space, TARGET } from './tokens';

/** What is the page's own, after its head: by this id the keyboard gets there at once. */
export const CONTENT = 'content';

/** The first thing that the keyboard reaches; seen only while it stands there. It leads past the head, the tabs and the list of orders. */
export function SkipLink() {
  const palette = usePalette();
  const [reached, setReached] = useState(false);
  return (
    <TouchableRipple
      {...({ href: `#${CONTENT}` } as object)}
      role="link"
      onFocus={() => setReached(true)}
      onBlur={() => setReached(false)}
      onPress={(event) => {
        // The address stays as it is.
        event.preventDefault();
        document.getElementById(CONTENT)?.focus();
      }}
      style={[styles.link, { backgroundColor: palette.card, borderColor: palette.deed }, reached ? null : styles.away]}
    >
      <Text bold tone="deed">
        To the content
      </Text>
    </TouchableRipple>
  );
}

const styles = StyleSheet.create({
  link: {
    position: 'absolute',
    zIndex: 10,
    top: space.s,
    left: space.s,
    minHeight: TARGET,
    justifyContent: 'center',
    paddingHorizontal: space.l,
    borderWidth: 2,
    borderRadius: radius.m,
  },
  away: { top: -2 * TARGET },
});
