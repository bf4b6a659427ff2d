import type { ReactNode } from 'react';
import type { StyleProp, TextStyle } from 'react-native';
import { customText } from 'react-native-paper';
import { usePalette, type Variant } from './theme';
import { fonts, type Palette } from './tokens';

const PaperText = customText<Variant>();

export interface TextProps {
  readonly children: ReactNode;
  readonly kind?: 'body' | 'small' | 'large' | 'title' | 'big' | 'figure' | 'smallFigure';
  readonly tone?: keyof Palette;
  readonly bold?: boolean;
  readonly lines?: number;
  readonly heading?: 1 | 2 | 3;
  readonly live?: boolean;
  readonly style?: StyleProp<TextStyle>;
  readonly testID?: string;
}

const VARIANTS = {
  small: 'bodySmall',
  body: 'bodyMedium',
  large: 'titleMedium',
  title: 'titleLarge',
  big: 'headlineMedium',
  figure: 'figure',
  smallFigure: 'smallFigure',
} as const;
const BOLD = { fontFamily: fonts.bold } as const;

/** The kit's text with our tones: they stand for what a word is about, which its variants do not say. */
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
  return (
    <PaperText
      variant={VARIANTS[kind]}
      testID={testID}
      {...(heading ? { role: 'heading' as const, 'aria-level': heading } : {})}
      {...(live ? { 'aria-live': 'polite' as const } : {})}
      {...(lines === undefined ? {} : { numberOfLines: lines })}
      style={[{ color: palette[tone] }, bold && kind !== 'figure' && kind !== 'smallFigure' && BOLD, style]}
    >
      {children}
    </PaperText>
  );
}
