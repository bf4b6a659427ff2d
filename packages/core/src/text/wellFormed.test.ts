import fc from 'fast-check';
import { fittingText, MOST_DEPTH, textFault, wellFormed } from './wellFormed';

const LONE = '\ud83d';
const WRENCH = '🔧';
/** Woman, zero-width joiner, wrench: one character for a person, three code points, five UTF-16 units. */
const MECHANIC = '👩‍🔧';

test('NUL, controls and halves of pairs do not fit; tab, line breaks, accents and pictures do', () => {
  for (const bad of ['a\u0000b', LONE, `x${'\udd27'}`, '\u001b[31m', '\u0085', '\u007f']) {
    expect(wellFormed(bad)).toBe(false);
    expect(wellFormed(fittingText(bad, 100))).toBe(true);
  }
  for (const good of ['', 'Grüße\n\tzwei\r\n', WRENCH, MECHANIC, 'שלום', '\u202f']) expect(wellFormed(good)).toBe(true);
});

test('a fault is found wherever it stands, and its pointer is told (RFC 6901)', () => {
  expect(textFault({ a: [{ 'b/c': `x${LONE}` }] })).toMatchObject({ path: '/a/0/b~1c' });
  expect(textFault({ ['k\u0000']: 1 })).toMatchObject({ path: '' });
  expect(textFault(JSON.parse('{"a":{"__proto__":1}}'))).toMatchObject({ path: '/a', reason: /__proto__/ });
  expect(textFault({ deep: { constructor: 'x' } })).toMatchObject({ path: '/deep' });
  expect(textFault({ fine: ['text', 1, null, true, { more: 'text' }] })).toBeUndefined();
});

test('two thousand levels are refused, and a hundred thousand do not end the program', () => {
  const nested = (levels: number): unknown => {
    let value: unknown = 'x';
    for (let i = 0; i < levels; i++) value = [value];
    return value;
  };
  expect(textFault(nested(MOST_DEPTH - 1))).toBeUndefined();
  expect(textFault(nested(2_000))?.reason).toMatch(/nested deeper/);
  expect(textFault(nested(100_000))?.reason).toMatch(/nested deeper/);
});

test('a cut goes between characters as a person counts them', () => {
  expect(fittingText(`ab${MECHANIC}`, 4)).toBe('ab');
  expect(fittingText(`ab${MECHANIC}`, 5)).toBe(`ab${MECHANIC}`);
  expect(fittingText(`${'x'.repeat(9)}${WRENCH}`, 9)).toBe('x'.repeat(9));
  // e and a combining acute belong together.
  expect(fittingText('cafe\u0301', 4)).toBe('caf');
});

test('whatever is typed, what is kept fits, is a beginning of it, and fits again unchanged', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'binary', maxLength: 40 }), fc.nat({ max: 20 }), (text, most) => {
      const kept = fittingText(text, most);
      expect(wellFormed(kept)).toBe(true);
      expect([...kept].length).toBeLessThanOrEqual(Math.max(most, kept.length <= most ? kept.length : 0));
      expect(fittingText(text, 1000).startsWith(kept)).toBe(true);
      expect(fittingText(kept, most)).toBe(kept);
    }),
  );
});
