import {
  PAGE_SIZE,
  type OrderDocument,
  type OrderQuery,
  type OrderSummary,
  type Paged,
  type StoredEvent,
} from '@zealous/contracts';
import type { OrderEvent } from '@zealous/core';
import { MoreThan, type DataSource, type EntityManager } from 'typeorm';
import { EventRow, OrderRow } from '../db/entities';
import { notFound } from '../http/problem';
import { present } from '../machines';
import { catalogueKept, catalogueOf, hashOf } from '../shop';
import { INDEX_VERSION, type Derived } from './derived';

const toEvent = (row: EventRow): OrderEvent =>
  ({ id: row.id, at: row.at.toISOString(), by: row.by, type: row.type, body: row.body }) as OrderEvent;

const summaryOf = (row: OrderRow): OrderSummary => ({
  ...row.index,
  id: row.id,
  number: row.number,
  machineId: row.machineId,
  status: row.status,
  openedAt: row.openedAt.toISOString(),
  lastEventAt: row.lastEventAt.toISOString(),
  ...(row.closedAt ? { closedAt: row.closedAt.toISOString() } : {}),
});

/** Rows of another version are told from those that are only behind: their fields may be missing. */
const readable = ({ index, indexVersion }: OrderRow): boolean =>
  indexVersion === INDEX_VERSION && typeof index.phase === 'string' && Array.isArray(index.timers);

/** An order whose list entry could not be worked out stays in the list, and can be opened. */
const unread = (row: OrderRow): OrderSummary => {
  const machine = row.machine;
  return {
    ...summaryOf(row),
    machineName: machine.name,
    phase: row.status === 'closed' ? 'record' : 'trace',
    next: 'Its summary cannot be shown now: open it',
    timers: [],
    heat: { temperatureC: machine.heat.ambientC, atMs: row.lastEventAt.getTime(), targetC: 0 },
    power: 'off',
    machineHeat: machine.heat,
  };
};

/** Milliseconds that a list waits for what is being worked out; then it shows what is there. */
const PATIENCE_MS = 400;

const soon = async (work: Promise<unknown>): Promise<void> => {
  let timer: NodeJS.Timeout | undefined;
  const enough = new Promise<void>((resolve) => {
    timer = setTimeout(resolve, PATIENCE_MS);
  });
  await Promise.race([work, enough]);
  clearTimeout(timer);
};

/** Open orders by how long they have waited, closed ones the latest first; by number or machine where words are given. */
export async function listOrders(db: DataSource, derived: Derived, query: OrderQuery): Promise<Paged<OrderSummary>> {
  const page = query.page ?? 1;
  const found = (): Promise<[OrderRow[], number]> => {
    const rows = db.getRepository(OrderRow).createQueryBuilder('o');
    if (query.status) rows.andWhere('o.status = :status', { status: query.status });
    if (query.machine) rows.andWhere('o.machine_id = :machine', { machine: query.machine });
    if (query.search)
      rows.andWhere(`(o.number ilike :words or o."index" ->> 'machineName' ilike :words)`, {
        words: `%${query.search.replace(/[\\%_]/g, '\\$&')}%`,
      });
    return rows
      .orderBy('o.opened_at', query.status === 'open' ? 'ASC' : 'DESC')
      .addOrderBy('o.id', 'ASC')
      .limit(PAGE_SIZE)
      .offset((page - 1) * PAGE_SIZE)
      .getManyAndCount();
  };
  let [rows, total] = await found();
  const stale = rows.filter((row) => row.indexSeq < row.seq || !readable(row));
  if (stale.length > 0) {
    await soon(Promise.all(stale.map(({ id }) => derived.refresh(id))));
    [rows, total] = await found();
  }
  return { items: rows.map((row) => (readable(row) ? summaryOf(row) : unread(row))), page, total };
}

export async function eventsAfter(
  db: DataSource | EntityManager,
  orderId: string,
  after: number,
): Promise<readonly StoredEvent[]> {
  const rows = await db
    .getRepository(EventRow)
    .find({ where: { orderId, seq: MoreThan(after) }, order: { seq: 'ASC' } });
  return rows.map((row) => ({ seq: row.seq, event: toEvent(row) }));
}

/** Whether an entry stands where whoever asks knows it to be. */
export const standsAt = (db: DataSource, orderId: string, seq: number, id: string): Promise<boolean> =>
  db.getRepository(EventRow).existsBy({ orderId, seq, id: id.toLowerCase() });

/** @throws Problem 404 */
export async function orderDocument(db: DataSource, id: string): Promise<OrderDocument> {
  const row = await db.getRepository(OrderRow).findOneBy({ id });
  if (!row) throw notFound('work order');
  const now = await catalogueOf(db);
  const own = await catalogueKept(db, row.catalogue, now);
  return {
    id,
    machine: present(row.machine),
    events: await eventsAfter(db, id, 0),
    ...(hashOf(own) === hashOf(now) ? {} : { catalogue: own }),
  };
}
