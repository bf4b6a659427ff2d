import AxeBuilder from '@axe-core/playwright';
import { expect, test } from '@playwright/test';
import { testServer, type TestServer } from './server';

const CLOSED = '5a170001-0000-4000-8000-0000000000aa';
const OPEN = '5a170002-0000-4000-8000-0000000000bb';
const shots = process.env['ZT_SHOTS'];

let server: TestServer;
test.beforeAll(async () => {
  server = await testServer('screens', 4733);
});
test.afterAll(() => server.stop());

const SCREENS: readonly (readonly [string, string, RegExp])[] = [
  ['bench', '/', /Closed lately/],
  ['take-in', '/take-in', /What is seen/],
  ['trace', `/order/${OPEN}/trace`, /Look here next/],
  ['plan', `/order/${CLOSED}/plan`, /Fetch|steps/],
  ['prove', `/order/${CLOSED}/prove`, /Smallest first/],
  ['record', `/order/${CLOSED}/record`, /Findings/],
  ['machines', '/machines', /Dunlin/],
  ['machine', '/machines/dunlin', /Visits/],
  ['catalogue', '/catalogue', /As delivered/],
  ['catalogue-record', '/catalogue/modes/gears-worn', /How it shows/],
  ['tools', '/tools', /Tube planner/],
  ['tube', '/tools/tube', /Cut \d+ mm/],
  ['settings', '/settings', /Who is at this phone/],
];

for (const [size, width, height] of [
  ['phone', 390, 844],
  ['wide', 1280, 800],
] as const)
  for (const scheme of ['light', 'dark'] as const)
    test(`no screen has serious accessibility faults or runs off the side: ${size}, ${scheme}`, async ({ browser }) => {
      // Thirteen screens, each looked at by axe: on a machine that does something else too it takes its time.
      test.setTimeout(360_000);
      const context = await browser.newContext({
        viewport: { width, height },
        colorScheme: scheme,
        reducedMotion: 'reduce',
      });
      const page = await context.newPage();
      for (const [name, path, text] of SCREENS) {
        await page.goto(server.url + path);
        await expect(page.getByText(text).first()).toBeVisible();
        const { violations } = await new AxeBuilder({ page })
          .withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
          .analyze();
        const grave = violations.filter((item) => item.impact === 'serious' || item.impact === 'critical');
        expect(grave.map((item) => `${name}: ${item.id}: ${item.nodes[0]?.html.slice(0, 160)}`)).toEqual([]);
        expect(await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth)).toBe(true);
        if (shots) await page.screenshot({ path: `${shots}/${name}-${size}-${scheme}.png` });
      }
      await context.close();
    });

test('on a keyboard: a digit answers, U takes it back, N lists the others', async ({ browser }) => {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${server.url}/order/${OPEN}/trace`);
  const name = page.getByTestId('check-name');
  await expect(name).toBeVisible();
  const first = (await name.textContent()) ?? '';
  await page.keyboard.press('3');
  await expect(name).not.toHaveText(first);
  await page.keyboard.press('u');
  await expect(name).toHaveText(first);
  await page.keyboard.press('n');
  await expect(page.getByText('Ranked by the minutes to a proved repair', { exact: false })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('?');
  await expect(page.getByText('take the last finding back')).toBeVisible();
  await page.close();
});

test('an order or an address that is not there says so', async ({ page }) => {
  await page.goto(`${server.url}/order/00000000-0000-4000-8000-000000000000/trace`);
  await expect(page.getByText('There is no such work order.')).toBeVisible();
  await page.goto(`${server.url}/machines/heron`);
  await expect(page.getByText('This machine could not be fetched')).toBeVisible();
});
