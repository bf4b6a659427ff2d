import { useEffect, useRef, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { TouchableRipple } from 'react-native-paper';
import { Icon } from './Icon';
import { Text } from './Text';
import { usePalette } from './theme';
import { radius, space, TARGET } from './tokens';

export interface FoldProps {
  readonly title: string;
  /** What is answered so far, said while it is folded. */
  readonly said?: string;
  readonly open: boolean;
  /** Each time that it grows, the question comes to where the eye is, also where all stand open. */
  readonly called?: number;
  /** Absent where all stand open side by side: then it is a plain section. */
  readonly onToggle?: () => void;
  readonly children: ReactNode;
}

/** One of several questions, the others folded to a line that says what was answered. */
export function Fold({ title, said, open, called = 0, onToggle, children }: FoldProps) {
  const palette = usePalette();
  const place = useRef<View>(null);
  const was = useRef({ open, called });
  useEffect(() => {
    // Opened by a tap, not at the start: its first line comes to where the eye is.
    if ((open && !was.current.open) || called > was.current.called)
      (place.current as unknown as Partial<HTMLElement> | null)?.scrollIntoView?.({ block: 'start' });
    was.current = { open, called };
  }, [open, called]);
  return (
    <View
      ref={place}
      style={[styles.fold, { borderColor: open ? palette.deed : palette.line, backgroundColor: palette.card }]}
    >
      {onToggle ? (
        <TouchableRipple
          role="button"
          aria-label={said ? `${title} ${said}` : title}
          aria-expanded={open}
          onPress={onToggle}
          style={styles.head}
        >
          <View style={styles.row}>
            <View style={styles.grow}>
              <Text kind="large" bold>
                {title}
              </Text>
              {open || !said ? null : (
                <Text kind="small" tone="soft">
                  {said}
                </Text>
              )}
            </View>
            <Icon name={open ? 'chevron-up' : 'chevron-down'} color={palette.deed} />
          </View>
        </TouchableRipple>
      ) : (
        <View style={styles.head}>
          <Text kind="large" bold heading={2}>
            {title}
          </Text>
        </View>
      )}
      {open ? <View style={styles.body}>{children}</View> : null}
    </View>
  );
}

const styles = StyleSheet.create({
  fold: { borderWidth: 1, borderRadius: radius.m, overflow: 'hidden' },
  head: { minHeight: TARGET + 8, paddingHorizontal: space.m, paddingVertical: space.s, justifyContent: 'center' },
  row: { flexDirection: 'row', alignItems: 'center', gap: space.s },
  grow: { flex: 1 },
  body: { paddingHorizontal: space.m, paddingBottom: space.m, gap: space.s },
});
