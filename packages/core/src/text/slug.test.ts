import { slugOf } from './slug';

test.each([
  ['Razor Shell', 'razor-shell'],
  ['  Hub (4 ports)! ', 'hub-4-ports'],
  ['Мидия', 'item'],
  ['', 'item'],
])('%p is called %p in files', (words, slug) => {
  expect(slugOf(words, 'item')).toBe(slug);
});

test('it is no longer than asked', () => {
  expect(slugOf('a'.repeat(80), 'item', 50)).toHaveLength(50);
});
