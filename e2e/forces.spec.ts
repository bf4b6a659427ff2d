import { randomUUID } from 'node:crypto';
import { expect, test } from '@playwright/test';
import { button } from './bench';
import { testServer, type TestServer } from './server';

const SHOTS = process.env['ZT_SHOTS'];
let server: TestServer;
test.beforeAll(async () => {
  server = await testServer('forces');
});
test.afterAll(() => server.stop());

test('the gauge’s check shows what the force should be; two readings name the stretch, and the one at the gears stands in the order', async ({
  page,
}) => {
  const id = randomUUID();
  const body = { number: 'gauge', machineId: 'dunlin', symptoms: ['thin', 'clicks'], before: [], material: 'PLA' };
  const event = { id: randomUUID(), at: new Date().toISOString(), by: 'bench 1', type: 'taken-in', body };
  expect((await page.request.post(`${server.url}/api/orders/${id}/events`, { data: event })).status()).toBe(201);
  await page.goto(`${server.url}/order/${id}/trace`);
  await button(page, /^Other\. /).click();
  await page
    .getByRole('button', { name: /^Pull gauge on the strand/ })
    .first()
    .click();
  await button(page, 'What it should be, station by station').click();
  await expect(page.getByTestId('weakest')).toHaveText(/^It holds at 6\.0 mm³\/s/);
  const fields = page.getByRole('textbox', { name: /^After / });
  const many = await fields.count();
  expect(many).toBeGreaterThan(1);
  // The spool turns freely; behind it something drags.
  await fields.first().fill('0.8');
  await expect(page.getByText(/^Up to .*Sound\.$/)).toBeVisible();
  await fields.nth(many - 1).fill('7.5');
  await expect(page.getByText(/ drags: should be about .* reads 7\.5 N\.$/)).toBeVisible();
  if (SHOTS) await page.screenshot({ path: `${SHOTS}/forces-order.png`, fullPage: true });
  // What does not fit is not taken.
  await page.getByRole('textbox', { name: /^Flow/ }).fill('0');
  await expect(page.getByText('Must be a number from 0.01 to 100.')).toBeVisible();
  await page.getByRole('textbox', { name: /^The gears hold/ }).fill('3');
  await expect(page.getByTestId('weakest')).toHaveText(/^Too much at 6\.0 mm³\/s: the weakest link is the gears/);
  await page.getByRole('textbox', { name: /^Of 100 mm/ }).fill('50');
  await expect(page.getByTestId('bore')).toHaveText(/were 0\.3\d mm/);
  await button(page, 'Write it into the order').click();
  await expect(page).toHaveURL(new RegExp(`/order/${id}/trace`));
  await expect
    .poll(async () => {
      const answer = await page.request.get(`${server.url}/api/orders/${id}/events`);
      return JSON.stringify(await answer.json());
    })
    .toMatch(/"pull-gauge@[^"]*","result":"n","value":7\.5|"value":7\.5/);
});

test('a temperature log is drawn where the heat is changed, with what it drops and jumps', async ({ page }) => {
  const id = randomUUID();
  const body = { number: 'log', machineId: 'dunlin', symptoms: ['thin'], before: [], material: 'PLA' };
  const event = { id: randomUUID(), at: new Date().toISOString(), by: 'bench 1', type: 'taken-in', body };
  expect((await page.request.post(`${server.url}/api/orders/${id}/events`, { data: event })).status()).toBe(201);
  await page.goto(`${server.url}/order/${id}/trace`);
  await button(page, /^Change\. /).click();
  const lines = Array.from({ length: 900 }, (_, i) => {
    const up = Math.min(210, 22 + i * 2);
    const drop = i > 300 && i < 360 ? 14 * Math.sin(((i - 300) / 60) * Math.PI) : 0;
    const jump = i === 500 ? 120 : 0;
    const down = i > 700 ? 22 + 188 * Math.exp(-(i - 700) / 170) : up - drop - jump;
    return `T:${down.toFixed(1)} /${i > 700 ? '0.0' : '210.0'}`;
  });
  const chooser = page.waitForEvent('filechooser');
  await button(page, 'From a temperature log …').click();
  await (await chooser).setFiles({ name: 'heat.log', mimeType: 'text/plain', buffer: Buffer.from(lines.join('\n')) });
  await expect(page.getByText(/^It drops below its target once, by up to 14 °C/)).toBeVisible();
  await expect(page.getByText(/^2 jumps that no heater makes/)).toBeVisible();
  await expect(
    page.getByRole('img', { name: /^Chart: temperature over 15 min, highest 210 °C, 2 jumps, 1 drop/ }),
  ).toBeVisible();
  if (SHOTS) await page.screenshot({ path: `${SHOTS}/log.png` });
});

test('the meter’s check leads to what it should read, by the machine’s own heater, and back', async ({ page }) => {
  const id = randomUUID();
  const body = { number: 'meter', machineId: 'dunlin', symptoms: ['heat-error'], before: [], material: 'PLA' };
  const event = { id: randomUUID(), at: new Date().toISOString(), by: 'bench 1', type: 'taken-in', body };
  expect((await page.request.post(`${server.url}/api/orders/${id}/events`, { data: event })).status()).toBe(201);
  await page.goto(`${server.url}/order/${id}/trace`);
  await button(page, /^Other\. /).click();
  await page
    .getByRole('button', { name: /^Resistance of the / })
    .first()
    .click();
  await button(page, 'What the meter should read').click();
  // Dunlin's heater: 24 V, 48 W.
  await expect(page.getByTestId('heater')).toHaveText(/^Should read 12\.0 Ω cold/);
  await page.getByRole('textbox', { name: 'The meter reads, Ω' }).fill('530.8');
  await expect(page.getByTestId('shows')).toHaveText('531 Ω stands for 220.0 °C.');
  for (const [i, [c, ohm]] of [
    [25, 10000],
    [0, 32650],
    [50, 3602],
  ].entries()) {
    await page.getByRole('textbox', { name: `Point ${i + 1}, °C` }).fill(String(c));
    await page.getByRole('textbox', { name: `Point ${i + 1}, Ω` }).fill(String(ohm));
  }
  await expect(page.getByTestId('shows')).toHaveText(/by its own table\.$/);
  await page.getByRole('textbox', { name: 'Point 2, Ω' }).fill('10000');
  await expect(page.getByText('Three different resistances are needed.')).toBeVisible();
  await page.getByRole('link', { name: 'Back' }).click();
  await expect(page).toHaveURL(new RegExp(`/order/${id}/trace`));
});

test('a tool’s figures stand in its address: a reload keeps them, and whoever is sent it sees the same', async ({
  page,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await page.goto(`${server.url}/tools/forces`);
  await expect(page.getByTestId('weakest')).toHaveText(/^It holds at 6\.0 mm³\/s/);
  await page.getByRole('textbox', { name: /^Flow/ }).fill('7,5');
  await page.getByRole('textbox', { name: /^The gears hold/ }).fill('3');
  await page
    .getByRole('textbox', { name: /^After / })
    .first()
    .fill('0.8');
  const told = page.getByTestId('weakest');
  await expect(told).toHaveText(/^Too much at 7\.5 mm³\/s/);
  const words = await told.textContent();
  await page.reload();
  await expect(told).toHaveText(words ?? '');
  await button(page, 'Send these figures to somebody').click();
  await expect(page.getByText(/address of this page is copied/)).toBeVisible();
  const address = await page.evaluate(() => navigator.clipboard.readText());
  const other = await context.newPage();
  await other.goto(address);
  await expect(other.getByTestId('weakest')).toHaveText(words ?? '');
  await expect(other.getByText(/^Up to .*Sound\.$/)).toBeVisible();
});
