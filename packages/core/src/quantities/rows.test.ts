import { shortRow } from './rows';

test('rows are zeros and none writes into another, also where a piece of memory is full', () => {
  const lengths = Array.from({ length: 600 }, (_, i) => (i % 5 === 0 ? 300 : (i * 7) % 90));
  const rows = lengths.map((length, i) => {
    const row = shortRow(length);
    expect([...row].every((x) => x === 0)).toBe(true);
    return row.fill(i + 1);
  });
  rows.forEach((row, i) => {
    expect(row).toHaveLength(lengths[i] as number);
    expect(row.every((x) => x === i + 1)).toBe(true);
  });
  // More than a piece holds.
  expect(shortRow(5000)).toHaveLength(5000);
});
