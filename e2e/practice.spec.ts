import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { judgeAccess } from './access';
import { button } from './bench';
import { testServer, type TestServer } from './server';

const SHOTS = process.env['ZT_SHOTS'];
let server: TestServer;
test.beforeAll(async () => {
  server = await testServer('practice');
});
test.afterAll(() => server.stop());

/** Every draw comes out in the middle, so that a case from practice is taken, and the same one each time. */
const fixed = async (page: Page): Promise<void> => {
  await page.addInitScript(() => {
    Math.random = () => 0.5;
  });
};
const shot = async (page: Page, name: string): Promise<void> => {
  if (SHOTS) await page.screenshot({ path: `${SHOTS}/${name}.png`, fullPage: true });
};
interface Case {
  readonly faults: readonly { readonly station: string; readonly mode: string }[];
}
const hiddenCase = async (page: Page): Promise<Case> => {
  const id = await page.evaluate(
    () => (JSON.parse(localStorage.getItem('zt:practice-round') ?? '{}') as { hidden: { id: string } }).hidden.id,
  );
  return JSON.parse(readFileSync(join(__dirname, '../cases', `${id}.json`), 'utf8')) as Case;
};

test('own hands: what would hurt is stopped and explained, a reload loses nothing, and the end shows the tracer’s way', async ({
  page,
}) => {
  await fixed(page);
  await page.goto(`${server.url}/tools`);
  await page.getByRole('button', { name: /^Practice bench/ }).click();
  await page.getByRole('radio', { name: 'Your own hands' }).click();
  await shot(page, 'practice');
  await button(page, 'Begin a round').click();
  await expect(page.getByText('What the owner says')).toBeVisible();
  await judgeAccess(page, 'phone', (theme) => (SHOTS ? `${SHOTS}/practice-round-${theme}.png` : undefined));
  await page.getByRole('radio', { name: 'Make ready' }).click();
  await page.getByRole('button', { name: /^Heat to \d+ °C$/ }).click();
  await expect(page.getByText(/^2\d\d °C, power on, filament in$/)).toBeVisible();
  await button(page, 'Switch off and unplug').click();
  const last = page.getByTestId('practice-last');
  await expect(last).toContainText(/Stopped in time\. Switched off this hot/);
  await expect(page.getByText(/^2\d\d °C, power on, filament in$/)).toBeVisible();
  await judgeAccess(page, 'phone', (theme) => (SHOTS ? `${SHOTS}/practice-accident-${theme}.png` : undefined));
  await button(page, 'Take the filament out').click();
  await expect(page.getByText(/power on, filament out$/)).toBeVisible();
  await page.reload();
  await expect(page.getByText(/power on, filament out$/)).toBeVisible();
  await page.getByRole('radio', { name: /^Done so far \(3\)$/ }).click();
  await expect(page.getByText(/^Switched|^Stopped in time/).first()).toBeVisible();
  await button(page, 'Give up and see what it was').click();
  await button(page, 'Show me').click();
  await expect(page.getByTestId('practice-fault').first()).toBeVisible();
  await expect(page.getByRole('heading', { name: /^The tracer: \d+ min$/ })).toBeVisible();
  await expect(page.getByText('What would have happened on a real machine')).toBeVisible();
  await shot(page, 'practice-review');
  await button(page, 'Next round').click();
  await expect(page.getByTestId('practice-standing')).toHaveText(
    /^1 round, 0 brought to a cure\. 1 accident that a real machine would have had\.$/,
  );
});

test('a fault is found and repaired on a device whose server is gone, and the record can be saved', async ({
  browser,
}) => {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, serviceWorkers: 'allow' });
  const page = await context.newPage();
  await fixed(page);
  await page.goto(`${server.url}/practice`);
  await expect(page.getByText('No round yet.', { exact: false })).toBeVisible();
  await page.evaluate(async () => void (await navigator.serviceWorker.ready));
  await context.setOffline(true);
  await page.reload();
  await page.getByRole('radio', { name: 'One fault' }).click();
  await button(page, 'Begin a round').click();
  await expect(page.getByText('What the owner says')).toBeVisible();
  const { faults } = await hiddenCase(page);
  // A look first, so that there is something to be worth.
  await page
    .getByRole('button', { name: /\d+ checks?$/ })
    .first()
    .click();
  await page.getByTestId('practice-check').first().click();
  await expect(page.getByTestId('practice-last')).toBeVisible();
  await shot(page, 'practice-look');
  await page.getByRole('radio', { name: 'Repair' }).click();
  const folds = page.getByRole('button', { name: /faults? can sit here$/ });
  const names = await folds.allInnerTexts();
  const soFar = page.getByRole('radio', { name: /^Done so far/ });
  const cured = page.getByRole('heading', { name: 'Cured and proved' });
  for (const fault of faults) {
    // Whichever station it is: the remedies of its fault are tried until the proof shows that it is gone.
    for (let i = 0; i < names.length; i++) {
      await folds.nth(i).click();
      const mode = page.getByTestId(`fault-${fault.station}-${fault.mode}`);
      if ((await mode.count()) === 0) {
        await folds.nth(i).click();
        continue;
      }
      await shot(page, 'practice-repair');
      const remedies = mode.getByRole('button');
      const gone = page.getByText('It helped: something that was wrong is gone.').or(cured);
      for (let n = 0; n < (await remedies.count()); n++) {
        const done = Number(/\((\d+)\)/.exec((await soFar.textContent()) ?? '')?.[1]);
        await remedies.nth(n).click();
        await expect(page.getByRole('radio', { name: `Done so far (${done + 1})` }).or(cured)).toBeVisible();
        if (await gone.first().isVisible()) break;
      }
      break;
    }
  }
  await expect(cured).toBeVisible();
  await expect(page.getByTestId('practice-against')).toHaveText(/than the tracer\.$|as the tracer\.$/);
  await expect(page.getByText(/^It could tell|^What it is for was there/).first()).toBeVisible();
  await judgeAccess(page, 'wide', (theme) => (SHOTS ? `${SHOTS}/practice-review-${theme}.png` : undefined));
  await button(page, 'Next round').click();
  await expect(page.getByTestId('practice-standing')).toContainText('1 round, 1 brought to a cure.');
  const saved = page.waitForEvent('download');
  await button(page, 'Save the record as a file').click();
  const file = JSON.parse(readFileSync(await (await saved).path(), 'utf8')) as {
    readonly format: string;
    readonly rounds: readonly { readonly outcome: string; readonly tracerMinutes: number }[];
  };
  expect(file).toMatchObject({ format: 'zealous-tracer/practice-record', version: 1 });
  expect(file.rounds).toHaveLength(1);
  expect(file.rounds[0]).toMatchObject({ outcome: 'cured' });
  expect(file.rounds[0]?.tracerMinutes).toBeGreaterThan(0);
  // On another device the record is brought in; what is no record is refused with the reason, and nothing is lost.
  const other = await browser.newPage();
  await other.goto(`${server.url}/practice`);
  const choose = async (name: string, text: string): Promise<void> => {
    const chooser = other.waitForEvent('filechooser');
    await button(other, 'Bring a record in').click();
    await (await chooser).setFiles({ name, mimeType: 'application/json', buffer: Buffer.from(text) });
  };
  await choose('record.json', JSON.stringify(file));
  await expect(other.getByTestId('practice-standing')).toContainText('1 round, 1 brought to a cure.');
  await choose('other.json', '{"format":"something"}');
  await expect(other.getByText(/^This file is no record of practice\./)).toBeVisible();
  await expect(other.getByTestId('practice-standing')).toContainText('1 round, 1 brought to a cure.');
  await other.close();
  await context.close();
});
