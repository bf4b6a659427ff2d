import { createContext, useContext, useEffect, useMemo, type ReactNode } from 'react';
import { useColorScheme } from 'react-native';
import { configureFonts, PaperProvider } from 'react-native-paper';
import { MD3DarkTheme, MD3LightTheme } from 'react-native-paper/lib/module/styles/themes';
import { Icon } from './Icon';
import { TextScale, useScaleOf, type TextChoice } from './textSize';
import { day, fonts, night, radius, size, type Palette } from './tokens';

const PaletteContext = createContext<Palette>(day);

export const usePalette = (): Palette => useContext(PaletteContext);

/** The faces of the kit's variants, and the one of figures (tabular digits). */
const face = (fontSize: number, fontFamily: string) => ({
  fontFamily,
  fontSize,
  lineHeight: Math.round(fontSize * 1.38),
  letterSpacing: 0,
  fontWeight: 'normal' as const,
});
const variantsAt = (scale: number) => {
  const at = (px: number, family: string) => face(Math.round(px * scale * 10) / 10, family);
  return configureFonts({
    config: {
      bodySmall: at(size.small, fonts.text),
      bodyMedium: at(size.body, fonts.text),
      bodyLarge: at(size.body, fonts.text),
      labelSmall: at(size.small, fonts.text),
      labelMedium: at(size.small, fonts.text),
      labelLarge: at(size.body, fonts.text),
      titleSmall: at(size.body, fonts.bold),
      titleMedium: at(size.large, fonts.text),
      titleLarge: at(size.title, fonts.bold),
      headlineMedium: at(size.big, fonts.bold),
      headlineSmall: at(size.title, fonts.bold),
      figure: at(size.body, fonts.figure),
      smallFigure: at(size.small, fonts.figure),
    },
  });
};
export type Variant = 'figure' | 'smallFigure';

export type ThemeChoice = 'device' | 'day' | 'night';

export function ThemeProvider({
  choice,
  text = 'device',
  children,
}: {
  readonly choice: ThemeChoice;
  readonly text?: TextChoice;
  readonly children: ReactNode;
}) {
  const scale = useScaleOf(text);
  const scheme = useColorScheme();
  const dark = choice === 'night' || (choice === 'device' && scheme === 'dark');
  const palette = dark ? night : day;
  const theme = useMemo(() => {
    const base = dark ? MD3DarkTheme : MD3LightTheme;
    return {
      ...base,
      roundness: radius.s,
      fonts: variantsAt(scale),
      colors: {
        ...base.colors,
        primary: palette.deed,
        onPrimary: palette.onDeed,
        secondaryContainer: palette.deedWash,
        onSecondaryContainer: palette.ink,
        background: palette.paper,
        surface: palette.card,
        surfaceVariant: palette.card,
        onSurface: palette.ink,
        onSurfaceVariant: palette.soft,
        outline: palette.housing,
        error: palette.fault,
        elevation: { ...base.colors.elevation, level1: palette.card, level2: palette.card, level3: palette.card },
      },
    };
  }, [dark, palette, scale]);
  // What the browser draws itself (scroll bars, the caret, the edge behind a page pulled too far) follows the theme.
  useEffect(() => {
    const root = globalThis.document?.documentElement;
    if (!root) return;
    root.style.colorScheme = dark ? 'dark' : 'light';
    root.style.backgroundColor = palette.paper;
  }, [dark, palette]);
  return (
    <PaletteContext.Provider value={palette}>
      <TextScale value={scale}>
        <PaperProvider theme={theme} settings={{ icon: (props) => <Icon {...props} /> }}>
          {children}
        </PaperProvider>
      </TextScale>
    </PaletteContext.Provider>
  );
}
