/** The package brings no types; only the tests and the benchmark use it. */
declare module 'gcode-parser' {
  export interface ParsedLine {
    readonly line: string;
    readonly words: readonly (readonly [string, number])[];
  }
  export function parseStringSync(text: string): readonly ParsedLine[];
  export function parseLine(text: string): ParsedLine;
}
