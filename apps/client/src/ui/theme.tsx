import { createContext, useContext, useEffect, useMemo, type ReactNode } from 'react';
import { useColorScheme } from 'react-native';
import { configureFonts, PaperProvider } from 'react-native-paper';
import { MD3DarkTheme, MD3LightTheme } from 'react-native-paper/lib/module/styles/themes';
import { Icon } from './Icon';
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
const VARIANTS = configureFonts({
  config: {
    bodySmall: face(size.small, fonts.text),
    bodyMedium: face(size.body, fonts.text),
    bodyLarge: face(size.body, fonts.text),
    labelSmall: face(size.small, fonts.text),
    labelMedium: face(size.small, fonts.text),
    labelLarge: face(size.body, fonts.text),
    titleSmall: face(size.body, fonts.bold),
    titleMedium: face(size.large, fonts.text),
    titleLarge: face(size.title, fonts.bold),
    headlineMedium: face(size.big, fonts.bold),
    headlineSmall: face(size.title, fonts.bold),
    figure: face(size.body, fonts.figure),
  },
});
export type Variant = 'figure';

export type ThemeChoice = 'device' | 'day' | 'night';

export function ThemeProvider({ choice, children }: { readonly choice: ThemeChoice; readonly children: ReactNode }) {
  const scheme = useColorScheme();
  const dark = choice === 'night' || (choice === 'device' && scheme === 'dark');
  const palette = dark ? night : day;
  const theme = useMemo(() => {
    const base = dark ? MD3DarkTheme : MD3LightTheme;
    return {
      ...base,
      roundness: radius.s,
      fonts: VARIANTS,
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
  }, [dark, palette]);
  // What the browser draws itself (scroll bars, the caret, the edge behind a page pulled too far) follows the theme.
  useEffect(() => {
    const root = globalThis.document?.documentElement;
    if (!root) return;
    root.style.colorScheme = dark ? 'dark' : 'light';
    root.style.backgroundColor = palette.paper;
  }, [dark, palette]);
  return (
    <PaletteContext.Provider value={palette}>
      <PaperProvider theme={theme} settings={{ icon: (props) => <Icon {...props} /> }}>
        {children}
      </PaperProvider>
    </PaletteContext.Provider>
  );
}
