/** How likely what a block saw is, with each of the things that its links may have found there: their results as one number. */
export type ByLinks = ReadonlyMap<number, number>;

/** Results of links as one number: a byte each. */
export const BYTE = 256;
export const linkResult = (key: number, i: number): number => Math.floor(key / BYTE ** i) % BYTE;

/** Of what links find in two blocks, what they look for first. */
export function foundFirst(a: number, b: number, links: number): number {
  let key = 0;
  for (let i = links - 1; i >= 0; i--) key = key * BYTE + Math.min(linkResult(a, i), linkResult(b, i));
  return key;
}
