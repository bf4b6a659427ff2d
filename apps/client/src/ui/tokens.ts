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

export interface Palette {
  readonly paper: string;
  readonly card: string;
  readonly ink: string;
  readonly soft: string;
  readonly line: string;
  /** Everything that can be tapped. */
  readonly deed: string;
  readonly onDeed: string;
  readonly deedWash: string;
  /** Suspicion, always together with the swollen, hatched shape. */
  readonly doubt: string;
  readonly doubtWash: string;
  /** Heat, and nothing else. */
  readonly warm: string;
  readonly warmWash: string;
  readonly clear: string;
  readonly housing: string;
  readonly fault: string;
  readonly faultWash: string;
}

export const day: Palette = {
  paper: '#F8F4EA',
  card: '#FFFDF8',
  ink: '#1E2A2E',
  soft: '#55605F',
  line: '#D8D0BF',
  deed: '#0B5563',
  onDeed: '#FFFFFF',
  deedWash: '#DDEBEA',
  doubt: '#4B2A6B',
  doubtWash: '#E9E0F1',
  warm: '#B3400F',
  warmWash: '#FBE3D3',
  clear: '#3E6B4F',
  housing: '#B9B09C',
  fault: '#8E1B2C',
  faultWash: '#F8E0E2',
};

export const night: Palette = {
  paper: '#141A1C',
  card: '#1D2528',
  ink: '#ECE7DB',
  soft: '#A9B0AC',
  line: '#364045',
  deed: '#7CC7CF',
  onDeed: '#0B2A30',
  deedWash: '#1F3A40',
  doubt: '#C9A6EC',
  doubtWash: '#35284A',
  warm: '#FFA470',
  warmWash: '#4A2A17',
  clear: '#8CC7A0',
  housing: '#5A635F',
  fault: '#FF9AA6',
  faultWash: '#4A1F27',
};

/** Colours of filament by the word for them; what is not known is drawn in plain grey. */
const FILAMENT: readonly (readonly [RegExp, string])[] = [
  [/orange/i, '#E8772E'],
  [/kelp|green/i, '#4F8A4C'],
  [/red/i, '#C2332F'],
  [/blue/i, '#3B73B9'],
  [/yellow/i, '#E2B92C'],
  [/white|clear/i, '#F1EFE8'],
  [/black/i, '#33373A'],
  [/grey|silver/i, '#9AA0A2'],
];
export const filamentColour = (word: string | undefined): string =>
  FILAMENT.find(([pattern]) => pattern.test(word ?? ''))?.[1] ?? '#A8A296';
export const FILAMENT_WORDS = ['black', 'white', 'grey', 'red', 'orange', 'yellow', 'green', 'blue'] as const;
