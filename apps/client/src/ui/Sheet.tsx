import type { ReactNode } from 'react';
import { Modal, ScrollView, StyleSheet, View } from 'react-native';
import { IconButton } from 'react-native-paper';
import { useBackCloses } from './backCloses';
import { Text } from './Text';
import { usePalette } from './theme';
import { radius, space, TARGET } from './tokens';
import { useWide } from './useWide';

/**
 * Something to look into and close again: from the bottom on a phone, from the side when wide; everything in it scrolls. The
 * platform's modal holds the focus and the keys, closes by Escape and gives the focus back; the kit's own does none of these in a
 * browser.
 */
export function Sheet({
  title,
  open,
  onClose,
  children,
  foot,
}: {
  readonly title: string;
  readonly open: boolean;
  readonly onClose: () => void;
  readonly children: ReactNode;
  readonly foot?: ReactNode;
}) {
  const palette = usePalette();
  const wide = useWide();
  useBackCloses(open, onClose);
  return (
    <Modal visible={open} transparent onRequestClose={onClose} animationType="none" aria-label={title}>
      <View style={[styles.all, wide ? styles.sideways : styles.upright]}>
        <View style={[StyleSheet.absoluteFill, styles.behind]} onPointerUp={onClose} testID="behind-sheet" />
        <View
          style={[wide ? styles.side : styles.bottom, { backgroundColor: palette.paper, borderColor: palette.line }]}
        >
          <View style={[styles.head, { borderColor: palette.line }]}>
            <Text kind="title" heading={2} style={styles.grow}>
              {title}
            </Text>
            <IconButton icon="close" size={24} accessibilityLabel="Close" onPress={onClose} style={styles.close} />
          </View>
          <ScrollView
            style={styles.shrink}
            contentContainerStyle={styles.body}
            tabIndex={0}
            role="region"
            aria-label={title}
          >
            {children}
          </ScrollView>
          {foot}
        </View>
      </View>
    </Modal>
  );
}

const styles = StyleSheet.create({
  all: { flex: 1 },
  upright: { flexDirection: 'column', justifyContent: 'flex-end' },
  sideways: { flexDirection: 'row', justifyContent: 'flex-end' },
  behind: { backgroundColor: 'rgba(0, 0, 0, 0.45)' },
  bottom: {
    maxHeight: '92%',
    borderTopLeftRadius: radius.l,
    borderTopRightRadius: radius.l,
    borderTopWidth: 1,
    overflow: 'hidden',
  },
  side: { width: 520, maxWidth: '100%', height: '100%', borderLeftWidth: 1 },
  head: {
    flexDirection: 'row',
    alignItems: 'center',
    minHeight: 56,
    paddingLeft: space.l,
    paddingRight: space.xs,
    borderBottomWidth: 1,
  },
  close: { width: TARGET, height: TARGET, margin: 0 },
  grow: { flex: 1 },
  shrink: { flexShrink: 1 },
  body: { paddingHorizontal: space.l, paddingVertical: space.m, gap: space.m },
});
