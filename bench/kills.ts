/**
 * `npm run kills -- ROUNDS`: entries come in from several phones while server, database or both are killed (SIGKILL, no chance
 * to finish anything). What was acknowledged must be there afterwards, once, in the order in which each phone sent it, and the
 * numbers of an order must have no gap. Prints a table; exit 1 when anything is lost, doubled or out of order.
 */
import { execFile } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { promisify } from 'node:util';
import { testServer, type TestServer } from '../e2e/server';

const run = promisify(execFile);
const rounds = Number(process.argv[2] ?? 200);
const PHONES = 6;
const KINDS = ['server', 'database', 'both'] as const;
type Kind = (typeof KINDS)[number];

interface Phone {
  readonly order: string;
  /** Ids in the order in which they were acknowledged. */
  readonly acknowledged: string[];
  /** Sent, and not answered: it goes out again until it is. */
  pending?: Record<string, unknown>;
}

const shell = async (variable: string): Promise<void> => {
  const [file = '', ...args] = (process.env[variable] ?? '').split(' ');
  await run(file, args);
};

const event = (type: string, body: object): Record<string, unknown> => ({
  id: randomUUID(),
  at: new Date().toISOString(),
  by: 'bench 1',
  type,
  body,
});

/** Sends what waits, or the next note; the same entry again until it is answered. */
async function next(url: string, phone: Phone): Promise<boolean> {
  phone.pending ??=
    phone.acknowledged.length === 0
      ? event('taken-in', { number: 'kill', machineId: 'dunlin', symptoms: [], before: [] })
      : event('note-added', { text: `note ${phone.acknowledged.length}` });
  const answer = await fetch(`${url}/api/orders/${phone.order}/events`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(phone.pending),
    signal: AbortSignal.timeout(8_000),
  }).catch(() => undefined);
  if (!answer || answer.status >= 500) return false;
  if (!answer.ok) throw new Error(`refused: ${answer.status} ${await answer.text()}`);
  phone.acknowledged.push(String(phone.pending['id']));
  delete phone.pending;
  return true;
}

interface Stored {
  readonly seq: number;
  readonly event: { readonly id: string };
}

/** What is wrong with an order after a round; empty when nothing is. */
async function faults(url: string, { order, acknowledged, pending }: Phone): Promise<readonly string[]> {
  const answer = await fetch(`${url}/api/orders/${order}/events`);
  if (acknowledged.length === 0) return [];
  const stored = (await answer.json()) as readonly Stored[];
  const ids = stored.map((item) => item.event.id);
  const extra = ids.filter((id) => !acknowledged.includes(id) && id !== pending?.['id']);
  return [
    ...acknowledged.filter((id) => !ids.includes(id)).map((id) => `lost ${id}`),
    ...(new Set(ids).size === ids.length ? [] : ['doubled']),
    ...(extra.length ? [`from nowhere ${extra.join()}`] : []),
    ...(stored.every((item, i) => item.seq === i + 1) ? [] : ['a gap in the numbers']),
    ...(acknowledged.every((id, i) => ids[i] === id) ? [] : ['out of order']),
  ];
}

async function main(): Promise<void> {
  const server: TestServer = await testServer('kills');
  const table = new Map<
    Kind,
    { rounds: number; acknowledged: number; unanswered: number; faults: number; backMs: number }
  >();
  for (let i = 0; i < rounds; i++) {
    const kind = KINDS[i % KINDS.length] as Kind;
    const row = table.get(kind) ?? { rounds: 0, acknowledged: 0, unanswered: 0, faults: 0, backMs: 0 };
    table.set(kind, row);
    const phones = Array.from({ length: PHONES }, (): Phone => ({ order: randomUUID(), acknowledged: [] }));
    let over = false;
    const working = phones.map(async (phone) => {
      while (!over) if (!(await next(server.url, phone))) return;
    });
    // At some moment of the work, another one each round.
    await new Promise((resolve) => setTimeout(resolve, 60 + ((i * 37) % 400)));
    if (kind !== 'database') await server.kill();
    if (kind !== 'server') await shell('ZT_KILL_DB');
    over = true;
    await Promise.all(working);
    const began = performance.now();
    if (kind !== 'server') await shell('ZT_START_DB');
    if (kind !== 'database') await server.start();
    // The same entries once more, as a phone does: each is answered, and stored once.
    row.unanswered += phones.filter(({ pending }) => pending).length;
    for (const phone of phones)
      while (phone.pending && !(await next(server.url, phone)))
        await new Promise((resolve) => setTimeout(resolve, 100));
    row.backMs += performance.now() - began;
    const found = (await Promise.all(phones.map((phone) => faults(server.url, phone)))).flat();
    for (const text of found) console.error(`round ${i + 1}, ${kind}: ${text}`);
    row.rounds++;
    row.acknowledged += phones.reduce((sum, phone) => sum + phone.acknowledged.length, 0);
    row.faults += found.length;
  }
  await server.stop();
  console.log(
    '| killed | rounds | acknowledged | unanswered, sent again | lost, doubled or out of order | back after, ms |',
  );
  console.log('|---|---|---|---|---|---|');
  for (const [kind, row] of table)
    console.log(
      `| ${kind} | ${row.rounds} | ${row.acknowledged} | ${row.unanswered} | ${row.faults} | ${Math.round(row.backMs / row.rounds)} |`,
    );
  process.exitCode = [...table.values()].some((row) => row.faults > 0) ? 1 : 0;
}

main().catch((error: unknown) => {
  console.error(error);
  process.exit(1);
});
