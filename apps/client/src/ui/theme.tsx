import { createContext, useContext, useMemo, type ReactNode } from 'react';
import { useColorScheme } from 'react-native';
import { configureFonts, MD3DarkTheme, MD3LightTheme, PaperProvider } from 'react-native-paper';
import { Icon } from './Icon';
import { day, fonts, night, type Palette } from './tokens';

const PaletteContext = createContext<Palette>(day);

export const usePalette = (): Palette => useContext(PaletteContext);

export type ThemeChoice = 'device' | 'day' | 'night';

export function ThemeProvider({ choice, children }: { readonly choice: ThemeChoice; readonly children: ReactNode }) {
  const scheme = useColorScheme();
  const dark = choice === 'night' || (choice === 'device' && scheme === 'dark');
  const palette = dark ? night : day;
  const theme = useMemo(() => {
    const base = dark ? MD3DarkTheme : MD3LightTheme;
    return {
      ...base,
      roundness: 2,
      fonts: configureFonts({ config: { fontFamily: fonts.text } }),
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
  return (
    <PaletteContext.Provider value={palette}>
      <PaperProvider theme={theme} settings={{ icon: (props) => <Icon {...props} /> }}>
        {children}
      </PaperProvider>
    </PaletteContext.Provider>
  );
}
