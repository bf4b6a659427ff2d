import { expect, test, type Page } from '@playwright/test';
import { judgeAccess, NARROW, nothingOff, SIZES, tap } from './access';
import { testServer, type TestServer } from './server';

const OPEN = '5a170002-0000-4000-8000-0000000000bb';
const shots = process.env['ZT_SHOTS'];

let server: TestServer;
test.beforeAll(async () => {
  server = await testServer('sheets_judged');
});
test.afterAll(() => server.stop());

const TRACE = `/order/${OPEN}/trace`;
/** Sheets by where each lies and how it is opened. */
const SHEETS: readonly (readonly [string, string, (page: Page) => Promise<void>])[] = [
  ['Why this check', TRACE, tap('Why')],
  ['Choose another check', TRACE, tap('Other')],
  ['The whole strand', TRACE, tap(/Show the whole strand$/)],
  ['What is cleared, and by what', TRACE, (page) => page.keyboard.press('c')],
  ['About what was just found', TRACE, tap('About it')],
  ['What is the machine doing?', TRACE, tap('Change')],
  ['Order ', TRACE, tap('Note, taking-in, words')],
  [
    'Extruder',
    TRACE,
    async (page) => {
      await page.keyboard.press('c');
      await page.getByRole('dialog').getByText('Extruder', { exact: true }).click();
    },
  ],
  ['Which is nearest?', '/machines', tap('Describe a machine')],
  ['Hub', '/machines/dunlin', tap(/^Hub/)],
];

for (const [name, path, open] of SHEETS)
  test(`the sheet “${name}”: no accessibility fault by day or night, nothing off the side at any width`, async ({
    browser,
  }) => {
    const context = await browser.newContext({ viewport: { width: 390, height: 844 }, reducedMotion: 'reduce' });
    const page = await context.newPage();
    await page.goto(server.url + path);
    await expect(path === TRACE ? page.getByTestId('check-name') : page.getByText(/Dunlin/).first()).toBeVisible();
    await open(page);
    const dialog = page.getByRole('dialog').last();
    await expect(dialog.getByRole('heading', { name })).toBeVisible();
    // What it shows may still be worked out.
    await expect(dialog.getByText('Weighing …')).toHaveCount(0);
    for (const [size, width, height] of SIZES) {
      await page.setViewportSize({ width, height });
      await judgeAccess(page, size, (colorScheme) =>
        shots ? `${shots}/sheet-${name.replaceAll(/\W/g, '')}-${size}-${colorScheme}.png` : undefined,
      );
    }
    for (const [, width, height] of NARROW) {
      await page.setViewportSize({ width, height });
      await nothingOff(page);
    }
    await context.close();
  });
