import fc from 'fast-check';
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { once } from 'node:events';
import { createServer, request, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { schemas } from '@zealous/core/formats';
import { ROUTES } from './fuzzRoutes';
import { message, takenIn, testApp, type TestApp } from './testServer';

/** How many requests; more by command, with another seed: ZT_FUZZ_RUNS, ZT_FUZZ_SEED. */
const RUNS = Number(process.env['ZT_FUZZ_RUNS'] ?? 10_500);
const SEED = Number(process.env['ZT_FUZZ_SEED'] ?? 20261126);
const AT_ONCE = 8;
const HANG_MS = 1_000;

let running: TestApp;
let server: Server;
let port: number;
const order = randomUUID();
beforeAll(async () => {
  running = await testApp('server_fuzz');
  server = createServer(running.app).listen(0, '127.0.0.1');
  await once(server, 'listening');
  port = (server.address() as AddressInfo).port;
  await send({
    method: 'POST',
    path: `/api/orders/${order}/events`,
    body: JSON.stringify(takenIn()),
    type: 'application/json',
  });
  await running.settled();
});
afterAll(async () => {
  server.closeAllConnections();
  server.close();
  await running.stop();
});

interface Asked {
  readonly method: string;
  readonly path: string;
  readonly body?: string | Buffer;
  readonly type?: string;
  readonly headers?: Readonly<Record<string, string>>;
}
interface Answer {
  readonly status: number;
  readonly text: string;
  readonly ms: number;
}

/** As a client without manners would send it: the path goes out as it is. */
const send = ({ method, path, body, type, headers = {} }: Asked): Promise<Answer> =>
  new Promise((resolve, reject) => {
    const began = performance.now();
    const asked = request(
      {
        port,
        host: '127.0.0.1',
        method,
        path,
        headers: { ...(type ? { 'content-type': type } : {}), ...headers },
        agent: false,
      },
      (answer) => {
        const parts: Buffer[] = [];
        answer.on('data', (part: Buffer) => parts.push(part));
        answer.on('end', () =>
          resolve({
            status: answer.statusCode ?? 0,
            text: Buffer.concat(parts).toString('latin1'),
            ms: performance.now() - began,
          }),
        );
        answer.on('error', reject);
      },
    );
    asked.on('error', reject);
    asked.end(body);
  });

const demo = (path: string): unknown => JSON.parse(readFileSync(join(__dirname, '../../../../demo', path), 'utf8'));
const machine = demo('machines/dunlin.json') as Record<string, unknown>;

/** Words that have broken servers before. */
const odd = fc.constantFrom(
  '',
  '0',
  '-1',
  '2147483648',
  '1e309',
  'NaN',
  '\u0000',
  'a\u0000b',
  '\ud800',
  '%00',
  '%',
  '%zz',
  '..',
  '../../etc/passwd',
  '__proto__',
  'constructor',
  "';drop table work_order;--",
  'null',
  '[]',
  '00000000-0000-0000-0000-000000000000',
  order.toUpperCase(),
  '0000-01-01T00:00:00Z',
  '9999-12-31T23:59:59Z',
  'x'.repeat(3000),
  '🔧',
);
const word = fc.oneof(
  { weight: 4, arbitrary: odd },
  {
    weight: 3,
    arbitrary: fc.constantFrom(
      order,
      'dunlin',
      'whelk',
      'limpet',
      'modes',
      'checks',
      'stub',
      'terms',
      'shop',
      'lane-a',
    ),
  },
  { weight: 2, arbitrary: fc.string({ unit: 'binary', maxLength: 20 }) },
);
/** Sent raw where the request line takes it, else escaped. */
const segment = word.map((text) =>
  /^[\u0021-\u007e]*$/.test(text) && !/[/?#]/.test(text)
    ? text
    : encodeURIComponent(text.replace(/\p{Cs}/gu, '\ufffd')),
);

const deep = (levels: number): unknown => {
  let value: unknown = 'x';
  for (let i = 0; i < levels; i++) value = i % 2 ? [value] : { a: value };
  return value;
};
const anything = fc.oneof(
  {
    weight: 4,
    arbitrary: fc.anything({
      withNullPrototype: false,
      maxDepth: 4,
      values: [fc.string({ unit: 'binary' }), fc.double(), fc.boolean(), fc.constant(null), odd],
    }),
  },
  {
    weight: 1,
    arbitrary: fc.constantFrom(
      deep(2000),
      deep(60),
      JSON.parse('{"__proto__":{"x":1},"constructor":{"prototype":1}}') as unknown,
    ),
  },
);

/** A value of the right shape with one place of it put wrong. */
function spoiled(base: unknown): fc.Arbitrary<unknown> {
  const places: (readonly string[])[] = [[]];
  const walk = (value: unknown, at: readonly string[]): void => {
    if (places.length > 400 || typeof value !== 'object' || value === null) return;
    for (const key of Object.keys(value)) {
      places.push([...at, key]);
      walk((value as Record<string, unknown>)[key], [...at, key]);
    }
  };
  walk(base, []);
  const put = (value: unknown, [key, ...rest]: readonly string[], to: unknown): unknown => {
    if (key === undefined) return to;
    if (Array.isArray(value)) return value.map((item: unknown, i) => (String(i) === key ? put(item, rest, to) : item));
    return { ...(value as object), [key]: put((value as Record<string, unknown>)[key], rest, to) };
  };
  return fc
    .tuple(fc.constantFrom(...places), fc.oneof(word, anything, fc.integer(), fc.double()))
    .map(([at, to]) => put(base, at, to));
}

interface EventSchema {
  readonly oneOf?: readonly { readonly properties?: { readonly type?: { readonly const?: string } } }[];
}
/** Every type of entry that the published schema knows. */
const TYPES: readonly string[] = [
  ...JSON.stringify(schemas.event as EventSchema).matchAll(/"type":\{"const":"([a-z-]+)"\}/g),
].map(([, type]) => type ?? '');

const bodies: readonly unknown[] = [
  takenIn(),
  message('finding-recorded', { key: 'glide@hub', result: 'stiff', value: 3 }),
  message('bench-changed', { targetC: 208, strand: { 'lane-a': 'in' }, wet: ['hot-end'] }),
  message('parts-moved', { off: ['front-cover'], ways: { 'hot-end': 'hot' } }),
  message('fasteners-moved', { part: 'front-cover', out: [0, 99], left: [{ index: 0, why: 'x' }] }),
  message('cause-chosen', { station: 'hub', mode: 'stub', advised: true }),
  message('photo-marked', { photoId: randomUUID(), markers: [{ x: 0.5, y: 0.5, label: 'crack' }] }),
  message('closed', { outcome: 'given-back', watchOn: '2026-12-01', minutes: 12 }),
  { machine },
  { machine, was: machine },
  { address: 'tcp://127.0.0.1:9' },
  { phone: randomUUID(), by: 'bench 1', force: true },
  { phone: randomUUID(), order, intent: { do: 'feed', mm: 100, mmPerS: 5 } },
  { strand: 'in', delayMs: 10, garble: 1, dropS: 1 },
  { op: 'add', fields: { name: 'x', how: 'y', minutes: 1, heat: 'any', power: 'any' }, note: 'n', by: 'b' },
  { op: 'change', fields: { weight: 3 } },
  {
    catalogue: {
      format: 'zealous-tracer/shop-catalogue',
      version: 1,
      changes: [{ kind: 'modes', id: 'stub', op: 'change', fields: { weight: 3 } }],
    },
  },
  {
    learned: {
      format: 'zealous-tracer/learned',
      version: 1,
      shop: { orders: 0, modes: {}, shows: {}, checks: {} },
      families: {},
      machines: {},
    },
  },
];
const typed = fc.tuple(fc.constantFrom(...TYPES), anything).map(([type, body]) => message(type, body as object));

const text = (value: unknown): string => {
  try {
    return JSON.stringify(value, (_key, item: unknown) => (typeof item === 'bigint' ? String(item) : item)) ?? 'null';
  } catch {
    return '{"loop":';
  }
};
/** As it should be, under a new id; all but the closing, after which the order takes nothing more. */
const sound = fc
  .tuple(
    fc.constantFrom(...bodies.filter((body) => (body as { type?: string }).type !== 'closed')),
    fc.uuid({ version: 4 }),
  )
  .map(([body, id]) => ('id' in (body as object) ? { ...(body as object), id } : body));
const json = fc.oneof(
  { weight: 3, arbitrary: sound.map(text) },
  {
    weight: 6,
    arbitrary: fc
      .constantFrom(...bodies)
      .chain(spoiled)
      .map(text),
  },
  { weight: 3, arbitrary: typed.map(text) },
  { weight: 2, arbitrary: anything.map(text) },
  {
    weight: 1,
    arbitrary: fc.constantFrom(
      '',
      '{',
      '[1,',
      '\u0000',
      '"\\ud800"',
      '{"a":1e999}',
      '[]',
      'null',
      `"${'y'.repeat(300_000)}"`,
    ),
  },
);

const asked: fc.Arbitrary<Asked> = fc
  .tuple(fc.constantFrom(...ROUTES), fc.array(segment, { minLength: 4, maxLength: 4 }), json, fc.nat({ max: 19 }))
  .map(([route, words, body, manner]): Asked => {
    const [method = 'GET', pattern = '/'] = route.split(' ');
    let next = 0;
    const path = pattern.replace(/:w|:o/g, (place) => (place === ':o' ? order : (words[next++] ?? '')));
    const writes = method !== 'GET' && method !== 'DELETE';
    return {
      method,
      path,
      ...(writes
        ? {
            body,
            type: manner === 0 ? 'text/plain' : manner === 1 ? 'application/json; charset=latin9' : 'application/json',
          }
        : {}),
      ...(manner === 2 ? { headers: { host: 'elsewhere.example' } } : {}),
      ...(manner === 3 ? { headers: { origin: 'http://elsewhere.example' } } : {}),
      ...(manner === 4 ? { headers: { 'content-encoding': 'gzip' } } : {}),
      ...(manner === 5 ? { headers: { 'if-none-match': 'W/"1.1"', range: 'bytes=9-1' } } : {}),
    };
  });

/** Whatever tells of this machine: its folders, the program's own lines, the database's. */
const LEAKS =
  /node_modules|\/(?:home|root|var|usr|tmp|work)\/|at .+\.(?:ts|js):\d+|QueryFailedError|relation "|syntax error at/;

test(`${RUNS} requests of every kind: none ends in a fault of the server, none hangs, none tells of this machine`, async () => {
  expect(TYPES.length).toBeGreaterThan(20);
  const all = fc.sample(asked, { numRuns: RUNS, seed: SEED });
  const wrong: string[] = [];
  const statuses = new Map<number, number>();
  let slowest = 0;
  const one = async (item: Asked): Promise<void> => {
    const { status, text: body, ms } = await send(item);
    statuses.set(status, (statuses.get(status) ?? 0) + 1);
    slowest = Math.max(slowest, ms);
    const what = `${item.method} ${item.path.slice(0, 120)} ${String(item.body ?? '').slice(0, 200)} → ${status}`;
    if (status >= 500) wrong.push(what);
    if (status >= 400 && LEAKS.test(body)) wrong.push(`${what}: ${body.slice(0, 200)}`);
    if (status >= 400 && item.method !== 'HEAD' && !body.includes('"detail"'))
      wrong.push(`${what}: no words: ${body.slice(0, 80)}`);
  };
  const queue = [...all];
  await Promise.all(
    Array.from({ length: AT_ONCE }, async () => {
      for (let item = queue.pop(); item; item = queue.pop()) await one(item);
    }),
  );
  expect(wrong.slice(0, 10)).toEqual([]);
  // Requests that were refused and such that were taken: the suite reaches behind the door.
  expect(statuses.get(200) ?? 0).toBeGreaterThan(RUNS / 20);
  expect(statuses.get(422) ?? 0).toBeGreaterThan(RUNS / 20);
  expect((statuses.get(201) ?? 0) + (statuses.get(409) ?? 0)).toBeGreaterThan(20);
  // It still answers, and at once. (A hang shows as one that never ends; HANG_MS is for one request alone.)
  const after = await send({ method: 'GET', path: '/api/health' });
  expect(after.status).toBe(200);
  expect(after.ms).toBeLessThan(HANG_MS);
  if (process.env['ZT_FUZZ_RUNS'])
    process.stdout.write(`${JSON.stringify({ statuses: [...statuses].sort(), slowestMs: Math.round(slowest) })}\n`);
}, 600_000);
