/** Numbers in one piece of memory, and how many of them. */
const PIECE = 4096;
let piece = new Float64Array(PIECE);
let used = 0;

/**
 * A row of zeros, of its own. Short rows share a piece of memory, which goes when the last of them does: asking the machine for memory
 * takes longer than filling a row of twenty.
 */
export function shortRow(length: number): Float64Array {
  if (length > PIECE / 8) return new Float64Array(length);
  if (used + length > PIECE) {
    piece = new Float64Array(PIECE);
    used = 0;
  }
  const row = new Float64Array(piece.buffer, used * Float64Array.BYTES_PER_ELEMENT, length);
  used += length;
  return row;
}
