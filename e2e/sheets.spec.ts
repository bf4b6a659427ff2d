import { expect, test, type Page } from '@playwright/test';
import { button } from './bench';
import { testServer, type TestServer } from './server';

const OPEN = '5a170002-0000-4000-8000-0000000000bb';
let server: TestServer;
test.beforeAll(async () => {
  server = await testServer('sheets');
});
test.afterAll(() => server.stop());

const findings = async (page: Page): Promise<number> => {
  const { events } = (await (await page.request.get(`${server.url}/api/orders/${OPEN}`)).json()) as {
    readonly events: readonly { readonly event: { readonly type: string } }[];
  };
  return events.filter(({ event }) => event.type === 'finding-recorded').length;
};
const opener = (page: Page) => button(page, 'Note, taking-in, words');

test('a sheet is a dialog: it takes the focus, holds the keys, closes by Escape and gives the focus back', async ({
  page,
}) => {
  await page.goto(`${server.url}/order/${OPEN}/trace`);
  await expect(page.getByTestId('check-name')).toBeVisible();
  const before = await findings(page);
  await opener(page).focus();
  await page.keyboard.press('Enter');
  const dialog = page.getByRole('dialog');
  await expect(dialog).toBeVisible();
  await expect.poll(() => page.evaluate(() => !!document.activeElement?.closest('[role="dialog"]'))).toBe(true);
  // Tab goes round within it.
  for (let i = 0; i < 12; i++) await page.keyboard.press('Tab');
  expect(await page.evaluate(() => !!document.activeElement?.closest('[role="dialog"]'))).toBe(true);
  // A digit records nothing behind it.
  await page.getByRole('heading', { name: 'Words of the trade' }).click();
  await page.keyboard.press('1');
  await page.keyboard.press('u');
  await page.keyboard.press('Escape');
  await expect(dialog).toBeHidden();
  await expect(opener(page)).toBeFocused();
  expect(await findings(page)).toBe(before);
});

test('the browser’s Back closes a sheet and stays on the order, also after a reload; a second Back leaves', async ({
  page,
}) => {
  await page.goto(server.url);
  await page.getByRole('link', { name: /^Dunlin, tracing/ }).click();
  await expect(page.getByTestId('check-name')).toBeVisible();
  await page.reload();
  await expect(page.getByTestId('check-name')).toBeVisible();
  const { pathname } = new URL(page.url());
  await opener(page).click();
  await expect(page.getByRole('dialog')).toBeVisible();
  await page.goBack();
  await expect(page.getByRole('dialog')).toBeHidden();
  expect(new URL(page.url()).pathname).toBe(pathname);
  await expect(page.getByTestId('check-name')).toBeVisible();
  // Closed by its own button, it leaves no step behind.
  await opener(page).click();
  await button(page, 'Close').click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await page.waitForFunction(() => !(history.state as { sheet?: boolean } | null)?.sheet);
  await page.goBack();
  await expect(button(page, 'Take in a machine')).toBeVisible();
});

test('a page that is tapped while a sheet’s step is still going out of the history is not lost', async ({ page }) => {
  await page.goto(`${server.url}/order/${OPEN}/trace`);
  await opener(page).click();
  await expect(page.getByRole('dialog')).toBeVisible();
  await page.evaluate(() => {
    const { history } = window;
    const back = history.back.bind(history);
    // On a slow machine this takes long enough for a tap.
    history.back = () => {
      document.querySelector<HTMLElement>('a[href$="/record"]')?.click();
      back();
    };
  });
  await button(page, 'Close').click();
  await expect(page).toHaveURL(/\/record$/);
  await expect(page.getByRole('button', { name: 'Record as PDF' })).toBeVisible();
  await page.waitForFunction(() => !(history.state as { sheet?: boolean } | null)?.sheet);
  expect(new URL(page.url()).pathname).toMatch(/record$/);
});

test('a note is written while tracing, what is typed outlives a reload, and the taking-in is put right', async ({
  page,
}) => {
  await page.goto(`${server.url}/order/${OPEN}/trace`);
  await opener(page).click();
  await page.getByLabel('A note for the record').fill('the owner comes on Friday');
  await page.reload();
  await opener(page).click();
  await expect(page.getByLabel('A note for the record')).toHaveValue('the owner comes on Friday');
  await button(page, 'Write the note down').click();
  await expect(page.getByText('Noted: the owner comes on Friday')).toBeVisible();
  await button(page, 'Put the taking-in right').click();
  await button(page, /^Filament in it/).click();
  await page.getByRole('radio', { name: 'PETG', exact: true }).click();
  await button(page, 'That is right').click();
  await expect(page.getByRole('heading', { name: /Dunlin · PETG/ })).toBeVisible();
});

test('in a group of choices arrows choose, and space ticks', async ({ page }) => {
  await page.goto(`${server.url}/settings`);
  await page.getByRole('radio', { name: 'As the device' }).focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('radio', { name: 'Day' })).toBeChecked();
  await expect(page.getByRole('radio', { name: 'Day' })).toBeFocused();
  await page.goto(`${server.url}/take-in`);
  await page.getByRole('radio', { name: /Whelk/ }).click();
  await button(page, 'Next question').click();
  const box = page.getByRole('checkbox', { name: 'Nothing comes out' });
  await box.focus();
  await page.keyboard.press('Space');
  await expect(box).toBeChecked();
  await page.keyboard.press('Space');
  await expect(box).not.toBeChecked();
});

test('what is complained of is asked in questions that fit, and only the page’s own content moves for them', async ({
  browser,
}) => {
  const page = await browser.newPage({ viewport: { width: 390, height: 844 } });
  await page.goto(`${server.url}/take-in`);
  await page.getByRole('radio', { name: /Dunlin/ }).click();
  await page.getByRole('radio', { name: /^Lane A/ }).click();
  for (const question of [/^What is seen of the print/, /^How does the filament run/, /^What of the machine/]) {
    await button(page, 'Next question').click();
    await expect(button(page, question)).toHaveAttribute('aria-expanded', 'true');
    // Its first line and its last are both in sight, above the foot of the page.
    await expect(button(page, question)).toBeInViewport({ ratio: 1 });
    await expect(button(page, 'Next question')).toBeInViewport({ ratio: 1 });
    expect(await page.evaluate(() => document.documentElement.scrollTop)).toBe(0);
    await expect(page.getByRole('heading', { name: 'Take in', level: 1 })).toBeInViewport({ ratio: 1 });
  }
  await page.close();
});

for (const [width, height] of [
  [390, 844],
  [360, 640],
] as const)
  test(`the first six checks are readable with all their results at ${width}x${height}`, async ({ browser }) => {
    const page = await browser.newPage({ viewport: { width, height } });
    await page.goto(`${server.url}/order/${OPEN}/trace`);
    const name = page.getByTestId('check-name');
    await expect(name).toBeVisible();
    const others = page
      .getByRole('dialog')
      .getByRole('button')
      .filter({ hasText: /best$|\+\d+ min/m });
    for (let i = 0; i < 6; i++) {
      await button(page, /^Other\. /).click();
      await expect(others.nth(i)).toBeVisible();
      const text = (await others.nth(i).getAttribute('aria-label')) ?? '';
      await page.getByRole('dialog').getByRole('button', { name: text, exact: true }).click();
      await expect(page.getByRole('dialog')).toBeHidden();
      await expect(name).toHaveText(text);
      // Whatever it is called and however many results it has: name, all results and every caution lie within the screen.
      const cut = await page.evaluate(() => {
        const inside = (e: Element): boolean => {
          const { top, bottom, left, right } = e.getBoundingClientRect();
          return top >= 0 && left >= 0 && bottom <= innerHeight + 1 && right <= innerWidth + 1;
        };
        const pad = document.querySelector('[data-testid="results"]');
        const bad = [...(pad?.querySelectorAll('[role="button"], button') ?? [])].filter((e) => !inside(e));
        const title = document.querySelector('[data-testid="check-name"]');
        const clipped = [...document.querySelectorAll('[aria-label^="Caution"] *')].filter(
          (e) => e.scrollWidth > e.clientWidth + 1,
        );
        return { results: bad.length, title: !title || !inside(title), clipped: clipped.length, pad: !!pad };
      });
      expect([text, cut]).toEqual([text, { results: 0, title: false, clipped: 0, pad: true }]);
    }
    await page.close();
  });

test('an order that was left is taken down: one screen stands, whatever was opened before', async ({ page }) => {
  await page.goto(server.url);
  for (let i = 0; i < 4; i++) {
    await page.getByRole('link', { name: /^Dunlin, tracing/ }).click();
    await expect(page.getByRole('main', { name: 'Trace' })).toBeVisible();
    await page.getByRole('link', { name: 'Back', exact: true }).click();
    await expect(page.getByRole('main', { name: 'Bench' })).toBeVisible();
    // Also what is hidden counts: a screen that stays works on and holds what it showed.
    await expect(page.locator('[role=main], main')).toHaveCount(1);
  }
  await page.goBack();
  await expect(page.getByRole('main', { name: 'Trace' })).toBeVisible();
  await expect(page.locator('[role=main], main')).toHaveCount(1);
});
