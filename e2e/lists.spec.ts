import { expect, test } from '@playwright/test';
import { deliveredCatalogue } from '@zealous/core';
import { testServer, type TestServer } from './server';

let server: TestServer;
test.beforeAll(async () => {
  server = await testServer('lists');
});
test.afterAll(() => server.stop());

const MODES = deliveredCatalogue.modes.length;
const rows = 'a[href*="/catalogue/modes/"]:not([href$="/new"])';
const last = deliveredCatalogue.modes.at(-1)?.name ?? '';

for (const [width, height] of [
  [390, 844],
  [1280, 800],
] as const)
  test(`of a long list only what is seen stands in the page, and coming back finds it where it was left, ${width} px`, async ({
    page,
  }) => {
    await page.setViewportSize({ width, height });
    await page.goto(`${server.url}/catalogue`);
    await expect(page.getByText(`What fails, ${MODES}`)).toBeVisible();
    await expect(page.locator(rows).first()).toBeVisible();
    const standing = await page.locator(rows).count();
    expect(standing).toBeLessThan(MODES);

    const main = page.getByRole('main');
    const down = (): Promise<number> => main.evaluate((view) => view.scrollTop);
    // To the end, as the heights of the rows become known on the way.
    await expect(async () => {
      await main.evaluate((view) => (view.scrollTop = view.scrollHeight));
      await expect(page.getByRole('link', { name: new RegExp(`^${last}`) })).toBeInViewport({ timeout: 500 });
    }).toPass({ timeout: 30_000 });
    // No two rows lie on each other, and each is high enough for a finger.
    const boxes = await page.locator(rows).evaluateAll((links) =>
      links.map((link) => {
        const { top, bottom } = link.getBoundingClientRect();
        return { top, bottom };
      }),
    );
    boxes.sort((a, b) => a.top - b.top);
    boxes.forEach(({ top, bottom }, i) => {
      expect(bottom - top).toBeGreaterThanOrEqual(47.5);
      if (i > 0) expect(top).toBeGreaterThanOrEqual((boxes[i - 1]?.bottom ?? 0) - 1);
    });

    await main.evaluate((view) => (view.scrollTop = view.scrollHeight / 2));
    await expect.poll(down).toBeGreaterThan(500);
    const inTheMiddle = (): Promise<string> =>
      page.locator(rows).evaluateAll(
        (links) =>
          links.find((link) => {
            const { top, bottom } = link.getBoundingClientRect();
            return top > 250 && bottom < 700;
          })?.textContent ?? '',
      );
    await expect.poll(inTheMiddle).not.toBe('');
    const name = await inTheMiddle();
    const row = page
      .locator(rows)
      .filter({ hasText: name.slice(0, 20) })
      .first();
    // Tapped while the list still moves.
    await row.evaluate((link) => {
      const view = link.closest('[role=main]');
      if (view) view.scrollTop -= 40;
      (link as HTMLElement).click();
    });
    await expect(page.getByText(/How it shows/).first()).toBeVisible();
    await page.goBack();
    await expect(page.getByText(`What fails, ${MODES}`)).toBeVisible();
    await expect(row).toBeInViewport();
    // By its own place at the foot or the side a list begins at its top.
    await page.getByRole('link', { name: 'Bench', exact: true }).click();
    await page.getByRole('link', { name: 'Catalogue', exact: true }).click();
    await expect(page.getByText(`What fails, ${MODES}`)).toBeVisible();
    await expect.poll(down).toBe(0);
  });

test('a screen whose piece could not be fetched is fetched by "Try again"', async ({ browser }) => {
  const context = await browser.newContext({ serviceWorkers: 'block' });
  const page = await context.newPage();
  await page.goto(server.url);
  await expect(page.getByRole('heading', { name: 'Bench' })).toBeVisible();
  const piece = /\/_expo\/static\/js\/web\/screens-[^/]*\.js/;
  let refused = 0;
  await page.route(piece, (route) => {
    refused++;
    return route.abort();
  });
  await page.getByRole('link', { name: 'Machines', exact: true }).click();
  const again = page.getByRole('button', { name: 'Try again' });
  await expect(again).toBeVisible();
  expect(refused).toBeGreaterThan(0);
  await again.click();
  await expect(again).toBeVisible();
  await page.unroute(piece);
  await again.click();
  await expect(page.getByRole('heading', { name: 'Machines', level: 1 })).toBeVisible();
  await expect(page.getByRole('link', { name: /Dunlin/ }).first()).toBeVisible();
  await context.close();
});
