import type { Express } from 'express';
import { randomUUID } from 'node:crypto';
import { Client } from 'pg';
import type { DataSource } from 'typeorm';
import { resolve } from 'node:path';
import { dataSource } from '../db/dataSource';
import { loadDemo } from '../db/demo';
import { closePool } from '../work/pool';
import { Derived } from '../orders';
import { Links } from '../link';
import { createApp } from './app';

export interface TestApp {
  readonly app: Express;
  readonly db: DataSource;
  /** When what lists show is up to date. */
  readonly settled: () => Promise<void>;
  readonly stop: () => Promise<void>;
}

/** For tests: the application on a fresh database of the test cluster, with the demo's machines and orders. */
export async function testApp(name: string): Promise<TestApp> {
  const base = process.env['ZT_TEST_DATABASE_URL'];
  if (!base) throw new Error('ZT_TEST_DATABASE_URL is not set; run the tests with "npm test".');
  const client = new Client({ connectionString: base });
  await client.connect();
  await client.query(`drop database if exists ${name} with (force)`);
  await client.query(`create database ${name}`);
  await client.end();
  const url = new URL(base);
  url.pathname = `/${name}`;
  const db = await dataSource(url.toString()).initialize();
  await db.runMigrations();
  await loadDemo(db, resolve(__dirname, '../../../../demo'));
  const derived = new Derived(db);
  const links = new Links(db, { silentMs: 400, pollMs: 50, againMs: 200, unwatchedMs: 1_000, sweepMs: 200 });
  return {
    app: createApp(db, derived, { logLevel: 'silent', links }),
    db,
    settled: () => derived.idle(),
    stop: async () => {
      links.stop();
      await derived.stop();
      await closePool();
      await db.destroy();
    },
  };
}

let minute = 0;

/** An event as a phone would send it. */
export const message = (type: string, body: object, rest: object = {}): Record<string, unknown> => ({
  id: randomUUID(),
  at: new Date(Date.UTC(2026, 10, 24, 9, minute++)).toISOString(),
  by: 'bench 1',
  type,
  body,
  ...rest,
});

export const takenIn = (body: object = {}): Record<string, unknown> =>
  message('taken-in', { number: 'test', machineId: 'dunlin', symptoms: ['not-reach'], before: [], ...body });
