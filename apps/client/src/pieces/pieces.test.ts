import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

/** Pieces that stand on the page by others, or that are a page themselves. */
const BY_OTHERS: Readonly<Record<string, string>> = {
  Rows: 'Table',
  Housings: 'drawn by the strand',
  Late: 'a page that is still being fetched',
  ScreenError: 'a page that could not be drawn',
  Main: 'the page itself',
  SkipLink: 'before every page, for the keyboard',
  theme: 'around every page',
};

test('the page of pieces shows every shared piece', () => {
  const ui = join(__dirname, '../ui');
  const shown = readFileSync(join(__dirname, 'PiecesScreen.tsx'), 'utf8');
  const pieces = ['', 'form', 'strand'].flatMap((folder) =>
    readdirSync(join(ui, folder)).flatMap((file) => {
      const name = /^(\w+)\.tsx$/.exec(file)?.[1];
      return name === undefined ? [] : [{ name, from: `'../ui/${folder ? `${folder}/` : ''}${name}'` }];
    }),
  );
  expect(pieces.length).toBeGreaterThan(20);
  expect(pieces.filter(({ name, from }) => !(name in BY_OTHERS) && !shown.includes(from))).toEqual([]);
});
