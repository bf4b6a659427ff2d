import AxeBuilder from '@axe-core/playwright';
import { expect, test, type Page } from '@playwright/test';
import { nothingOff } from './access';
import { testServer, type TestServer } from './server';

const OPEN = '5a170002-0000-4000-8000-0000000000bb';

let server: TestServer;
test.beforeAll(async () => {
  server = await testServer('first');
});
test.afterAll(() => server.stop());

/** The application's script is on its way until it is let through, as over a slow line. */
async function heldUp(page: Page): Promise<() => void> {
  let letThrough = (): void => undefined;
  const there = new Promise<void>((resolve) => (letThrough = resolve));
  await page.route('**/_expo/**', async (route) => {
    await there;
    await route.continue();
  });
  return letThrough;
}

test('a first visit sends at most 500 kB: script, faces and what the list says', async ({ browser }) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, serviceWorkers: 'block' });
  const page = await context.newPage();
  await page.goto(server.url);
  await expect(page.locator('.first')).toHaveCount(0);
  await page.evaluate(async () => void (await document.fonts.ready));
  await page.waitForLoadState('networkidle');
  const sent = await page.evaluate(() =>
    [...performance.getEntriesByType('navigation'), ...performance.getEntriesByType('resource')].map((entry) => {
      const { name, encodedBodySize } = entry as PerformanceResourceTiming;
      return [name.split('/').at(-1), encodedBodySize] as const;
    }),
  );
  // The tracer's thread is fetched a second after the list stands, for the order that will be opened.
  const first = sent.filter(([name]) => name?.startsWith('trace-') !== true);
  expect(first.filter(([name]) => name?.endsWith('.js')).map(([name]) => name?.replace(/-.*/, ''))).toEqual([
    'first.js',
    'index',
  ]);
  expect(first.reduce((sum, [, bytes]) => sum + bytes, 0)).toBeGreaterThan(200_000);
  expect(first.reduce((sum, [, bytes]) => sum + bytes, 0)).toBeLessThanOrEqual(500_000);
  await context.close();
});

test('the bench is read before the application is there; a tap on an order is kept, and Back leads to the bench', async ({
  page,
}) => {
  const letThrough = await heldUp(page);
  await page.goto(server.url, { waitUntil: 'commit' });
  const order = page.getByRole('link', { name: /^Dunlin, tracing/ });
  await expect(order).toBeVisible();
  for (const width of [320, 390, 1280]) {
    await page.setViewportSize({ width, height: 800 });
    await nothingOff(page);
    for (const colorScheme of ['light', 'dark'] as const) {
      await page.emulateMedia({ colorScheme });
      const { violations } = await new AxeBuilder({ page }).setLegacyMode().analyze();
      expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html}`)).toEqual([]);
    }
  }
  await order.click();
  await expect(page.getByText('Opening …')).toBeVisible();
  letThrough();
  await expect(page.getByTestId('check-name')).toBeVisible();
  await expect(page).toHaveURL(new RegExp(`/order/${OPEN}/trace$`));
  await page.goBack();
  await expect(page.getByRole('heading', { name: 'Bench', level: 1 })).toBeVisible();
  await expect(page.getByRole('link', { name: /^Dunlin, tracing/ })).toBeVisible();
});

test('a tap at any moment of the start is followed', async ({ page }) => {
  // From before the script to after the first drawing, whatever a machine's speed.
  for (const ms of [0, 40, 80, 130, 200, 330]) {
    await page.goto(server.url, { waitUntil: 'commit' });
    await page.evaluate(
      (wait) =>
        new Promise<void>((resolve) => {
          setTimeout(() => {
            const look = (): void => {
              const link = document.querySelector<HTMLElement>('a[href*="/trace"]');
              if (!link) return void requestAnimationFrame(look);
              link.click();
              resolve();
            };
            look();
          }, wait);
        }),
      ms,
    );
    await expect(page.getByTestId('check-name')).toBeVisible();
  }
});

test('the application goes on from what the server drew, without asking for it again first', async ({ page }) => {
  const asked: string[] = [];
  page.on('request', (request) => {
    if (/\/api\/orders\?/.test(request.url())) asked.push(request.url());
  });
  const letThrough = await heldUp(page);
  await page.goto(server.url, { waitUntil: 'commit' });
  await expect(page.locator('.first')).toBeVisible();
  letThrough();
  await expect(page.locator('.first')).toHaveCount(0);
  await expect(page.getByRole('link', { name: /^Dunlin, tracing/ })).toBeVisible();
  expect(asked.filter((url) => url.includes('status=open'))).toEqual([]);
});

test('the page drawn by the server stands in the light that was chosen on this device', async ({ page }) => {
  await page.addInitScript(() => localStorage.setItem('zt:settings', JSON.stringify({ theme: 'night' })));
  await heldUp(page);
  await page.goto(server.url, { waitUntil: 'commit' });
  await expect(page.locator('.first')).toHaveCSS('background-color', 'rgb(20, 26, 28)');
});
