/** `npm run rebuild`: works out anew what lists show of every order, after a change of version or by hand. */
import 'reflect-metadata';
import { openDatabase } from './db/open';
import { Derived } from './orders';
import { closePool } from './work/pool';

async function main(): Promise<void> {
  const db = await openDatabase();
  const derived = new Derived(db);
  await db.query('update work_order set index_version = 0');
  let done = 0;
  const failed = new Set<string>();
  for (let ids = await derived.stale(AT_ONCE); ids.length > 0; ids = await derived.stale(AT_ONCE + failed.size)) {
    const fresh = ids.filter((id) => !failed.has(id));
    if (fresh.length === 0) break;
    await Promise.all(fresh.map((id) => derived.refresh(id)));
    const still = new Set(await derived.stale(AT_ONCE + failed.size));
    for (const id of fresh) if (still.has(id)) failed.add(id);
    done += fresh.filter((id) => !still.has(id)).length;
  }
  console.log(
    `${done} orders worked out anew${failed.size ? `; ${failed.size} could not be: ${[...failed].join(', ')}` : ''}`,
  );
  await derived.stop();
  await closePool();
  await db.destroy();
  process.exitCode = failed.size ? 1 : 0;
}

const AT_ONCE = 100;

main().catch((error: unknown) => {
  console.error((error as Error).message);
  process.exit(1);
});
