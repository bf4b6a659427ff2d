/**
 * `npm run bench:load`, with the demo running: bytes of the first load as sent, size of the worker, and the time of one
 * assessment for each machine in the browser at 4× CPU slow-down (on the page's own thread, where the slow-down holds).
 */
import { chromium, type Page } from '@playwright/test';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';

const url = process.env['ZT_URL'] ?? 'http://127.0.0.1:4720';
const scripts = join(__dirname, '../apps/client/dist/_expo/static/js/web');

interface Sent {
  readonly type: string;
  readonly url: string;
  readonly bytes: number;
}

async function firstLoad(page: Page, path: string): Promise<readonly Sent[]> {
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
  await page.goto(url + path, { waitUntil: 'networkidle' });
  return sent;
}

/** Loads the worker's script on the page's own thread and talks to it by its message protocol. */
async function timeAssessments(page: Page, worker: string, machine: object, times: number): Promise<readonly number[]> {
  await page.goto(`${url}/api/health`);
  const session = await page.context().newCDPSession(page);
  await session.send('Emulation.setCPUThrottlingRate', { rate: 4 });
  return page.evaluate(
    async ({ worker, machine, times }) => {
      let receive: ((event: { data: unknown; origin: string }) => void) | undefined;
      let answered: (() => void) | undefined;
      window.addEventListener = ((type: string, handler: never) => {
        if (type === 'message') receive = handler;
      }) as typeof window.addEventListener;
      window.postMessage = (() => answered?.()) as typeof window.postMessage;
      await new Promise((resolve, reject) => {
        const script = Object.assign(document.createElement('script'), {
          src: worker,
          onload: resolve,
          onerror: reject,
        });
        document.head.append(script);
      });
      const id = (machine as { id: string }).id;
      const heat = (machine as { heat: { ambientC: number } }).heat;
      const took: number[] = [];
      for (let i = 0; i < times; i++) {
        const intake = {
          number: 'x',
          machineId: id,
          symptoms: ['nothing', 'clicks'],
          before: [],
          material: 'PLA',
          weeksLoaded: i,
        };
        const state = {
          intake,
          findings: [],
          notDone: [],
          heat: { temperatureC: heat.ambientC, atMs: 0, targetC: 0 },
          power: 'off',
          off: [],
          steps: {},
          tries: [],
          failures: [],
          timers: [],
          parts: [],
          proofs: {},
          notes: [],
          lastMs: 0,
        };
        const bench = { temperatureC: heat.ambientC, power: 'off', off: new Set() };
        const began = performance.now();
        await new Promise<void>((resolve) => {
          answered = resolve;
          const argumentList = [machine, state, bench].map((value) => ({ type: 'RAW', value }));
          receive?.({
            origin: location.origin,
            data: { id: String(i), type: 'APPLY', path: ['assess'], argumentList },
          });
        });
        took.push(performance.now() - began);
        // The same question again: everything but the findings is kept.
        const again = performance.now();
        await new Promise<void>((resolve) => {
          answered = resolve;
          const argumentList = [machine, state, bench].map((value) => ({ type: 'RAW', value }));
          receive?.({ origin: location.origin, data: { id: `${i}b`, type: 'APPLY', path: ['assess'], argumentList } });
        });
        took.push(performance.now() - again);
      }
      return took;
    },
    { worker, machine, times },
  );
}

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
  const page = await browser.newPage();
  const sent = await firstLoad(page, '/');
  const by = new Map<string, number>();
  for (const item of sent) by.set(item.type, (by.get(item.type) ?? 0) + item.bytes);
  console.log('First load of the bench, as sent');
  console.table(
    [...by, ['all', sent.reduce((sum, item) => sum + item.bytes, 0)] as const].map(([what, bytes]) => ({
      what,
      kB: Math.round(Number(bytes) / 1000),
    })),
  );

  const orders = (await (await fetch(`${url}/api/orders`)).json()) as { items: { id: string }[] };
  const trace = await firstLoad(await (await browser.newContext()).newPage(), `/order/${orders.items[0]?.id}/trace`);
  const files = readdirSync(scripts).filter((name) => name.startsWith('trace-'));
  // Two scripts carry this name: the screen, and the worker that it starts.
  const worker = trace
    .filter((item) => files.some((name) => item.url.endsWith(name)))
    .sort((a, b) => b.bytes - a.bytes)[0];
  console.log(`Worker as sent: ${Math.round((worker?.bytes ?? 0) / 1000)} kB`);

  const rows = [];
  for (const { id } of (await (await fetch(`${url}/api/machines`)).json()) as { id: string }[]) {
    const machine = (await (await fetch(`${url}/api/machines/${id}`)).json()) as object;
    const took = await timeAssessments(await (await browser.newContext()).newPage(), worker?.url ?? '', machine, 6);
    const median = (list: readonly number[]): number =>
      [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0;
    rows.push({
      machine: id,
      'very first, ms': Math.round(took[0] ?? 0),
      'new order, ms': Math.round(median(took.filter((_, i) => i % 2 === 0 && i > 0))),
      'next finding, ms': Math.round(median(took.filter((_, i) => i % 2 === 1))),
    });
  }
  console.log('One assessment in the browser at 4× CPU slow-down');
  console.table(rows);
  await browser.close();
}

void main();
