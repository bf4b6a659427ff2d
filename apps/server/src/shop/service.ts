import type { ShopDocument } from '@zealous/contracts';
import {
  deliveredCatalogue,
  learn,
  nothingLearned,
  soundCatalogue,
  together,
  unlearn,
  type Catalogue,
  type ChangeKind,
  type Learned,
  type Lesson,
  type ShopCatalogue,
  type ShopChange,
} from '@zealous/core';
import { parseShopCatalogue } from '@zealous/core/formats';
import { createHash } from 'node:crypto';
import type { DataSource, EntityManager } from 'typeorm';
import { LearnedImportRow, LessonRow, ShopChangeRow } from '../db/entities';
import { Problem } from '../http/problem';

type Db = DataSource | EntityManager;

export async function shopCatalogue(db: Db): Promise<ShopCatalogue> {
  const rows = await db.getRepository(ShopChangeRow).find({ order: { kind: 'ASC', id: 'ASC' } });
  const changes = rows.map(({ kind, id, op, fields, note, by }): ShopChange => ({
    kind,
    id,
    op,
    ...(fields ? { fields } : {}),
    ...(note === null ? {} : { note }),
    ...(by === null ? {} : { by }),
  }));
  return { format: 'zealous-tracer/shop-catalogue', version: 1, changes };
}

interface Versions {
  readonly catalogue: number;
  readonly learned: number;
}

/** Counters that every change of the shop's catalogue or counts moves, in its own transaction. */
async function versionsOf(db: Db): Promise<Versions> {
  const [row] = await db.query<Versions[]>(
    'select catalogue_version as catalogue, learned_version as learned from shop_state',
  );
  return row ?? { catalogue: 0, learned: 0 };
}

/** What was put together last, by database: it is asked for by every entry, and what is worked out lies beside its object. */
const kept = new WeakMap<DataSource, { readonly version: number; readonly catalogue: Catalogue }>();
const sourceOf = (db: Db): DataSource => ('connection' in db ? db.connection : db);

/** The delivered catalogue with the shop's changes. `current` spares the question for its version when it is known. */
export async function catalogueOf(db: Db, current?: number): Promise<Catalogue> {
  const source = sourceOf(db);
  const version = current ?? (await versionsOf(db)).catalogue;
  const known = kept.get(source);
  if (known?.version === version) return known.catalogue;
  const shop = await shopCatalogue(db);
  // A change that does not hold together with what is delivered now cannot stop an open order.
  const { catalogue, leftOut } = soundCatalogue(deliveredCatalogue, shop);
  for (const { change, why } of leftOut)
    process.stderr.write(`shop catalogue: ${change.kind}/${change.id} is left out: ${why}\n`);
  kept.set(source, { version, catalogue });
  return catalogue;
}

/** Stores the changes, all or none. @throws FormatError when the catalogue would not hold together with them */
async function store(tx: EntityManager, changes: readonly ShopChange[]): Promise<void> {
  parseShopCatalogue(
    JSON.parse(JSON.stringify({ format: 'zealous-tracer/shop-catalogue', version: 1, changes })),
    deliveredCatalogue,
  );
  const rows = tx.getRepository(ShopChangeRow);
  await tx.query('update shop_state set catalogue_version = catalogue_version + 1');
  await rows.createQueryBuilder().delete().execute();
  await rows.insert(
    changes.map(({ kind, id, op, fields, note, by }) => ({
      kind,
      id,
      op,
      fields: (fields ?? null) as never,
      note: note ?? null,
      by: by ?? null,
    })),
  );
}

const locked = <T>(db: DataSource, work: (tx: EntityManager) => Promise<T>): Promise<T> =>
  db.transaction(async (tx) => {
    await tx.query('lock table shop_change in share row exclusive mode');
    return work(tx);
  });

export const setChange = (db: DataSource, change: ShopChange): Promise<ShopCatalogue> =>
  locked(db, async (tx) => {
    const { changes } = await shopCatalogue(tx);
    const others = changes.filter((other) => other.kind !== change.kind || other.id !== change.id);
    await store(tx, [...others, change]);
    return shopCatalogue(tx);
  });

/** Back to what is delivered. @throws Problem 409 when orders or other records need what the shop had added */
export const dropChange = (db: DataSource, kind: ChangeKind, id: string): Promise<ShopCatalogue> =>
  locked(db, async (tx) => {
    const { changes } = await shopCatalogue(tx);
    const gone = changes.find((change) => change.kind === kind && change.id === id);
    if (gone?.op === 'add') {
      const text = 'What the shop added may stand in orders: retire it instead, then it is offered no more.';
      throw new Problem(409, 'Not removed', text);
    }
    await store(
      tx,
      changes.filter((change) => change !== gone),
    );
    return shopCatalogue(tx);
  });

/**
 * All changes at once, from a file. What the shop added stays known, as when changes are taken back one by one.
 *
 * @throws Problem 409 when the file lacks a record that orders may name
 */
export const replaceChanges = (db: DataSource, shop: ShopCatalogue): Promise<ShopCatalogue> =>
  locked(db, async (tx) => {
    const { changes } = await shopCatalogue(tx);
    const named = new Set(shop.changes.map(({ kind, id }) => `${kind}/${id}`));
    const gone = changes.filter(({ op, kind, id }) => op === 'add' && !named.has(`${kind}/${id}`));
    if (gone.length > 0)
      throw new Problem(
        409,
        'Not replaced',
        `The file lacks what this shop added and orders may name: ${gone.map(({ id }) => id).join(', ')}. Retire it here first and export again, or add it to the file.`,
        '/catalogue/changes',
      );
    await store(tx, shop.changes);
    return shopCatalogue(tx);
  });

/** All lessons added up: once, when a database of an older version has no sum yet. */
async function addedUp(tx: EntityManager): Promise<Learned> {
  const lessons = await tx.getRepository(LessonRow).find();
  return lessons.reduce(
    (learned, { family, machineId, counts }) => learn(learned, { family, machine: machineId, counts }),
    nothingLearned,
  );
}

/** Changes the sum of what the shop's own orders taught, in the transaction of what changes it. */
async function relearn(tx: EntityManager, change: (learned: Learned) => Learned): Promise<Learned> {
  const [row] = await tx.query<{ learned: Learned | null }[]>('select learned from shop_state for update');
  const learned = change(row?.learned ?? (await addedUp(tx)));
  await tx.query('update shop_state set learned = $1, learned_version = learned_version + 1', [
    JSON.stringify(learned),
  ]);
  return learned;
}

/** What this shop's own orders taught, and what was imported. */
export async function learnedOf(db: DataSource): Promise<Learned> {
  const [row] = await db.query<{ learned: Learned | null }[]>('select learned from shop_state');
  const own = row?.learned ?? (await db.transaction((tx) => relearn(tx, (learned) => learned)));
  const imports = await db.getRepository(LearnedImportRow).find({ order: { id: 'ASC' } });
  return imports.reduce((learned, { learned: more }) => together(learned, more), own);
}

/** What an order teaches now, in place of what it taught before. */
export async function keepLesson(tx: EntityManager, orderId: string, lesson: Lesson | undefined): Promise<void> {
  const rows = tx.getRepository(LessonRow);
  const old = await rows.findOneBy({ orderId });
  if (!old && !lesson) return;
  await relearn(tx, (learned) => {
    const without = old
      ? unlearn(learned, { family: old.family, machine: old.machineId, counts: old.counts })
      : learned;
    return lesson ? learn(without, lesson) : without;
  });
  if (!lesson) await rows.delete({ orderId });
  else await rows.save({ orderId, family: lesson.family, machineId: lesson.machine, counts: lesson.counts });
}

const MOVED = 'update shop_state set learned_version = learned_version + 1';

export async function importLearned(db: DataSource, learned: Learned): Promise<Learned> {
  await db.transaction(async (tx) => {
    await tx.query(MOVED);
    await tx.getRepository(LearnedImportRow).insert({ learned: learned as never });
  });
  return learnedOf(db);
}

export async function forgetImports(db: DataSource): Promise<Learned> {
  await db.transaction(async (tx) => {
    await tx.query(MOVED);
    await tx.getRepository(LearnedImportRow).createQueryBuilder().delete().execute();
  });
  return learnedOf(db);
}

/** The document of the shop with a tag; worked out again only when something changed. */
export interface Tagged {
  readonly version: string;
  readonly tag: string;
  readonly json: string;
}
const documents = new WeakMap<DataSource, Tagged>();

export async function shopDocument(db: DataSource): Promise<Tagged> {
  const { catalogue: c, learned: l } = await versionsOf(db);
  const version = `${c}.${l}`;
  const known = documents.get(db);
  if (known?.version === version) return known;
  const [catalogue, learned, imports] = await Promise.all([
    shopCatalogue(db),
    learnedOf(db),
    db.getRepository(LearnedImportRow).count(),
  ]);
  const body: ShopDocument = { catalogue, learned, imports };
  const json = JSON.stringify(body);
  // By content: after an older backup the same version may stand for something else.
  const made = { version, json, tag: `W/"${createHash('sha256').update(json).digest('hex').slice(0, 32)}"` };
  documents.set(db, made);
  return made;
}
