import type { ReactNode } from 'react';
import { StyleSheet, View, type StyleProp, type ViewStyle } from 'react-native';
import { TouchableRipple } from 'react-native-paper';
import { Icon } from './Icon';
import { Text } from './Text';
import { usePalette } from './theme';
import { radius, space, TARGET } from './tokens';

export interface ButtonProps {
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

/**
 * A button at the bench: at least 48 px high, its words in full, and hit over its whole face. The kit's own button cuts its words
 * after one line and is hit only at its middle where a row stretches it; so this one is made of the kit's touchable and text.
 */
export function Button({
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
}: ButtonProps) {
  const palette = usePalette();
  const main = kind === 'main';
  const tone = main ? 'onDeed' : kind === 'quiet' ? 'deed' : 'ink';
  return (
    <TouchableRipple
      role="button"
      aria-label={hint ? `${label}. ${hint}` : label}
      aria-disabled={disabled}
      disabled={disabled}
      onPress={onPress}
      testID={testID}
      style={[
        styles.button,
        main && { backgroundColor: palette.deed, borderColor: palette.deed },
        kind === 'plain' && { backgroundColor: palette.card, borderColor: palette.housing },
        kind === 'quiet' && styles.quiet,
        disabled && styles.disabled,
        style,
      ]}
    >
      <View style={[styles.face, listed && styles.listed]}>
        {icon ? <Icon name={icon} color={palette[tone]} /> : null}
        <View style={styles.words}>
          <Text tone={tone} bold={main} style={listed ? undefined : styles.label}>
            {label}
          </Text>
          {children}
        </View>
      </View>
    </TouchableRipple>
  );
}

const styles = StyleSheet.create({
  button: {
    minHeight: TARGET,
    minWidth: TARGET,
    maxWidth: '100%',
    justifyContent: 'center',
    paddingHorizontal: space.m,
    paddingVertical: space.s,
    borderRadius: radius.m,
    borderWidth: 1,
  },
  quiet: { borderColor: 'transparent' },
  disabled: { opacity: 0.45 },
  face: { flexDirection: 'row', alignItems: 'center', justifyContent: 'center', gap: space.s },
  listed: { justifyContent: 'flex-start' },
  words: { flexShrink: 1 },
  label: { textAlign: 'center' },
});
