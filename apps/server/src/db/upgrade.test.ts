import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { Client } from 'pg';
import request from 'supertest';
import { createApp } from '../http/app';
import { message } from '../http/testServer';
import { Derived } from '../orders';
import { closePool } from '../work/pool';
import { dataSource } from './dataSource';

/**
 * Databases as earlier versions of this program left them: each was made by running that version from the history of the
 * repository, with the demo's data and an order of its own ("old-1": a finding, a chosen cause, a note).
 */
const RELEASED = join(__dirname, 'released');
const dumps = readdirSync(RELEASED).filter((name) => name.endsWith('.sql.gz'));

/** A plain dump: statements, and rows of `copy … from stdin` up to the line that ends them. */
async function load(client: Client, dump: string): Promise<void> {
  const parts = dump.split(/^(COPY .* FROM stdin;)\n([\s\S]*?)^\\\.\n/m);
  for (let i = 0; i < parts.length; i += 3) {
    const [statements = '', copy, rows = ''] = parts.slice(i, i + 3);
    if (statements.trim()) await client.query(statements);
    const [, table = '', columns = ''] = /^COPY (\S+) \((.*)\) FROM/.exec(copy ?? '') ?? [];
    for (const line of rows.split('\n').filter(Boolean)) {
      const values = line
        .split('\t')
        .map((value) =>
          value === '\\N'
            ? null
            : value.replace(/\\(.)/g, (_whole, mark: string) => ({ n: '\n', t: '\t', r: '\r' })[mark] ?? mark),
        );
      await client.query(
        `insert into ${table} (${columns}) overriding system value values (${values.map((_value, k) => `$${k + 1}`).join(', ')})`,
        values,
      );
    }
  }
}

test('there is one of every released format', () => {
  expect(dumps.length).toBeGreaterThanOrEqual(3);
});

test.each(dumps)('%s: opens, is brought to the present, and every order can be read and worked on', async (name) => {
  const base = process.env['ZT_TEST_DATABASE_URL'];
  if (!base) throw new Error('ZT_TEST_DATABASE_URL is not set; run the tests with "npm test".');
  const database = `server_upgrade_${name.replace(/\W/g, '_').toLowerCase()}`;
  const admin = new Client({ connectionString: base });
  await admin.connect();
  await admin.query(`drop database if exists ${database} with (force)`);
  await admin.query(`create database ${database}`);
  await admin.end();
  const url = new URL(base);
  url.pathname = `/${database}`;
  const client = new Client({ connectionString: url.toString() });
  await client.connect();
  await load(client, gunzipSync(readFileSync(join(RELEASED, name))).toString('utf8'));
  const before = await client.query(
    'select id, order_id, seq, type, by, body from public.order_event order by order_id, seq',
  );
  await client.end();
  expect(before.rows.length).toBeGreaterThan(20);

  const db = await dataSource(url.toString()).initialize();
  const derived = new Derived(db);
  try {
    await db.runMigrations();
    const after = await db.query('select id, order_id, seq, type, by, body from order_event order by order_id, seq');
    expect(after).toEqual(before.rows);
    const app = createApp(db, derived, { logLevel: 'silent' });
    for (const id of await derived.stale(1000)) await derived.refresh(id);
    expect(await derived.stale(10)).toEqual([]);
    const lists = await Promise.all(
      ['open', 'closed'].map((status) => request(app).get(`/api/orders?status=${status}`).expect(200)),
    );
    const orders = lists.flatMap(({ body }) => body.items as { id: string; number: string; next: string }[]);
    expect(orders.length).toBe(new Set(before.rows.map((row: { order_id: string }) => row.order_id)).size);
    for (const { id, next } of orders) {
      expect(next).not.toMatch(/cannot be shown/);
      await request(app).get(`/api/orders/${id}/record.json`).expect(200);
      await request(app).get(`/api/orders/${id}/record.pdf`).expect(200);
    }
    const own = orders.find(({ number }) => number === 'old-1')?.id ?? '';
    const record = await request(app).get(`/api/orders/${own}/record.json`).expect(200);
    expect(record.body).toMatchObject({
      notes: [expect.stringContaining('from an older version')],
      cause: { place: 'Hub' },
    });
    await request(app)
      .post(`/api/orders/${own}/events`)
      .send(message('note-added', { text: 'and on' }))
      .expect(201);
    for (const path of ['/api/machines', '/api/machines/dunlin', '/api/shop', '/api/shop/history'])
      await request(app).get(path).expect(200);
  } finally {
    await derived.stop();
    await closePool();
    await db.destroy();
  }
});
