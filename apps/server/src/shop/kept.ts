import type { Catalogue } from '@zealous/core';
import { LRUCache } from 'lru-cache';
import { createHash } from 'node:crypto';
import type { DataSource, EntityManager } from 'typeorm';

type Db = DataSource | EntityManager;

const hashes = new WeakMap<Catalogue, string>();

/** Name of a catalogue by its content: SHA-256 of its JSON, in hex. */
export function hashOf(catalogue: Catalogue): string {
  const known = hashes.get(catalogue);
  if (known) return known;
  const made = createHash('sha256').update(JSON.stringify(catalogue)).digest('hex');
  hashes.set(catalogue, made);
  return made;
}

/** Keeps a catalogue for the orders that are closed with it; each content once. */
export async function keepCatalogue(tx: EntityManager, catalogue: Catalogue): Promise<string> {
  const hash = hashOf(catalogue);
  await tx.query(
    `insert into catalogue_kept (hash, catalogue)
     select $1, $2::jsonb where not exists (select 1 from catalogue_kept where hash = $1) on conflict do nothing`,
    [hash, JSON.stringify(catalogue)],
  );
  return hash;
}

const read = new LRUCache<string, Catalogue>({ max: 8 });

/** The catalogue that an order was closed with; the present one when none was kept or it is the same. */
export async function catalogueKept(db: Db, hash: string | null, present: Catalogue): Promise<Catalogue> {
  if (hash === null || hash === hashOf(present)) return present;
  const known = read.get(hash);
  if (known) return known;
  const [row] = await db.query<{ catalogue: Catalogue }[]>('select catalogue from catalogue_kept where hash = $1', [
    hash,
  ]);
  if (!row) return present;
  // JSONB keeps content, not the order of keys: the name goes with the object, not with its text.
  hashes.set(row.catalogue, hash);
  read.set(hash, row.catalogue);
  return row.catalogue;
}

/** Orders that were closed before catalogues were kept are read by the present one from now on. */
export async function keepForClosed(db: DataSource, present: Catalogue): Promise<void> {
  const [row] = await db.query<{ n: number }[]>(
    `select count(*)::int as n from work_order where status = 'closed' and catalogue is null`,
  );
  if (!row?.n) return;
  await db.transaction(async (tx) => {
    const hash = await keepCatalogue(tx, present);
    await tx.query(`update work_order set catalogue = $1 where status = 'closed' and catalogue is null`, [hash]);
  });
}
