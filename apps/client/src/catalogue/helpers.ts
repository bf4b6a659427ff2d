/** What of the application can work a check out. */
export const TOOLS = {
  'print-file': 'Reading the print file',
  'path-forces': 'Forces along the path',
  meter: 'Ohms of heater and sensor',
} as const;

/** What a machine on its line can do of a check. */
export const LINES = {
  feed: 'Feeds a measured length',
  sensor: 'Reads its filament sensor',
  temperature: 'Reports its temperature',
  steps: 'Says its steps a millimetre',
} as const;

/** In which way a mode lets the strand soften where it should be cold. */
export const CREEPS = { half: 'Fan at half', dead: 'Fan dead', off: 'Switched off hot' } as const;
