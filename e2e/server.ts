import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { Client } from 'pg';

/** A real server of the application on a database of its own, that a test may kill and start again. */
export interface TestServer {
  readonly url: string;
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

export async function testServer(name: string, port: number): Promise<TestServer> {
  const database = await freshDatabase(`e2e_${name}`);
  const url = `http://127.0.0.1:${port}`;
  let child: ChildProcess | undefined;
  const start = async (): Promise<void> => {
    child = spawn(process.execPath, ['-r', '@swc-node/register', 'apps/server/src/main.ts'], {
      env: {
        ...process.env,
        ZT_DATABASE_URL: database,
        ZT_DEMO: 'demo',
        ZT_WEB: 'apps/client/dist',
        ZT_PORT: String(port),
        ZT_LOG: 'error',
      },
      stdio: ['ignore', 'inherit', 'inherit'],
    });
    for (let i = 0; i < 150; i++) {
      const up = await fetch(`${url}/api/health`).then(
        (answer) => answer.ok,
        () => false,
      );
      if (up) return;
      await new Promise((resolve) => setTimeout(resolve, 200));
    }
    throw new Error('The server did not start.');
  };
  const end = async (signal: 'SIGKILL' | 'SIGTERM'): Promise<void> => {
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    const gone = once(child, 'exit');
    child.kill(signal);
    await gone;
  };
  await start();
  return { url, start, kill: () => end('SIGKILL'), stop: () => end('SIGTERM') };
}
