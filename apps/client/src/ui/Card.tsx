import type { ReactNode } from 'react';
import { StyleSheet, View, type StyleProp, type ViewStyle } from 'react-native';
import { Card as PaperCard } from 'react-native-paper';
import { Button } from './Button';
import { Text } from './Text';
import { usePalette } from './theme';
import { space, type Palette } from './tokens';

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
    <PaperCard
      mode="outlined"
      style={[{ borderColor: palette.line }, edge && { borderLeftColor: palette[edge], borderLeftWidth: 4 }, style]}
    >
      <PaperCard.Content style={styles.card}>{children}</PaperCard.Content>
    </PaperCard>
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
      {action && onAction ? <Button label={action} kind="main" onPress={onAction} style={styles.start} /> : null}
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
  card: { paddingHorizontal: space.m, paddingTop: space.m, paddingBottom: space.m, gap: space.s },
  notice: { marginTop: space.l },
  start: { alignSelf: 'flex-start' },
  section: { gap: space.s, marginTop: space.l },
});
