import { expect, test } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { machineOfFamily, type Machine } from '@zealous/core';
import { button } from './bench';
import { testServer, type TestServer } from './server';

const CLOSED = '5a170001-0000-4000-8000-0000000000aa';

let server: TestServer;
test.beforeAll(async () => {
  server = await testServer('shop');
});
test.afterAll(() => server.stop());

test('a machine is described from a template, mended, stored, taken in; a reload in the middle keeps it', async ({
  page,
}) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(`${server.url}/machines`);
  await button(page, 'Describe a machine').click();
  await page.getByRole('button', { name: /^Two tool-head paths/ }).click();
  await page.getByLabel('Name', { exact: true }).fill('Razor Shell');
  await page.reload();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Razor Shell');

  // By keyboard: the buffer is moved up past the spool, which is impossible and said so.
  const handle = page.getByRole('button', { name: 'Move Feeder gate' }).first();
  const names = page.getByRole('list', { name: 'Left head' }).getByRole('button', { name: /\. Change it$/ });
  await expect(names.first()).toHaveAccessibleName(/^Spool in the dry box/);
  await handle.focus();
  await page.keyboard.press('Space');
  await expect(page.getByText('Feeder gate is at the place of Feeder gate.')).toBeAttached();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByText('Feeder gate is at the place of Spool in the dry box.')).toBeAttached();
  await page.keyboard.press('Space');
  await expect(names.first()).toHaveAccessibleName(/^Feeder gate/);
  await expect(page.getByText('stands in the middle of the path')).toBeVisible();
  await expect(button(page, /^Cannot be stored yet/)).toBeDisabled();

  // With the mouse it is dragged back.
  const grip = page.getByRole('button', { name: 'Move Feeder gate' }).first();
  await grip.evaluate((element) => element.scrollIntoView({ block: 'center' }));
  const from = await grip.boundingBox();
  const to = await page.getByRole('button', { name: 'Move Spool in the dry box' }).first().boundingBox();
  if (!from || !to) throw new Error('no handles');
  await page.mouse.move(from.x + 20, from.y + 20);
  await page.mouse.down();
  await page.mouse.move(to.x + 20, to.y + 40, { steps: 12 });
  await page.mouse.up();
  await expect(names.first()).toHaveAccessibleName(/^Spool in the dry box/);

  // A station is taken away and another put in its place; the picture follows.
  await names.filter({ hasText: 'Beam sensor in the head' }).first().click();
  await button(page, 'Take this station away').click();
  await button(page, 'Leave it').click();
  await button(page, 'Take this station away').click();
  await button(page, 'Take it away').click();
  await expect(page.getByText(/^12 stations/)).toBeVisible();
  await button(page, 'Add a station').first().click();
  await button(page, 'Filament sensor').click();
  await expect(page.getByText(/^13 stations/)).toBeVisible();

  // A figure that does not fit stays in its form, closed or loaded anew, and holds the storing up until it is mended.
  await names.filter({ hasText: 'Feeder gate' }).first().click();
  await page.getByLabel(/^Length along the path/).fill('long');
  await page.keyboard.press('Escape');
  // Closed, the form takes its step out of the history a moment later; a reload that meets it is given up by the browser.
  await expect
    .poll(() => page.evaluate(() => (history.state as { sheet?: boolean } | null)?.sheet === true))
    .toBe(false);
  await page.reload();
  await expect(button(page, 'Cannot be stored yet: 1 to mend')).toBeDisabled();
  await button(page, /^Feeder gate.* Open$/).click();
  await expect(page.getByLabel(/^Length along the path/)).toHaveValue('long');
  await page.getByLabel(/^Length along the path/).fill('70');
  await page.keyboard.press('Escape');

  await button(page, 'Store this machine').click();
  await expect(page).toHaveURL(/machines\/razor-shell$/);
  const stored = (await (await fetch(`${server.url}/api/machines/razor-shell`)).json()) as Machine;
  expect(stored.runs[0]?.stations.map((station) => station.kind)).toContain('sensor');

  // It is traced like any other: the right head is its own path.
  await page.goto(`${server.url}/take-in`);
  await page.getByRole('radio', { name: 'Razor Shell' }).click();
  await page.getByRole('radio', { name: 'Right head' }).click();
  await page.getByRole('checkbox', { name: 'Nothing comes out' }).click();
  await button(page, 'Take in and trace').click();
  await expect(page.getByTestId('check-name')).toBeVisible();
  await expect(page.getByText('What each answer would do')).toBeVisible();
});

test('a machine that left the shop is retired and brought back; one on the bench is not', async ({ page }) => {
  await page.goto(`${server.url}/machines/dunlin`);
  await button(page, 'Retire this machine').click();
  await button(page, 'Retire it').click();
  await expect(page.getByText(/^An order of it is open\./)).toBeVisible();

  await page.goto(`${server.url}/machines/whelk`);
  await button(page, 'Retire this machine').click();
  await button(page, 'Retire it').click();
  await expect(page.getByText(/^It left the shop on \d{4}-\d\d-\d\d\. Its visits are kept\.$/)).toBeVisible();
  await expect(button(page, 'Take it in')).toBeHidden();
  if (process.env['ZT_SHOTS'])
    await page.screenshot({ path: `${process.env['ZT_SHOTS']}/retired.png`, fullPage: true });
  await page.goto(`${server.url}/take-in`);
  await expect(page.getByRole('radio', { name: /^Dunlin/ })).toBeVisible();
  await expect(page.getByRole('radio', { name: /^Whelk/ })).toHaveCount(0);
  await page.goto(`${server.url}/machines`);
  await expect(page.getByRole('heading', { name: 'Retired' })).toBeVisible();
  if (process.env['ZT_SHOTS']) await page.screenshot({ path: `${process.env['ZT_SHOTS']}/machines-retired.png` });
  await page.getByRole('link', { name: /Whelk/ }).click();
  await button(page, 'It is in the shop again').click();
  await expect(button(page, 'Take it in')).toBeVisible();
});

test('a machine file comes in; a broken one is refused with the path of the error', async ({ page }) => {
  await page.goto(`${server.url}/machines`);
  const choose = async (text: string): Promise<void> => {
    const chooser = page.waitForEvent('filechooser');
    await button(page, 'From a file').click();
    await (await chooser).setFiles({ name: 'machine.json', mimeType: 'application/json', buffer: Buffer.from(text) });
  };
  const whelk = readFileSync('demo/machines/whelk.json', 'utf8');
  await choose(whelk.slice(0, 200));
  await expect(page.getByText(/not JSON/)).toBeVisible();
  const broken = JSON.parse(whelk) as { strandMm: unknown };
  broken.strandMm = 'thick';
  await choose(JSON.stringify(broken));
  await expect(page.getByText(/\/machine\/strandMm: must be number/)).toBeVisible();
  await choose(
    JSON.stringify({ ...machineOfFamily('geared-flexible', 'cuttle', 'Cuttle'), version: 1, family: 'old words' }),
  );
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Cuttle');
});

test('the catalogue is searched, changed with a preview, taken back; what cannot be is refused', async ({ page }) => {
  await page.goto(`${server.url}/catalogue`);
  await page.getByLabel('Search').fill('gear teeth');
  await page.getByRole('link', { name: /^Gear teeth worn/ }).click();
  await page.getByLabel(/^Weight/).fill('10');
  await page.getByRole('radio', { name: 'Limpet' }).click();
  await button(page, 'Work it out for Limpet').click();
  await expect(page.getByText(/^Extruder goes from \d+.% to \d+.%\.$/)).toBeVisible();
  await button(page, 'Store as this shop’s own').click();
  await page.getByLabel('Search').fill('gear teeth');
  await expect(page.getByText('changed here')).toBeVisible();
  await page.getByRole('link', { name: /^Gear teeth worn/ }).click();
  await expect(page.getByLabel(/^Weight/)).toHaveValue('10');
  await button(page, 'Back to what is delivered').click();
  await expect(page.getByText('As delivered.', { exact: false })).toBeVisible();

  // A new check with a result that nothing calls for twice over is stored and found.
  await page.getByRole('radio', { name: /^Checks/ }).click();
  await button(page, 'Add a check').click();
  await page.getByLabel('Name', { exact: true }).fill('Hold the nozzle against the light');
  await button(page, 'Store as this shop’s own').click();
  await page.getByRole('radio', { name: /^Checks/ }).click();
  await page.getByLabel('Search').fill('against the light');
  await expect(page.getByText('added here')).toBeVisible();
});

test('what is typed into a record and does not fit is refused at its field, outlives a reload, and is thrown away on asking', async ({
  page,
}) => {
  await page.goto(`${server.url}/catalogue/modes/gears-worn`);
  const weight = page.getByLabel(/^Weight/);
  await weight.fill('7000');
  await button(page, 'Store as this shop’s own').click();
  await expect(page.getByText('One field does not fit yet: it is marked.')).toBeVisible();
  await expect(page.getByText(/^Must be a number from 0/)).toBeVisible();
  await expect(weight).toBeFocused();
  await page.reload();
  await expect(weight).toHaveValue('7000');
  await button(page, 'Throw it away').click();
  await button(page, 'Throw it away').click();
  await expect(weight).not.toHaveValue('7000');
  await expect(page.getByText('What was typed here before is not stored yet.')).toHaveCount(0);
  await page.reload();
  await expect(weight).not.toHaveValue('7000');
});

test('what the shop has learned is told; a wrong closing is withdrawn and forgotten', async ({ page }) => {
  await page.goto(`${server.url}/settings`);
  await expect(page.getByText('1 closed and proved order speaks', { exact: false })).toBeVisible();
  await page.getByRole('radio', { name: 'Leave it out' }).click();
  await page.reload();
  await expect(page.getByRole('radio', { name: 'Leave it out' })).toBeChecked();
  await page.goto(`${server.url}/order/${CLOSED}/record`);
  await button(page, 'Closed wrongly?').click();
  await button(page, 'Withdraw the closing').click();
  await expect(page.getByRole('heading', { name: 'Close the order' })).toBeVisible();
  await expect(async () => {
    await page.goto(`${server.url}/settings`);
    await expect(page.getByText('No closed and proved order speaks yet', { exact: false })).toBeVisible({
      timeout: 2000,
    });
  }).toPass({ timeout: 20_000 });
});

test('why this, why not that: each result’s effect, a rival part by part, and a habit with its price', async ({
  page,
}) => {
  await page.goto(server.url);
  await page.getByRole('link', { name: /^Dunlin, tracing/ }).click();
  await button(page, /^Why\. /).click();
  await expect(page.getByText('What would change the answer most')).toBeVisible();
  await button(page, 'Close').click();
  await button(page, /^Other\. /).click();
  await page
    .getByRole('button', { name: /^Bend a short piece|^Free the tube|^Look at|^Tug/ })
    .first()
    .click();
  await button(page, /^Why\. /).click();
  await expect(page.getByRole('table', { name: 'Minutes part by part' })).toBeVisible();
  await button(page, 'Close').click();
  await button(page, /^Other\. /).click();
  await page.getByRole('button', { name: /^Order of looking/ }).click();
  await page.getByRole('radio', { name: 'Nozzle first' }).click();
  await expect(page.getByText(/about \d+ min more than the tracer’s choice|under 1 min more/).first()).toBeVisible();
});
