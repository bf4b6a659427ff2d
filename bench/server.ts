/**
 * `npm run bench:server`: 20,000 orders and 450,000 entries, put in by the database itself, then what each route takes (p50,
 * p95), entries a second over many orders, memory, and how the server answers while a record is printed and while a hostile
 * picture comes in. Aims on two cores: every route at most 100 ms in 95 of 100 cases (a PDF 1.5 s, health beside it 50 ms), at
 * least 200 entries a second, less than 400 MB.
 */
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { Client } from 'pg';
import { testServer, type TestServer } from '../e2e/server';

const ORDERS = Number(process.env['ZT_BENCH_ORDERS'] ?? 20_000);
const PER_ORDER = 22;
const CALLS = 40;
const APPENDING = 16;
const APPEND_S = 10;

const table = (head: readonly string[], rows: readonly (readonly (string | number)[])[]): void => {
  console.log(`| ${head.join(' | ')} |\n|${head.map(() => '---').join('|')}|`);
  for (const row of rows) console.log(`| ${row.join(' | ')} |`);
  console.log('');
};
const at = (list: readonly number[], share: number): number =>
  Math.round([...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(share * list.length))] ?? 0);

/** Copies of the demo's closed order, with ids, numbers and days of their own; every twentieth one is open. */
async function seed(database: string): Promise<void> {
  const client = new Client({ connectionString: database });
  await client.connect();
  const [template] = (
    await client.query<{ id: string; n: string }>(
      `select o.id, count(*) as n from work_order o join order_event e on e.order_id = o.id where o.status = 'closed' group by o.id limit 1`,
    )
  ).rows;
  if (!template) throw new Error('The demo has no closed order.');
  await client.query('alter table order_event disable trigger user');
  await client.query(
    `insert into work_order (id, machine_id, number, status, machine, "index", opened_at, closed_at, last_event_at, seq, index_seq, index_version)
     select gen_random_uuid(), machine_id, 'B' || n, case when n % 20 = 0 then 'open' else 'closed' end, machine, "index",
       opened_at - n * interval '7 minutes', case when n % 20 = 0 then null else closed_at - n * interval '7 minutes' end,
       last_event_at - n * interval '7 minutes', $2, $2, index_version
     from work_order, generate_series(1, $3) n where id = $1`,
    [template.id, PER_ORDER, ORDERS],
  );
  await client.query(
    `insert into order_event (id, order_id, seq, type, at, by, body)
     select gen_random_uuid(), o.id, e.seq, e.type, e.at, e.by, e.body
     from work_order o join order_event e on e.order_id = $1
     where o.number like 'B%' and e.seq <= $2 and (o.status = 'closed' or e.type <> 'closed')`,
    [template.id, PER_ORDER],
  );
  await client.query(
    `insert into order_event (id, order_id, seq, type, at, by, body)
     select gen_random_uuid(), o.id, (select count(*) from order_event e where e.order_id = o.id) + k, 'note-added', o.last_event_at, 'bench 1', '{"text":"a note"}'
     from work_order o, generate_series(1, $1) k where o.number like 'B%' and k <= $1 - (select count(*) from order_event e where e.order_id = o.id)`,
    [PER_ORDER],
  );
  await client.query(
    'update work_order o set seq = (select max(seq) from order_event e where e.order_id = o.id), index_seq = (select max(seq) from order_event e where e.order_id = o.id) where number like $1',
    ['B%'],
  );
  await client.query('alter table order_event enable trigger user');
  await client.query(
    `insert into order_fact (event_id, order_id, machine_id, kind, at, material, what, good, station, offer, maker, batch, old_hours)
     select e.id, e.order_id, o.machine_id, case e.type when 'rung-tried' then 'rung' when 'part-replaced' then 'part' else 'solvent' end,
       e.at, 'PLA', coalesce(e.body ->> 'remedy', e.body ->> 'part', e.body ->> 'solvent'), true, e.body ->> 'station',
       e.body ->> 'offer', e.body ->> 'maker', e.body ->> 'batch', (e.body ->> 'oldHours')::float
     from order_event e join work_order o on o.id = e.order_id
     where e.type in ('rung-tried', 'part-replaced', 'solvent-tried') on conflict do nothing`,
  );
  await client.query(
    `insert into lesson (order_id, family, machine_id, counts)
     select o.id, l.family, l.machine_id, l.counts from work_order o, (select * from lesson limit 1) l
     where o.number like 'B%' and o.status = 'closed' on conflict do nothing`,
  );
  await client.query('vacuum analyze');
  const { rows } = await client.query<{ orders: string; events: string; lessons: string }>(
    'select (select count(*) from work_order) as orders, (select count(*) from order_event) as events, (select count(*) from lesson) as lessons',
  );
  console.log(`${rows[0]?.orders} orders, ${rows[0]?.events} entries, ${rows[0]?.lessons} lessons\n`);
  await client.end();
}

const timed = async (url: string, init?: RequestInit): Promise<{ ms: number; status: number }> => {
  const began = performance.now();
  const answer = await fetch(url, init);
  await answer.arrayBuffer();
  return { ms: performance.now() - began, status: answer.status };
};

async function routes(server: TestServer, closed: string, open: string): Promise<void> {
  const list: readonly string[] = [
    '/api/health',
    '/api/machines',
    '/api/machines/dunlin',
    '/api/orders?status=open',
    '/api/orders?status=open&page=15',
    '/api/orders?status=closed&page=300',
    '/api/orders?status=closed&search=B1999',
    `/api/orders/${open}`,
    `/api/orders/${open}/events?after=10`,
    `/api/orders/${closed}/order.json`,
    `/api/orders/${closed}/record.json`,
    `/api/orders/${closed}/record.md`,
    `/api/orders/${closed}/record.pdf`,
    '/api/shop',
    '/api/shop/history',
    '/api/shop/catalogue.json',
    '/api/shop/learned.json',
  ];
  const rows: (readonly (string | number)[])[] = [];
  for (const path of list) {
    const first = await timed(server.url + path);
    const times: number[] = [];
    for (let i = 0; i < CALLS; i++) times.push((await timed(server.url + path)).ms);
    const name = path.replaceAll(closed, 'CLOSED').replaceAll(open, 'OPEN');
    rows.push([name, first.status, Math.round(first.ms), at(times, 0.5), at(times, 0.95)]);
  }
  table(['route', 'status', 'first, ms', 'p50, ms', 'p95, ms'], rows);
}

/** How health answers while something else is under way. */
async function beside(server: TestServer, what: string, work: Promise<unknown>): Promise<readonly (string | number)[]> {
  let over = false;
  void work.finally(() => (over = true));
  const times: number[] = [];
  do {
    times.push((await timed(`${server.url}/api/health`)).ms);
    await new Promise((resolve) => setTimeout(resolve, 2));
  } while (!over);
  return [what, times.length, at(times, 0.5), at(times, 0.95), Math.round(Math.max(...times))];
}

const send = (server: TestServer, order: string, type: string, body: object) =>
  fetch(`${server.url}/api/orders/${order}/events`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ id: randomUUID(), at: new Date().toISOString(), by: 'bench 1', type, body }),
  });

async function appends(server: TestServer): Promise<void> {
  const orders = Array.from({ length: 60 }, () => randomUUID());
  for (const order of orders)
    await send(server, order, 'taken-in', { number: 'load', machineId: 'dunlin', symptoms: ['not-reach'], before: [] });
  let sent = 0;
  const times: number[] = [];
  const end = performance.now() + APPEND_S * 1000;
  await Promise.all(
    Array.from({ length: APPENDING }, async (_, phone) => {
      for (let i = 0; performance.now() < end; i++) {
        const order = orders[(phone + i * APPENDING) % orders.length] ?? '';
        const began = performance.now();
        const answer = await send(server, order, 'bench-changed', { readingC: 20 + (i % 200) });
        if (answer.ok) sent++;
        times.push(performance.now() - began);
      }
    }),
  );
  table(
    ['entries', 'a second', 'p50, ms', 'p95, ms'],
    [[sent, Math.round(sent / APPEND_S), at(times, 0.5), at(times, 0.95)]],
  );
}

const memoryOf = (pid: number): number => {
  const [, kb = '0'] = /VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8')) ?? [];
  return Math.round(Number(kb) / 1024);
};

async function main(): Promise<void> {
  const server = await testServer('bench_server');
  await seed(server.database);
  await server.stop();
  await server.start();
  const client = new Client({ connectionString: server.database });
  await client.connect();
  const one = async (status: string): Promise<string> =>
    (
      await client.query<{ id: string }>(`select id from work_order where number like 'B%' and status = $1 limit 1`, [
        status,
      ])
    ).rows[0]?.id ?? '';
  const [closed, open] = [await one('closed'), await one('open')];
  await routes(server, closed, open);
  console.log(`memory after reading: ${memoryOf(server.pid())} MB`);
  const pdf = () =>
    Promise.all(Array.from({ length: 5 }, () => timed(`${server.url}/api/orders/${closed}/record.pdf`)));
  // 36 million pixels in a few hundred kB: as large as is taken at all.
  const large = await (
    await import('sharp')
  )
    .default({ create: { width: 5990, height: 5990, channels: 3, background: '#446688' } })
    .png()
    .toBuffer();
  const rows = [await beside(server, 'five records as PDF', pdf())];
  console.log(`memory after printing: ${memoryOf(server.pid())} MB`);
  const hostile = Promise.all(
    Array.from({ length: 4 }, () =>
      timed(`${server.url}/api/orders/${open}/photos/${randomUUID()}`, { method: 'PUT', body: new Uint8Array(large) }),
    ),
  );
  rows.push(await beside(server, 'four pictures of 36 million pixels', hostile));
  console.log(`memory after pictures: ${memoryOf(server.pid())} MB\n`);
  table(['health beside', 'asked', 'p50, ms', 'p95, ms', 'longest, ms'], rows);
  await appends(server);
  console.log(`memory of the server afterwards: ${memoryOf(server.pid())} MB`);
  await client.end();
  await server.stop();
}

main().catch((error: unknown) => {
  console.error(error);
  process.exit(1);
});
