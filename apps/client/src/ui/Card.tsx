import type { ReactNode } from 'react';
import { StyleSheet, View, type StyleProp, type ViewStyle } from 'react-native';
import { Tap } from './Tap';
import { Text } from './Text';
import { usePalette } from './theme';
import { radius, space, type Palette } from './tokens';

export function Card({
  children,
  style,
  edge,
}: {
  readonly children: ReactNode;
  readonly style?: StyleProp<ViewStyle>;
  readonly edge?: keyof Palette;
}) {
  const palette = usePalette();
  return (
    <View
      style={[
        styles.card,
        { backgroundColor: palette.card, borderColor: palette.line },
        edge && { borderLeftColor: palette[edge], borderLeftWidth: 4 },
        style,
      ]}
    >
      {children}
    </View>
  );
}

/** Nothing here, still coming, or gone wrong: always with what to do. */
export function Notice({
  title,
  text,
  action,
  onAction,
}: {
  readonly title: string;
  readonly text?: string;
  readonly action?: string;
  readonly onAction?: () => void;
}) {
  return (
    <Card style={styles.notice}>
      <Text kind="large" bold>
        {title}
      </Text>
      {text ? <Text tone="soft">{text}</Text> : null}
      {action && onAction ? <Tap label={action} kind="main" onPress={onAction} style={styles.start} /> : null}
    </Card>
  );
}

export function Section({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <View style={styles.section}>
      <Text kind="large" bold heading={2}>
        {title}
      </Text>
      {children}
    </View>
  );
}

const styles = StyleSheet.create({
  card: { borderWidth: 1, borderRadius: radius.m, padding: space.m, gap: space.s },
  notice: { padding: space.l, marginTop: space.l },
  start: { alignSelf: 'flex-start' },
  section: { gap: space.s, marginTop: space.l },
});
