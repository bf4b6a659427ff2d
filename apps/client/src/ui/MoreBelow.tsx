import { useState, type ReactNode } from 'react';
import { ScrollView, StyleSheet, View, type StyleProp, type ViewStyle } from 'react-native';
import { Icon } from './Icon';
import { Text } from './Text';
import { usePalette } from './theme';
import { space } from './tokens';

/** Less than this is the room after the last line. */
const SLACK = 12;

/** Words that scroll in what room there is; while some of them lie below, it says so. */
export function MoreBelow({
  label,
  children,
  style,
  contentStyle,
}: {
  readonly label: string;
  readonly children: ReactNode;
  readonly style?: StyleProp<ViewStyle>;
  readonly contentStyle?: StyleProp<ViewStyle>;
}) {
  const palette = usePalette();
  const [height, setHeight] = useState(0);
  const [content, setContent] = useState(0);
  const [at, setAt] = useState(0);
  const more = height > 0 && content - at - height > SLACK;
  return (
    <View style={style}>
      <ScrollView
        style={styles.shrink}
        contentContainerStyle={contentStyle}
        tabIndex={0}
        role="region"
        aria-label={label}
        scrollEventThrottle={50}
        onLayout={(event) => setHeight(event.nativeEvent.layout.height)}
        onContentSizeChange={(_, size) => setContent(size)}
        onScroll={(event) => setAt(event.nativeEvent.contentOffset.y)}
      >
        {children}
      </ScrollView>
      {more ? (
        <View style={[styles.more, { borderColor: palette.deed }]} aria-hidden>
          <Icon name="chevron-down" size={16} color={palette.deed} />
          <Text kind="small" tone="deed">
            more below
          </Text>
        </View>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({
  shrink: { flexShrink: 1 },
  more: { flexDirection: 'row', alignItems: 'center', justifyContent: 'center', gap: space.xs, borderTopWidth: 1 },
});
