import type { ReactNode } from 'react';
import { Pressable, StyleSheet, View, type StyleProp, type ViewStyle } from 'react-native';
import { Icon } from './Icon';
import { Text } from './Text';
import { usePalette } from './theme';
import { radius, space, TARGET } from './tokens';

export interface TapProps {
  readonly label: string;
  readonly onPress: () => void;
  readonly icon?: string;
  /** `main` is the one thing to do next. */
  readonly kind?: 'main' | 'plain' | 'quiet';
  readonly disabled?: boolean;
  readonly hint?: string;
  readonly style?: StyleProp<ViewStyle>;
  readonly children?: ReactNode;
  readonly testID?: string;
  /** Words at the left, as in a list. */
  readonly listed?: boolean;
}

/** A button at the bench: at least 48 px high, its words in full. */
export function Tap({
  label,
  onPress,
  icon,
  kind = 'plain',
  disabled = false,
  hint,
  style,
  children,
  testID,
  listed = false,
}: TapProps) {
  const palette = usePalette();
  const main = kind === 'main';
  const tone = main ? 'onDeed' : kind === 'quiet' ? 'deed' : 'ink';
  return (
    <Pressable
      role="button"
      aria-label={hint ? `${label}. ${hint}` : label}
      aria-disabled={disabled}
      disabled={disabled}
      onPress={onPress}
      testID={testID}
      style={({ pressed }) => [
        styles.tap,
        main && { backgroundColor: palette.deed, borderColor: palette.deed },
        kind === 'plain' && { backgroundColor: palette.card, borderColor: palette.housing },
        kind === 'quiet' && { borderColor: 'transparent' },
        listed && styles.listed,
        { opacity: disabled ? 0.45 : pressed ? 0.75 : 1 },
        style,
      ]}
    >
      {icon ? <Icon name={icon} color={palette[tone]} /> : null}
      <View style={styles.words}>
        <Text tone={tone} bold={main} style={listed ? undefined : styles.label}>
          {label}
        </Text>
        {children}
      </View>
    </Pressable>
  );
}

const styles = StyleSheet.create({
  tap: {
    minHeight: TARGET,
    flexDirection: 'row',
    alignItems: 'center',
    justifyContent: 'center',
    gap: space.s,
    paddingHorizontal: space.m,
    paddingVertical: space.s,
    borderRadius: radius.m,
    borderWidth: 1,
  },
  listed: { justifyContent: 'flex-start' },
  words: { flexShrink: 1 },
  label: { textAlign: 'center' },
});
