import { spawn, type ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { createServer, type AddressInfo } from 'node:net';
import { Client } from 'pg';

/** A real server of the application on a database of its own, that a test may kill and start again. */
export interface TestServer {
  readonly url: string;
  /** Address of its database, for what a test does behind its back. */
  readonly database: string;
  readonly pid: () => number;
  readonly start: () => Promise<void>;
  /** SIGKILL: no chance to finish anything. */
  readonly kill: () => Promise<void>;
  readonly stop: () => Promise<void>;
}

const base = process.env['ZT_TEST_DATABASE_URL'];

async function freshDatabase(name: string): Promise<string> {
  if (!base) throw new Error('ZT_TEST_DATABASE_URL is not set; run the tests with "npm test".');
  const client = new Client({ connectionString: base });
  await client.connect();
  await client.query(`drop database if exists ${name} with (force)`);
  await client.query(`create database ${name}`);
  await client.end();
  const url = new URL(base);
  url.pathname = `/${name}`;
  return url.toString();
}

/** A port that the system gives, free at this moment. */
async function freePort(): Promise<number> {
  const probe = createServer().listen(0, '127.0.0.1');
  await once(probe, 'listening');
  const { port } = probe.address() as AddressInfo;
  probe.close();
  await once(probe, 'close');
  return port;
}

export async function testServer(name: string, more: Readonly<Record<string, string>> = {}): Promise<TestServer> {
  const database = await freshDatabase(`e2e_${name}`);
  const port = await freePort();
  const url = `http://127.0.0.1:${port}`;
  let child: ChildProcess | undefined;
  const end = async (signal: 'SIGKILL' | 'SIGTERM'): Promise<void> => {
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    const gone = once(child, 'exit');
    child.kill(signal);
    await gone;
  };
  const start = async (): Promise<void> => {
    const instance = randomUUID();
    const started = spawn(
      process.execPath,
      ['--max-semi-space-size=8', '-r', '@swc-node/register', 'apps/server/src/main.ts'],
      {
        env: {
          ...process.env,
          MALLOC_ARENA_MAX: '2',
          MALLOC_MMAP_THRESHOLD_: '65536',
          MALLOC_TRIM_THRESHOLD_: '131072',
          ZT_DATABASE_URL: database,
          ZT_DEMO: 'demo',
          ZT_WEB: 'apps/client/dist',
          ZT_PORT: String(port),
          ZT_LOG: process.env['ZT_LOG'] ?? 'error',
          ZT_INSTANCE: instance,
          ...more,
        },
        stdio: ['ignore', 'inherit', 'inherit'],
      },
    );
    child = started;
    // Until it answers, and is the one that was started here.
    while (started.exitCode === null) {
      const health = await fetch(`${url}/api/health`).then(
        (answer) => answer.json() as Promise<{ readonly instance?: string }>,
        () => undefined,
      );
      if (health?.instance === instance) return;
      if (health) {
        await end('SIGKILL');
        throw new Error(`Another server answers at ${url}.`);
      }
      await new Promise((resolve) => setTimeout(resolve, 200));
    }
    throw new Error('The server did not start.');
  };
  try {
    await start();
  } catch (error) {
    await end('SIGKILL');
    throw error;
  }
  return { url, database, pid: () => child?.pid ?? 0, start, kill: () => end('SIGKILL'), stop: () => end('SIGTERM') };
}
