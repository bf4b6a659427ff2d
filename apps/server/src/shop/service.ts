import type { ShopDocument } from '@zealous/contracts';
import {
  deliveredCatalogue,
  learn,
  nothingLearned,
  soundCatalogue,
  together,
  type Catalogue,
  type ChangeKind,
  type Learned,
  type Lesson,
  type ShopCatalogue,
  type ShopChange,
} from '@zealous/core';
import { parseShopCatalogue } from '@zealous/core/formats';
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

/** The last catalogue that was put together; what is worked out for an order is kept beside its object. */
let kept: { readonly key: string; readonly catalogue: Catalogue } | undefined;

/** The delivered catalogue with the shop's changes. */
export async function catalogueOf(db: Db): Promise<Catalogue> {
  const shop = await shopCatalogue(db);
  const key = JSON.stringify(shop.changes);
  if (kept?.key !== key) {
    // A change that does not hold together with what is delivered now cannot stop an open order.
    const { catalogue, leftOut } = soundCatalogue(deliveredCatalogue, shop);
    for (const { change, why } of leftOut)
      process.stderr.write(`shop catalogue: ${change.kind}/${change.id} is left out: ${why}\n`);
    kept = { key, catalogue };
  }
  return kept.catalogue;
}

/** Stores the changes, all or none. @throws FormatError when the catalogue would not hold together with them */
async function store(tx: EntityManager, changes: readonly ShopChange[]): Promise<void> {
  parseShopCatalogue(
    JSON.parse(JSON.stringify({ format: 'zealous-tracer/shop-catalogue', version: 1, changes })),
    deliveredCatalogue,
  );
  const rows = tx.getRepository(ShopChangeRow);
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

export const replaceChanges = (db: DataSource, shop: ShopCatalogue): Promise<ShopCatalogue> =>
  locked(db, async (tx) => {
    await store(tx, shop.changes);
    return shopCatalogue(tx);
  });

/** What this shop's own orders taught, and what was imported. */
export async function learnedOf(db: Db): Promise<Learned> {
  const lessons = await db.getRepository(LessonRow).find();
  const own = lessons.reduce(
    (learned, { family, machineId, counts }) => learn(learned, { family, machine: machineId, counts }),
    nothingLearned,
  );
  const imports = await db.getRepository(LearnedImportRow).find();
  return imports.reduce((learned, { learned: more }) => together(learned, more), own);
}

export async function keepLesson(tx: EntityManager, orderId: string, lesson: Lesson | undefined): Promise<void> {
  const rows = tx.getRepository(LessonRow);
  if (!lesson) {
    await rows.delete({ orderId });
    return;
  }
  await rows.save({ orderId, family: lesson.family, machineId: lesson.machine, counts: lesson.counts });
}

export async function importLearned(db: DataSource, learned: Learned): Promise<Learned> {
  await db.getRepository(LearnedImportRow).insert({ learned: learned as never });
  return learnedOf(db);
}

export async function forgetImports(db: DataSource): Promise<Learned> {
  await db.getRepository(LearnedImportRow).createQueryBuilder().delete().execute();
  return learnedOf(db);
}

export async function shopDocument(db: DataSource): Promise<ShopDocument> {
  const [catalogue, learned, imports] = await Promise.all([
    shopCatalogue(db),
    learnedOf(db),
    db.getRepository(LearnedImportRow).count(),
  ]);
  return { catalogue, learned, imports };
}
