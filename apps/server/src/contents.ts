/** For the test of backups: `fill` puts the demo and a picture into an empty database; both words print a sum over all contents. */
import 'reflect-metadata';
import { randomUUID } from 'node:crypto';
import { loadDemo } from './db/demo';
import { openDatabase } from './db/open';
import { closePool } from './work/pool';

async function main(): Promise<void> {
  const db = await openDatabase();
  if (process.argv[2] === 'fill') {
    await loadDemo(db, 'demo');
    const [order] = await db.query<{ id: string }[]>('select id from work_order limit 1');
    await db.query(
      `insert into photo (id, order_id, mime, width_px, height_px, bytes) values ($1, $2, 'image/jpeg', 1, 1, decode('ffd8ffd9', 'hex'))`,
      [randomUUID(), order?.id],
    );
  }
  const tables = [
    'machine',
    'work_order',
    'order_event',
    'photo',
    'shop_change',
    'lesson',
    'learned_import',
    'order_fact',
    'shop_state',
    'catalogue_kept',
  ];
  for (const table of tables) {
    const [row] = await db.query<{ n: string; sum: string | null }[]>(
      `select count(*) as n, md5(string_agg(t::text, '|' order by t::text)) as sum from ${table} t`,
    );
    console.log(`${table} ${row?.n} ${row?.sum ?? '-'}`);
  }
  await closePool();
  await db.destroy();
}

main().catch((error: unknown) => {
  console.error(error);
  process.exit(1);
});
