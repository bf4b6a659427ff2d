/** Text as it may be stored and sent on: whole Unicode, without what no person types. */

export interface TextFault {
  /** JSON pointer from the value that was looked at. */
  readonly path: string;
  readonly reason: string;
}

/** Deeper than this nothing of ours is nested. */
export const MOST_DEPTH = 40;

/** Control characters but tab and line breaks, and halves of surrogate pairs (Unicode 16, 3.9 D71 and 23.1). */
const UNFIT = /[\p{Cs}\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u009f]/u;
const UNFIT_ALL = new RegExp(UNFIT.source, 'gu');

export const wellFormed = (text: string): boolean => !UNFIT.test(text);

/** Names that an object brings along by itself: as keys of data they are no data. */
const INHERITED = new Set(['__proto__', 'constructor', 'prototype']);

const escaped = (key: string): string => key.replaceAll('~', '~0').replaceAll('/', '~1');
const UNFIT_REASON = 'has characters that cannot be stored; type it again';

/** The first text, key or depth in a JSON value that does not fit; undefined when all do. Walks without recursion. */
export function textFault(value: unknown): TextFault | undefined {
  const left: { readonly value: unknown; readonly path: string; readonly depth: number }[] = [
    { value, path: '', depth: 0 },
  ];
  for (let item = left.pop(); item; item = left.pop()) {
    const { value: now, path, depth } = item;
    if (typeof now === 'string' && !wellFormed(now)) return { path, reason: UNFIT_REASON };
    if (typeof now !== 'object' || now === null) continue;
    if (depth >= MOST_DEPTH) return { path: '', reason: `nested deeper than ${MOST_DEPTH}` };
    for (const key of Object.keys(now)) {
      if (INHERITED.has(key)) return { path, reason: `the name "${key}" is not allowed; remove it` };
      if (!wellFormed(key)) return { path, reason: UNFIT_REASON };
      left.push({ value: (now as Record<string, unknown>)[key], path: `${path}/${escaped(key)}`, depth: depth + 1 });
    }
  }
  return undefined;
}

const graphemes = new Intl.Segmenter(undefined, { granularity: 'grapheme' });

/**
 * Text with what does not fit taken out, cut between characters as a person counts them.
 *
 * @param most code points that it may have, as the formats count them (RFC 8259 strings by JSON Schema, draft 7, 6.3.1)
 */
export function fittingText(text: string, most: number): string {
  const clean = text.replace(UNFIT_ALL, '');
  // Most texts are short: no need to take them apart.
  if (clean.length <= most) return clean;
  let left = most;
  let kept = '';
  for (const { segment } of graphemes.segment(clean)) {
    left -= [...segment].length;
    if (left < 0) break;
    kept += segment;
  }
  return kept;
}
