import { randomUUID } from 'node:crypto';
import { expect, test, type Page } from '@playwright/test';
import { button } from './bench';
import { testServer, type TestServer } from './server';

const SHOTS = process.env['ZT_SHOTS'];
let server: TestServer;
test.beforeAll(async () => {
  server = await testServer('print');
});
test.afterAll(() => server.stop());

/** A tower of 60 layers; between 8 and 8.6 mm it is laid much faster, at 4 mm one spot is drawn back over and over. */
function tower(): string {
  const lines = ['G21', 'G90', 'M83', 'M104 S210', 'G28'];
  for (let i = 1; i <= 60; i++) {
    lines.push(`G1 Z${(i * 0.2).toFixed(2)} F600`);
    for (let ring = 0; ring < 6; ring++)
      for (let k = 0; k <= 24; k++) {
        const r = 30 - ring * 3 - (i % 10) * 0.3;
        const [x, y] = [100 + r * Math.cos((k / 12) * Math.PI), 100 + r * Math.sin((k / 12) * Math.PI)];
        const fast = i >= 40 && i <= 43;
        lines.push(
          `G1 X${x.toFixed(3)} Y${y.toFixed(3)} ${k ? `E${(r * 0.011).toFixed(4)} ` : ''}F${fast ? 9000 : 2400}`,
        );
        if (i === 20 && ring === 2 && k === 12)
          for (let dot = 0; dot < 18; dot++)
            lines.push('G1 E-0.8 F2100', 'G1 E0.8', `G1 X${(90 + dot / 2).toFixed(1)} Y100 E0.005 F2400`);
      }
    lines.push('G1 E-0.8 F2100', 'G0 X100 Y100 F9000', 'G1 E0.8 F2100');
  }
  return lines.join('\n');
}
/** An order of a print that stopped at a height. */
async function takenIn(page: Page): Promise<string> {
  const id = randomUUID();
  const body = {
    number: 'print',
    machineId: 'dunlin',
    symptoms: ['thin', 'clicks'],
    before: ['settings-changed'],
    onset: 'height',
  };
  const event = { id: randomUUID(), at: new Date().toISOString(), by: 'bench 1', type: 'taken-in', body };
  const answer = await page.request.post(`${server.url}/api/orders/${id}/events`, { data: event });
  expect(answer.status()).toBe(201);
  return id;
}
async function choose(page: Page, name: string, text: string, how = 'Choose the print file'): Promise<void> {
  const chooser = page.waitForEvent('filechooser');
  await button(page, how).click();
  await (await chooser).setFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });
}
const shot = async (page: Page, name: string): Promise<void> => {
  if (SHOTS) await page.screenshot({ path: `${SHOTS}/${name}.png`, fullPage: true });
};

test('a failed print is read where the check asks for it, and its finding with the number stands in the order', async ({
  page,
}) => {
  const order = await takenIn(page);
  await page.goto(`${server.url}/order/${order}/trace`);
  await button(page, /^(Other\. |Choose a check)/).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Read the failed print and its file' }).click();
  await button(page, 'Read it from the print file').click();
  await expect(page).toHaveURL(/tools\/print/);
  await choose(page, 'tower.gcode', tower());
  await expect(page.getByText(/^tower\.gcode: 60 layers to 12\.0 mm/)).toBeVisible();
  await page.getByLabel('Stopped at height, mm').fill('8.4');
  await expect(page.getByTestId('print-verdict')).toHaveText('Nothing unusual was asked there');
  await page.getByLabel('This hot end melts, mm³/s').fill('6');
  await expect(page.getByTestId('print-verdict')).toHaveText('More flow than this hot end melts');
  await expect(page.getByRole('img', { name: /^Layer 42, 8\.40 mm, from above: \d+ lines/ })).toBeVisible();
  await shot(page, 'print');
  await button(page, 'Write it into the order').click();
  await expect(page).toHaveURL(new RegExp(`${order}/trace`));
  // The height is known now: past it the job must run before it is proved.
  const known = (): Promise<string> =>
    page.request.get(`${server.url}/api/orders/${order}/events`).then((answer) => answer.text());
  await expect.poll(known).toMatch(/"intake-corrected".*"failedAtMm":8\.4/);
  const record = () => page.request.get(`${server.url}/api/orders/${order}/record.md`).then((answer) => answer.text());
  await expect.poll(record).toMatch(/more flow than it melts,? \d+(\.\d)? mm³\/s/i);
});

test('without an order: by minutes, the ground piece; a file without strand and one given up say so', async ({
  page,
}) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(`${server.url}/tools`);
  await button(page, /^Is this too fast for the hot end/).click();
  await choose(page, 'empty.gcode', 'G28\nG0 X10\n');
  await expect(page.getByText(/has no line with strand on it/)).toBeVisible();
  await choose(page, 'tower.gcode', tower());
  await page.getByLabel('Stopped at height, mm').fill('4');
  await expect(page.getByTestId('print-verdict')).toHaveText('Dense retractions: one piece of strand was ground');
  await shot(page, 'print-wide');
  await page.getByRole('radio', { name: 'Minutes' }).click();
  await page.getByLabel('Stopped after, min').fill('1');
  await expect(page.getByTestId('print-verdict')).toHaveText('Nothing unusual was asked there');
  await expect(page.getByRole('button', { name: 'Write it into the order' })).toBeHidden();
});

test('is it safe to switch off: told by fan and filament, played over the hour, another hot end and a measured sink change it', async ({
  page,
}) => {
  await page.goto(`${server.url}/tools`);
  await button(page, /^Is it safe to switch off/).click();
  const dead = page.getByTestId('heat-dead');
  await expect(dead).toHaveText(/softens after \d+ (s|min), up to \d+ mm above the break/);
  await expect(page.getByTestId('heat-full')).toHaveText(/does not soften/);
  await button(page, 'Play the hour').click();
  await expect(button(page, 'Hold')).toBeVisible();
  await button(page, 'At its warmest').click();
  await shot(page, 'heat');
  const before = await dead.textContent();
  await page.getByRole('radio', { name: 'One piece with its nozzle' }).click();
  await expect(dead).not.toHaveText(before ?? '');
  await page.getByRole('radio', { name: /^PC/ }).click();
  await expect(dead).toHaveText(/does not soften|but not surely/);
  const typical = (await dead.textContent()) ?? '';
  const sink = page.getByLabel('Sink while it prints, °C, if measured');
  await sink.fill('30');
  await expect(dead).not.toHaveText(typical);
  await sink.fill('22.05');
  await expect(page.getByText(/^A sink at 22\.05 °C does not fit/)).toBeVisible();
});
