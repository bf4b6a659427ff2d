/** Colours of the application; without anything of the device, so that the build knows them too. */
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
