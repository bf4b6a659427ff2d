import { expect, test, type Locator, type Page } from '@playwright/test';
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { Client } from 'pg';
import type { Machine } from '@zealous/core';
import { answerCheck, button, type Pretended } from './bench';
import { testServer, type TestServer } from './server';

const dunlin = JSON.parse(readFileSync('demo/machines/dunlin.json', 'utf8')) as Machine;
const stubInHub: Pretended = { machine: dunlin, lane: 'lane-a', station: 'hub', intoMm: 9 };

let server: TestServer;
test.beforeAll(async () => {
  server = await testServer('lost');
});
test.afterAll(() => server.stop());

interface Stored {
  readonly seq: number;
  readonly event: { readonly id: string; readonly type: string };
}
const stored = async (order: string): Promise<readonly Stored[]> =>
  (await (await fetch(`${server.url}/api/orders/${order}/events`)).json()) as readonly Stored[];
const send = (order: string, type: string, body: object) =>
  fetch(`${server.url}/api/orders/${order}/events`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ id: randomUUID(), at: new Date().toISOString(), by: 'bench 2', type, body }),
  });

async function newOrder(): Promise<string> {
  const id = randomUUID();
  const answer = await send(id, 'taken-in', {
    number: `t-${id.slice(0, 4)}`,
    machineId: 'dunlin',
    lane: 'lane-a',
    symptoms: ['not-reach'],
    onset: 'loading',
    before: [],
  });
  expect(answer.status).toBe(201);
  return id;
}
const trace = (page: Page, id: string) => page.goto(`${server.url}/order/${id}/trace`);
/** Rows of the device's own database, and what is only written down yet. */
const unsent = (page: Page): Promise<number> =>
  page.evaluate(async () => {
    const open = indexedDB.open('zt-outbox');
    await new Promise((resolve) => (open.onsuccess = resolve));
    const db = open.result;
    if (!db.objectStoreNames.contains('entries')) return 0;
    const rows = db.transaction('entries').objectStore('entries').getAll();
    await new Promise((resolve) => (rows.onsuccess = resolve));
    db.close();
    const kept = (rows.result as { event: { id: string } }[]).map(({ event }) => event.id);
    const jotted = Object.keys(localStorage).flatMap((key) => /^zt:journal:(.*)$/.exec(key)?.[1] ?? []);
    return new Set([...kept, ...jotted]).size;
  });

test('the server is killed in the middle: what was acknowledged is there, what was not goes out when it is back', async ({
  page,
}) => {
  const id = await newOrder();
  await trace(page, id);
  await answerCheck(page, stubInHub);
  await expect.poll(() => unsent(page)).toBe(0);
  const acknowledged = await stored(id);

  await server.kill();
  const first = await page.getByTestId('check-name').textContent();
  await button(page, 'Not sure').click();
  await expect(page.getByTestId('check-name')).not.toHaveText(first ?? '');
  await expect(page.getByText(/(is|are) kept on this phone/)).toBeVisible();
  await button(page, 'Could not do it').click();
  await button(page, 'No tool for it').click();
  await expect.poll(() => unsent(page)).toBeGreaterThanOrEqual(2);
  const waiting = await unsent(page);

  await server.start();
  expect((await stored(id)).slice(0, acknowledged.length)).toEqual(acknowledged);
  await expect.poll(async () => (await stored(id)).length, { timeout: 30_000 }).toBe(acknowledged.length + waiting);
  expect((await stored(id)).at(-1)?.event.type).toBe('check-not-done');
  await expect.poll(() => unsent(page)).toBe(0);
  await expect(page.getByText(/kept on this phone/)).toBeHidden();
});

test('unsent entries outlive a reload, and a machine taken in without the server is taken in', async ({
  page,
  context,
}) => {
  await page.goto(`${server.url}/take-in`);
  await page.getByRole('radio', { name: /Whelk/ }).click();
  await expect(page.getByTestId('first-suspicion')).toBeVisible();
  // Only the server is gone; the page itself still loads.
  await context.route('**/api/**', (route) => route.abort());
  await button(page, 'Take in and trace').click();
  await expect(page.getByTestId('check-name')).toBeVisible();
  await button(page, 'Not sure').click();
  await expect.poll(() => unsent(page)).toBe(2);
  const url = page.url();
  await page.reload();
  await expect(page.getByTestId('check-name')).toBeVisible();
  expect(await unsent(page)).toBe(2);
  await context.unroute('**/api/**');
  const id = /order\/([^/]+)/.exec(url)?.[1] ?? '';
  await expect.poll(async () => (await stored(id)).length, { timeout: 30_000 }).toBe(2);
});

test('an answer that was lost on the way is sent again and stored once', async ({ page, context }) => {
  const id = await newOrder();
  await trace(page, id);
  await expect(page.getByTestId('check-name')).toBeVisible();
  let lost = 0;
  // The server stores the entry, but its answer never comes back.
  await context.route('**/api/orders/*/events', async (route) => {
    if (route.request().method() !== 'POST' || lost > 0) return route.continue();
    lost++;
    await route.fetch();
    return route.abort();
  });
  await button(page, 'Not sure').click();
  await expect.poll(() => unsent(page), { timeout: 30_000 }).toBe(0);
  expect(lost).toBe(1);
  expect((await stored(id)).map((item) => item.event.type)).toEqual(['taken-in', 'finding-recorded']);
});

test('two phones on one order see each other’s findings', async ({ page, browser }) => {
  const id = await newOrder();
  const other = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage();
  await trace(page, id);
  await trace(other, id);
  const asked = (await page.getByTestId('check-name').textContent()) ?? '';
  await expect(other.getByTestId('check-name')).toHaveText(asked);
  await answerCheck(page, stubInHub);
  await expect(other.getByTestId('check-name')).not.toHaveText(asked);
  await expect(other.getByTestId('change')).toContainText(/rises from|falls from/);
  const second = (await other.getByTestId('check-name').textContent()) ?? '';
  await button(other, 'Not sure').click();
  await expect(page.getByTestId('check-name')).not.toHaveText(second);
  await other.close();
});

test('an entry that the order no longer takes is shown with what to do', async ({ page, context }) => {
  const id = await newOrder();
  await trace(page, id);
  await expect(page.getByTestId('check-name')).toBeVisible();
  // This phone hears nothing while the other closes the order.
  await context.route('**/api/orders/*/events?*', (route) => route.abort());
  expect((await send(id, 'closed', { outcome: 'given-back' })).status).toBe(201);
  await button(page, 'Not sure').click();
  const alert = page.getByRole('alert');
  await expect(alert).toContainText('The order is closed; only notes and pictures can be added. Remove this entry');
  await button(page, 'Remove entry').click();
  await expect(alert).toBeHidden();
  await context.unroute('**/api/orders/*/events?*');
  await expect(page.getByText('The order is closed.', { exact: false })).toBeVisible();
});

test('a step that does not fit the recorded heat is held; past it only under one’s own name', async ({ page }) => {
  const id = await newOrder();
  await send(id, 'bench-changed', { targetC: 0, readingC: 190, power: 'on' });
  await send(id, 'cause-chosen', { station: 'cutter', mode: 'cutter-blunt', advised: false });
  await page.goto(`${server.url}/order/${id}/plan`);
  await expect(page.getByTestId('heat')).toContainText('below 100 °C in');
  const doneUntil = async (seen: Locator): Promise<void> => {
    for (let i = 0; i < 10; i++) {
      const now = page.getByRole('group', { name: /^Step .*, now$/ });
      const next = now.getByRole('button', {
        name: /^(Done|It came out whole|Loaded, down into the head|All \d+ out|It is out)/,
      });
      await expect(seen.or(next).first()).toBeVisible();
      if (await seen.isVisible()) return;
      const step = (await now.getAttribute('aria-label')) ?? '';
      await next.first().click();
      await expect(now).not.toHaveAttribute('aria-label', step);
    }
  };
  const reads = button(page, /^It reads below 48/);
  await doneUntil(reads);
  const readings = async (): Promise<number> =>
    (await stored(id)).filter(({ event }) => event.type === 'bench-changed').length;
  const noted = await readings();
  await reads.click();
  await expect(button(page, 'Done')).toBeVisible();
  // The reading has to be at the server before what comes after it.
  await expect.poll(readings).toBeGreaterThan(noted);
  // It is heated up again before the switch is reached: the plan cools it again, and the switch out of turn is held.
  await send(id, 'bench-changed', { targetC: 0, readingC: 160, power: 'on' });
  await expect(page.getByRole('group', { name: /^Step .*Cool .*, now$/ })).toBeVisible();
  await button(page, 'Out of turn, now: Switch off and unplug').click();
  await expect(page.getByText(/^Waits: it must cool below 100 °C before it is switched off/)).toBeVisible();
  await button(page, 'Do it all the same …').click();
  await button(page, 'Done all the same').click();
  await page.goto(`${server.url}/order/${id}/record`);
  await expect(page.getByText(/off: must cool below 100 °C .*\(bench 1\)/)).toBeVisible();
});

test('two windows without a server: neither loses what the other recorded, and one of them sends it all', async ({
  page,
  context,
}) => {
  const [one, two] = [await newOrder(), await newOrder()];
  const other = await context.newPage();
  await trace(page, one);
  await trace(other, two);
  await expect(page.getByTestId('check-name')).toBeVisible();
  await expect(other.getByTestId('check-name')).toBeVisible();
  await context.route('**/api/**', (route) => route.abort());
  const notSure = async (window: Page): Promise<void> => {
    const name = window.getByTestId('check-name');
    const before = (await name.textContent()) ?? '';
    await button(window, 'Not sure').click();
    await expect(name).not.toHaveText(before);
  };
  await notSure(page);
  await notSure(other);
  await notSure(page);
  // Three answers, and what they opened on the way.
  await expect.poll(() => unsent(page)).toBeGreaterThanOrEqual(3);
  const waiting = await unsent(page);
  expect(await unsent(other)).toBe(waiting);
  // Both are loaded anew, one is closed: the other sends what both had.
  // The new bar before the old one goes, so that no entry slips out between them.
  await context.route('**/api/orders/*/events', (route) =>
    route.request().method() === 'POST' ? route.abort() : route.continue(),
  );
  await context.unroute('**/api/**');
  await page.reload();
  await expect(page.getByTestId('check-name')).toBeVisible();
  expect(await unsent(page)).toBe(waiting);
  await other.close();
  await context.unroute('**/api/orders/*/events');
  await expect.poll(() => unsent(page), { timeout: 30_000 }).toBe(0);
  expect((await stored(one)).length + (await stored(two)).length).toBe(2 + waiting);
  expect((await stored(two)).length).toBeGreaterThanOrEqual(2);
});

test('one entry that the server stumbles over does not hold the others: it is told, and can be saved, mended or removed', async ({
  page,
  context,
}) => {
  const [bad, good] = [await newOrder(), await newOrder()];
  await context.route(`**/api/orders/${bad}/events`, (route) =>
    route.request().method() === 'POST'
      ? route.fulfill({
          status: 500,
          contentType: 'application/problem+json',
          body: '{"title":"Fault","detail":"Stumbled."}',
        })
      : route.continue(),
  );
  await trace(page, bad);
  await button(page, 'Not sure').click();
  await expect.poll(() => unsent(page)).toBe(1);
  await trace(page, good);
  await button(page, 'Not sure').click();
  await expect.poll(async () => (await stored(good)).length, { timeout: 30_000 }).toBe(2);
  // The server has it before the page has heard so.
  await expect.poll(() => unsent(page)).toBe(1);
  await trace(page, bad);
  const alert = page.getByRole('alert');
  await expect(alert).toContainText('The entry is kept and tried again; other orders go on.', { timeout: 60_000 });
  const saved = page.waitForEvent('download');
  await button(page, 'Save it').click();
  expect((await saved).suggestedFilename()).toMatch(/^entry-.*\.json$/);
  await button(page, 'Remove entry').click();
  await expect.poll(() => unsent(page)).toBe(0);
});

test('after an older backup was restored, what the server lost is sent again and told', async ({ page }) => {
  const id = await newOrder();
  await trace(page, id);
  const name = page.getByTestId('check-name');
  const before = (await name.textContent()) ?? '';
  await button(page, 'Not sure').click();
  await expect(name).not.toHaveText(before);
  await expect.poll(async () => (await stored(id)).length).toBe(2);
  // As a backup from before the finding would leave it.
  const client = new Client({ connectionString: server.database });
  await client.connect();
  await client.query('alter table order_event disable trigger user');
  await client.query('delete from order_event where order_id = $1 and seq = 2', [id]);
  await client.query('alter table order_event enable trigger user');
  await client.query('update work_order set seq = 1 where id = $1', [id]);
  await client.end();
  await server.kill();
  await server.start();
  await expect(page.getByText('The server had lost an entry of this order', { exact: false })).toBeVisible({
    timeout: 30_000,
  });
  await expect.poll(async () => (await stored(id)).length, { timeout: 30_000 }).toBe(2);
});

test('a list row of another version, and one that cannot be worked out, leave the bench standing', async ({ page }) => {
  const [old, broken] = [await newOrder(), await newOrder()];
  const client = new Client({ connectionString: server.database });
  await client.connect();
  // Until nothing is being worked out any more.
  const behind = async (): Promise<number> =>
    Number((await client.query('select count(*) as n from work_order where index_seq < seq')).rows[0]?.n);
  await expect.poll(behind).toBe(0);
  await client.query(`update work_order set "index" = '{"was":"another shape"}', index_version = 0 where id = $1`, [
    old,
  ]);
  // A machine of which nothing can be read any more.
  await client.query(
    `update work_order set "index" = '{}', index_version = 0, machine = jsonb_set(machine, '{runs}', '[]') where id = $1`,
    [broken],
  );
  await client.end();
  await page.goto(server.url);
  // The old one is worked out anew; the broken one stays, and says so.
  await expect(page.getByText('Its summary cannot be shown now: open it')).toHaveCount(1);
  await expect(page.getByText('Dunlin', { exact: false }).first()).toBeVisible();
  await page.goto(`${server.url}/order/${broken}/trace`);
  await expect(
    page.getByText('This screen could not be drawn').or(page.getByText('could not work this out')),
  ).toBeVisible();
  await page.getByRole('link', { name: 'Back' }).click();
  await expect(button(page, 'Take in a machine')).toBeVisible();
});

test('with the server stopped and the page loaded anew, the bench, a known order and its record are there, and work goes on', async ({
  browser,
}) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, serviceWorkers: 'allow' });
  const page = await context.newPage();
  const id = await newOrder();
  await page.goto(server.url);
  await page.evaluate(async () => void (await navigator.serviceWorker.ready));
  // Once more, so that what is read comes through the worker.
  await page.goto(server.url);
  await expect(page.getByText('Dunlin', { exact: false }).first()).toBeVisible();
  await trace(page, id);
  await expect(page.getByTestId('check-name')).toBeVisible();
  await page.goto(`${server.url}/order/${id}/record`);
  await expect(page.getByText('Taken in').first()).toBeVisible();
  await server.kill();
  await page.reload();
  await expect(page.getByText('Taken in').first()).toBeVisible();
  await page.goto(server.url);
  await expect(page.getByText('Dunlin', { exact: false }).first()).toBeVisible();
  await trace(page, id);
  await button(page, 'Not sure').click();
  await expect.poll(() => unsent(page)).toBe(1);
  await server.start();
  await expect.poll(async () => (await stored(id)).length, { timeout: 40_000 }).toBe(2);
  await context.close();
});
