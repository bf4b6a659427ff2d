/**
 * `npm run bench:load`, with the demo running: bytes of the first load as sent, size of the worker, and the time of one
 * assessment for each machine in the browser's worker, as measured and times four (a slow-down of the page does not
 * reach its workers, so the factor is computed, not simulated).
 */
import { chromium, type Browser } from '@playwright/test';
import { randomUUID } from 'node:crypto';

const url = process.env['ZT_URL'] ?? 'http://127.0.0.1:4720';
const SLOW_DOWN = 4;
const ANSWERS = 5;

interface Sent {
  readonly type: string;
  readonly url: string;
  readonly bytes: number;
}

async function firstLoad(browser: Browser, path: string): Promise<readonly Sent[]> {
  const page = await (await browser.newContext()).newPage();
  const session = await page.context().newCDPSession(page);
  await session.send('Network.enable');
  const known = new Map<string, { url: string; type: string }>();
  const sent: Sent[] = [];
  session.on('Network.responseReceived', (event) =>
    known.set(event.requestId, { url: event.response.url, type: event.type }),
  );
  session.on('Network.loadingFinished', (event) => {
    const item = known.get(event.requestId);
    if (item) sent.push({ ...item, bytes: event.encodedDataLength });
  });
  await page.goto(url + path, { waitUntil: 'load' });
  await page.waitForTimeout(3000);
  await page.close();
  return sent;
}

/** One call of the worker: its name and how long it took, ms. */
interface Took {
  readonly call: string;
  readonly ms: number;
}

/** Takes the machine in, opens its order and answers a few checks; the time from question to answer of the worker, ms. */
async function assessments(browser: Browser, machineId: string): Promise<readonly Took[]> {
  const id = randomUUID();
  const body = { number: 'bench-load', machineId, symptoms: ['nothing', 'clicks'], before: [], material: 'PLA' };
  await fetch(`${url}/api/orders/${id}/events`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ id: randomUUID(), at: new Date().toISOString(), by: 'bench', type: 'taken-in', body }),
  });
  const page = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await page.addInitScript(() => {
    const Plain = window.Worker;
    const took: { call: string; ms: number }[] = [];
    Object.assign(window, { took });
    window.Worker = class extends Plain {
      constructor(...args: ConstructorParameters<typeof Worker>) {
        super(...args);
        const asked = new Map<string, { call: string; at: number }>();
        const post = this.postMessage.bind(this);
        this.postMessage = (message: { id?: string; path?: string[] }, transfer: unknown) => {
          if (message.id) asked.set(message.id, { call: message.path?.[0] ?? '', at: performance.now() });
          post(message, transfer as Transferable[]);
        };
        this.addEventListener('message', (event: MessageEvent<{ id?: string }>) => {
          const began = asked.get(event.data.id ?? '');
          if (began) took.push({ call: began.call, ms: performance.now() - began.at });
        });
      }
    };
  });
  await page.goto(`${url}/order/${id}/trace`);
  for (let i = 0; i < ANSWERS; i++) {
    await page.getByTestId('check-name').waitFor({ timeout: 15_000 });
    await page.getByRole('button', { name: 'Not sure', exact: true }).click();
    await page.waitForTimeout(1500);
  }
  const took = await page.evaluate(() => (window as unknown as { took: Took[] }).took);
  await page.close();
  await fetch(`${url}/api/orders/${id}/events`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({
      id: randomUUID(),
      at: new Date().toISOString(),
      by: 'bench',
      type: 'closed',
      body: { outcome: 'given-back' },
    }),
  });
  return took;
}

const median = (list: readonly number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0;

async function main(): Promise<void> {
  const browser = await chromium.launch({
    executablePath: process.env['ZT_CHROMIUM'] ?? '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-dev-shm-usage',
      '--disable-gpu',
      '--disable-background-networking',
      '--no-first-run',
    ],
  });
  const sent = await firstLoad(browser, '/');
  const by = new Map<string, number>();
  for (const item of sent) by.set(item.type, (by.get(item.type) ?? 0) + item.bytes);
  const total = sent.reduce((sum, item) => sum + item.bytes, 0);
  console.log('First load of the bench, as sent');
  console.table(
    [...by, ['all', total] as const].map(([what, bytes]) => ({ what, kB: Math.round(Number(bytes) / 1000) })),
  );

  const rows = [];
  for (const { id } of (await (await fetch(`${url}/api/machines`)).json()) as { id: string }[]) {
    const took = await assessments(browser, id);
    const of = (call: string): readonly number[] => took.filter((item) => item.call === call).map((item) => item.ms);
    const [first = 0, ...rest] = of('assess');
    const next = median(rest);
    const deeper = median(of('assessDeeper'));
    rows.push({
      machine: id,
      'very first, ms': Math.round(first),
      'first answer, ms': Math.round(next),
      'two ahead, ms': Math.round(deeper),
      'very first × 4': Math.round(first * SLOW_DOWN),
      'first answer × 4': Math.round(next * SLOW_DOWN),
      'two ahead × 4': Math.round(deeper * SLOW_DOWN),
    });
  }
  console.log('One assessment in the worker, question to answer');
  console.table(rows);
  await browser.close();
}

void main();
