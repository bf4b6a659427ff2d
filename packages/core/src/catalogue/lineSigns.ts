/** What a machine on its line can report of its filament sensor and of its temperature. */
export const LINE_SIGNS = [
  'follows',
  'always-present',
  'always-absent',
  'flickers',
  'inverted',
  'steady',
  'drops',
  'jumps',
  'steps-differ',
] as const;
export type LineSign = (typeof LINE_SIGNS)[number];
