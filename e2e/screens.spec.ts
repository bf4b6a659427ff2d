import { expect, test } from '@playwright/test';
import { judgeAccess, nothingOff } from './access';
import { testServer, type TestServer } from './server';

const CLOSED = '5a170001-0000-4000-8000-0000000000aa';
const OPEN = '5a170002-0000-4000-8000-0000000000bb';
const shots = process.env['ZT_SHOTS'];

let server: TestServer;
test.beforeAll(async () => {
  server = await testServer('screens');
});
test.afterAll(() => server.stop());

const SCREENS: readonly (readonly [string, string, RegExp])[] = [
  ['bench', '/', /Closed lately/],
  ['take-in', '/take-in', /What is seen/],
  ['trace', `/order/${OPEN}/trace`, /Look here next/],
  ['plan', `/order/${CLOSED}/plan`, /Fetch|steps/],
  ['prove', `/order/${CLOSED}/prove`, /Smallest first/],
  ['record', `/order/${CLOSED}/record`, /Findings/],
  ['close', `/order/${OPEN}/record`, /Close the order/],
  ['intake', `/order/${OPEN}/intake`, /Put the taking-in right/],
  ['machines', '/machines', /Dunlin/],
  ['machine', '/machines/dunlin', /Visits/],
  ['catalogue', '/catalogue', /As delivered/],
  ['catalogue-record', '/catalogue/modes/gears-worn', /How it shows/],
  ['tools', '/tools', /How long must the tube be/],
  ['tube', '/tools/tube', /Cut \d+ mm/],
  ['lives', '/tools/lives', /starting figure/],
  ['print', '/tools/print', /Choose the print file/],
  ['fits', '/tools/fits?inlbf=13', /13 in·lbf is 1\.469 N·m/],
  ['forces', '/tools/forces?machine=dunlin', /The weakest link is/],
  ['meter', '/tools/meter', /Should read 14\.4 Ω/],
  ['heat', '/tools/heat?machine=dunlin', /The strand in the cold zone/],
  ['practice', '/practice', /No round yet/],
  ['nowhere', '/nowhere', /nothing at this address/],
  ['settings', '/settings', /Who is at this phone/],
];

/** Phone and wide screen are judged in full; the narrowest phone, and the wide screen with everything twice as large, for what runs off. */
const SIZES = [
  ['phone', 390, 844],
  ['wide', 1280, 800],
] as const;
const NARROW = [
  ['320', 320, 640],
  ['double', 640, 400],
] as const;

for (const [name, path, text] of SCREENS)
  test(`${name}: no accessibility fault of any grade by day or night, targets that a finger hits, nothing off the side at any width`, async ({
    browser,
  }) => {
    const context = await browser.newContext({ viewport: { width: 390, height: 844 }, reducedMotion: 'reduce' });
    const page = await context.newPage();
    await page.goto(server.url + path);
    for (const [size, width, height] of SIZES) {
      await page.setViewportSize({ width, height });
      await expect(page.getByText(text).first()).toBeVisible();
      await judgeAccess(page, size, (colorScheme) =>
        shots ? `${shots}/${name}-${size}-${colorScheme}.png` : undefined,
      );
    }
    for (const [size, width, height] of NARROW) {
      await page.setViewportSize({ width, height });
      await expect(page.getByText(text).first()).toBeVisible();
      await nothingOff(page);
      if (shots) await page.screenshot({ path: `${shots}/${name}-${size}.png` });
    }
    await context.close();
  });

/** Sheets by what opens each, and where; the order's own lie behind its screens. */
const SHEETS: readonly (readonly [string, string, string | RegExp])[] = [
  ['why', `/order/${OPEN}/trace`, 'Why'],
  ['others', `/order/${OPEN}/trace`, 'Other'],
  ['cleared', `/order/${OPEN}/trace`, /cleared: by what\?$/],
  ['about', `/order/${OPEN}/trace`, 'About it'],
  ['heat', `/order/${OPEN}/trace`, 'Change'],
  ['order', `/order/${OPEN}/trace`, 'Note, taking-in, words'],
  ['place', `/order/${OPEN}/trace`, /: (suspicion|little|cleared)/],
  ['templates', '/machines', 'Describe a machine'],
  ['station', '/machines/dunlin', /^Hub/],
];

for (const [name, path, opener] of SHEETS)
  test(`the sheet ${name}: no accessibility fault by day or night, nothing off the side at any width`, async ({
    browser,
  }) => {
    const context = await browser.newContext({ viewport: { width: 390, height: 844 }, reducedMotion: 'reduce' });
    const page = await context.newPage();
    await page.goto(server.url + path);
    await page.getByRole('button', { name: opener }).first().click();
    await expect(page.getByRole('dialog')).toBeVisible();
    // What it shows may still be worked out.
    await expect(page.getByRole('dialog').getByText(/…$/)).toHaveCount(0);
    for (const [size, width, height] of SIZES) {
      await page.setViewportSize({ width, height });
      await judgeAccess(page, size, (colorScheme) =>
        shots ? `${shots}/sheet-${name}-${size}-${colorScheme}.png` : undefined,
      );
    }
    for (const [, width, height] of NARROW) {
      await page.setViewportSize({ width, height });
      await nothingOff(page);
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
