import type { ReactNode } from 'react';
import { ScrollView, StyleSheet } from 'react-native';
import { Dialog, Portal } from 'react-native-paper';
import { Tap } from './Tap';
import { usePalette } from './theme';
import { space } from './tokens';

/** Something to look into and close again; everything in it scrolls. */
export function Sheet({
  title,
  open,
  onClose,
  children,
}: {
  readonly title: string;
  readonly open: boolean;
  readonly onClose: () => void;
  readonly children: ReactNode;
}) {
  const palette = usePalette();
  return (
    <Portal>
      <Dialog visible={open} onDismiss={onClose} style={[styles.sheet, { backgroundColor: palette.paper }]}>
        <Dialog.Title>{title}</Dialog.Title>
        <Dialog.ScrollArea style={styles.area}>
          <ScrollView contentContainerStyle={styles.body} tabIndex={0} role="region" aria-label={title}>
            {children}
          </ScrollView>
        </Dialog.ScrollArea>
        <Dialog.Actions>
          <Tap label="Close" kind="quiet" onPress={onClose} />
        </Dialog.Actions>
      </Dialog>
    </Portal>
  );
}

const styles = StyleSheet.create({
  sheet: { maxHeight: '88%', maxWidth: 560, width: '94%', alignSelf: 'center' },
  area: { paddingHorizontal: 0, borderBottomWidth: 0 },
  body: { paddingHorizontal: space.l, paddingVertical: space.m, gap: space.m },
});
