import 'reflect-metadata';
import { resolve } from 'node:path';
import { dataSource } from './db/dataSource';
import { loadDemo } from './db/demo';
import { createApp } from './http/app';

const env = (name: string): string => {
  const value = process.env[name];
  if (!value) throw new Error(`${name} is not set. Start with "npm run demo", which sets it.`);
  return value;
};

async function main(): Promise<void> {
  const host = process.env['ZT_HOST'] ?? '127.0.0.1';
  const port = Number(process.env['ZT_PORT'] ?? 4720);
  const db = await dataSource(env('ZT_DATABASE_URL')).initialize();
  await db.runMigrations();
  const demo = process.env['ZT_DEMO'];
  if (demo) await loadDemo(db, resolve(demo));
  const webRoot = process.env['ZT_WEB'];
  const app = createApp(db, {
    logLevel: process.env['ZT_LOG'] ?? 'warn',
    ...(webRoot ? { webRoot: resolve(webRoot) } : {}),
  });
  const server = app.listen(port, host, (error) => {
    if (error) {
      console.error(`Port ${port} cannot be used (${error.message}). Stop what uses it, or set ZT_PORT.`);
      process.exit(1);
    }
    console.log(`Zealous Tracer is at http://${host}:${port}`);
  });
  const stop = (): void => {
    server.close(() => void db.destroy().then(() => process.exit(0)));
    server.closeAllConnections();
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
}

main().catch((error: unknown) => {
  console.error((error as Error).message);
  process.exit(1);
});
