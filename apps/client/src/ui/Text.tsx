import type { ReactNode } from 'react';
import { Text as NativeText, type StyleProp, type TextStyle } from 'react-native';
import { usePalette } from './theme';
import { fonts, size, type Palette } from './tokens';

export interface TextProps {
  readonly children: ReactNode;
  readonly kind?: 'body' | 'small' | 'large' | 'title' | 'big' | 'figure';
  readonly tone?: keyof Palette;
  readonly bold?: boolean;
  readonly lines?: number;
  readonly heading?: 1 | 2 | 3;
  readonly live?: boolean;
  readonly style?: StyleProp<TextStyle>;
  readonly testID?: string;
}

/** All text of the application: one text face, one figure face. */
export function Text({
  children,
  kind = 'body',
  tone = 'ink',
  bold = false,
  lines,
  heading,
  live = false,
  style,
  testID,
}: TextProps) {
  const palette = usePalette();
  const fontSize = kind === 'figure' ? size.body : size[kind];
  const family =
    kind === 'figure' ? fonts.figure : bold || kind === 'title' || kind === 'big' ? fonts.bold : fonts.text;
  return (
    <NativeText
      testID={testID}
      {...(heading ? { role: 'heading' as const, 'aria-level': heading } : {})}
      {...(live ? { 'aria-live': 'polite' as const } : {})}
      {...(lines === undefined ? {} : { numberOfLines: lines })}
      style={[{ color: palette[tone], fontSize, lineHeight: Math.round(fontSize * 1.38), fontFamily: family }, style]}
    >
      {children}
    </NativeText>
  );
}
