import { Platform } from 'react-native';

/** Spacing on a grid of 4 px. */
export const space = { xs: 4, s: 8, m: 12, l: 16, xl: 24, xxl: 32 } as const;

/** Smallest thing a greasy finger is asked to hit. */
export const TARGET = 48;

/** From here on there is room for two or three columns. */
export const WIDE = 960;

export const radius = { s: 4, m: 8, l: 14 } as const;

export const fonts = {
  text: 'Atkinson',
  bold: 'AtkinsonBold',
  /** Tabular digits. */
  figure: 'Martian',
  fallback: Platform.OS === 'web' ? 'system-ui, sans-serif' : undefined,
} as const;

export const size = { small: 13, body: 15, large: 17, title: 21, big: 28 } as const;

export { filamentColour, FILAMENT_WORDS } from '@zealous/contracts/cards';
export { day, night, type Palette } from './colours';
