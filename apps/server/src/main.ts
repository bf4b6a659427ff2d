import 'reflect-metadata';
import { resolve } from 'node:path';
import { openDatabase } from './db/open';
import { loadDemo } from './db/demo';
import { createApp } from './http/app';
import { Links } from './link';
import { Derived } from './orders';
import { catalogueOf, keepForClosed } from './shop';
import { closePool } from './work/pool';

/** Milliseconds in which what was taken is finished at a stop. */
const FINISH_MS = 10_000;
/** Rows of lists that are brought up to date at the start; the rest when a list comes by them, or by `npm run rebuild`. */
const AT_START = 200;

async function main(): Promise<void> {
  const host = process.env['ZT_HOST'] ?? '127.0.0.1';
  const port = Number(process.env['ZT_PORT'] ?? 4720);
  const db = await openDatabase();
  const derived = new Derived(db);
  const demo = process.env['ZT_DEMO'];
  if (demo) await loadDemo(db, resolve(demo));
  await keepForClosed(db, await catalogueOf(db));
  for (const id of await derived.stale(AT_START)) derived.schedule(id, 0);
  const webRoot = process.env['ZT_WEB'];
  const instance = process.env['ZT_INSTANCE'];
  const links = new Links(db);
  const app = createApp(db, derived, {
    links,
    logLevel: process.env['ZT_LOG'] ?? 'warn',
    hosts: [host, ...(process.env['ZT_HOSTS'] ?? '').split(',').filter(Boolean)],
    ...(instance ? { instance } : {}),
    ...(webRoot ? { webRoot: resolve(webRoot) } : {}),
  });
  const server = app.listen(port, host, (error) => {
    if (error) {
      console.error(`Port ${port} cannot be used (${error.message}). Stop what uses it, or set ZT_PORT.`);
      process.exit(IN_USE);
    }
    console.log(`Zealous Tracer is at http://${host}:${port}`);
  });
  server.requestTimeout = 60_000;
  server.headersTimeout = 20_000;
  let stopping = false;
  const stop = (): void => {
    if (stopping) return;
    stopping = true;
    const end = async (): Promise<void> => {
      links.stop();
      await derived.stop();
      await closePool();
      await db.destroy();
      process.exit(0);
    };
    // What was taken is finished and answered; nothing new is taken.
    server.close(() => void end());
    server.closeIdleConnections();
    setTimeout(() => server.closeAllConnections(), FINISH_MS).unref();
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
}

/** Told to the supervisor: to start again would not help. */
const IN_USE = 78;

main().catch((error: unknown) => {
  console.error((error as Error).message);
  process.exit(1);
});
