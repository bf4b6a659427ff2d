import { expect, test, type Page } from '@playwright/test';
import { judgeAccess, NARROW, nothingOff, SIZES, tap } from './access';
import { testServer, type TestServer } from './server';

const CLOSED = '5a170001-0000-4000-8000-0000000000aa';
const OPEN = '5a170002-0000-4000-8000-0000000000bb';
const shots = process.env['ZT_SHOTS'];

let server: TestServer;
test.beforeAll(async () => {
  server = await testServer('screens');
});
test.afterAll(() => server.stop());

/** Screens by where each lies, what stands on it, and how it is opened from there. */
const SCREENS: readonly (readonly [string, string, RegExp, ((page: Page) => Promise<void>)?])[] = [
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
  ['builder', '/machines/dunlin', /Hottest that it may get/, tap('Change')],
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

for (const [name, path, text, open] of SCREENS)
  test(`${name}: no accessibility fault of any grade by day or night, targets that a finger hits, nothing off the side at any width`, async ({
    browser,
  }) => {
    const context = await browser.newContext({ viewport: { width: 390, height: 844 }, reducedMotion: 'reduce' });
    const page = await context.newPage();
    await page.goto(server.url + path);
    await open?.(page);
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
    await page.setViewportSize({ width: 390, height: 844 });
    await largestText(page);
    await expect(page.getByText(text).first()).toBeVisible();
    await nothingOff(page);
    if (shots) await page.screenshot({ path: `${shots}/${name}-largest.png` });
    await context.close();
  });

/** As when the device's own settings ask for text twice as high. */
async function largestText(page: Page): Promise<void> {
  const title = page.getByRole('heading', { level: 1 }).first();
  const high = (): Promise<number> => title.evaluate((node) => parseFloat(getComputedStyle(node).fontSize));
  const before = await high();
  await page.evaluate(() => (document.documentElement.style.fontSize = '200%'));
  await expect.poll(high).toBeGreaterThan(1.9 * before);
}

const TRACE = `/order/${OPEN}/trace`;

test('twice as large on a low screen the check’s name, its caution and its results are reached by scrolling', async ({
  browser,
}) => {
  const page = await browser.newPage({ viewport: { width: 640, height: 400 } });
  await page.goto(server.url + TRACE);
  const name = page.getByTestId('check-name');
  for (const part of [
    name,
    page.getByText(/^(Raise the head|Hot end at heat|Power off)/).first(),
    page.getByTestId('results'),
  ]) {
    await part.scrollIntoViewIfNeeded();
    await expect(part).toBeInViewport({ ratio: 0.9 });
  }
  await page.close();
});

test('with the device’s largest text the check’s name, its caution and its results are reached by scrolling on a phone', async ({
  browser,
}) => {
  const page = await browser.newPage({ viewport: { width: 390, height: 844 } });
  await page.goto(server.url + TRACE);
  const name = page.getByTestId('check-name');
  await expect(name).toBeVisible();
  await largestText(page);
  for (const part of [
    name,
    page.getByText(/^(Raise the head|Hot end at heat|Power off)/).first(),
    page.getByTestId('results').getByRole('button').first(),
    page.getByTestId('results').getByRole('button').last(),
  ]) {
    await part.scrollIntoViewIfNeeded();
    await expect(part).toBeInViewport({ ratio: 0.9 });
  }
  if (shots) await page.screenshot({ path: `${shots}/trace-largest-results.png` });
  await page.close();
});

test('on a keyboard: a digit answers, U takes it back, N lists the others, the stroke finds', async ({ browser }) => {
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
  // While the sheet is open the page behind it takes no key.
  await page.keyboard.press('u');
  await expect(page.getByText('take the last finding back')).toBeVisible();
  await page.goto(`${server.url}/catalogue`);
  const find = page.getByRole('textbox', { name: 'Search' });
  await expect(find).toBeVisible();
  await page.keyboard.press('/');
  await expect(find).toBeFocused();
  await page.keyboard.type('a/b');
  await expect(find).toHaveValue('a/b');
  await page.close();
});

test('the first thing that the keyboard reaches leads to the content, past head and lists, on every page', async ({
  browser,
}) => {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  for (const [path, name] of [
    ['/', 'Bench'],
    [TRACE, 'Trace'],
    [`/order/${OPEN}/record`, 'Record'],
    ['/machines', 'Machines'],
    ['/settings', 'Settings'],
  ] as const) {
    const main = page.getByRole('main', { name });
    const skip = page.getByRole('link', { name: 'To the content' });
    // On a slow machine the screen may still take its place after the keys were pressed: then once more from the beginning.
    await expect(async () => {
      await page.goto(server.url + path);
      await expect(main).toBeVisible();
      // What the server drew has no such link yet: it has little before its content.
      await expect(skip).toBeAttached();
      await expect(skip).not.toBeInViewport();
      await page.keyboard.press('Tab');
      await expect(skip).toBeFocused({ timeout: 5_000 });
      await expect(skip).toBeInViewport();
      await page.keyboard.press('Enter');
      await expect(main).toBeFocused({ timeout: 5_000 });
    }).toPass({ timeout: 60_000 });
    await expect(skip).not.toBeInViewport();
    expect(new URL(page.url()).hash).toBe('');
  }
  await page.close();
});

test('an order or an address that is not there says so', async ({ page }) => {
  await page.goto(`${server.url}/order/00000000-0000-4000-8000-000000000000/trace`);
  await expect(page.getByText('There is no such work order.')).toBeVisible();
  await page.goto(`${server.url}/machines/heron`);
  await expect(page.getByText('This machine could not be fetched')).toBeVisible();
});
