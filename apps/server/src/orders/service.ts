import {
  MAX_EVENTS_PER_ORDER,
  PAGE_SIZE,
  type EventStored,
  type OrderDocument,
  type OrderQuery,
  type OrderSummary,
  type Paged,
  type StoredEvent,
} from '@zealous/contracts';
import { judge, keptMachine, lessonOfOrder, type OrderEvent } from '@zealous/core';
import { MoreThan, type DataSource, type EntityManager } from 'typeorm';
import { EventRow, MachineRow, OrderRow } from '../db/entities';
import { notFound, Problem } from '../http/problem';
import { present } from '../machines';
import { catalogueOf, keepLesson } from '../shop';
import { indexOf } from './summary';

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

export async function listOrders(db: DataSource, query: OrderQuery): Promise<Paged<OrderSummary>> {
  const page = query.page ?? 1;
  const [rows, total] = await db.getRepository(OrderRow).findAndCount({
    where: {
      ...(query.status ? { status: query.status } : {}),
      ...(query.machine ? { machineId: query.machine } : {}),
    },
    order: { openedAt: 'DESC' },
    take: PAGE_SIZE,
    skip: (page - 1) * PAGE_SIZE,
  });
  return { items: rows.map(summaryOf), page, total };
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

/** @throws Problem 404 */
export async function orderDocument(db: DataSource, id: string): Promise<OrderDocument> {
  const row = await db.getRepository(OrderRow).findOneBy({ id });
  if (!row) throw notFound('work order');
  return { id, machine: present(row.machine), events: await eventsAfter(db, id, 0) };
}

/** The order's row, locked; made when the event is the one that takes the machine in. */
async function lockedOrder(
  tx: EntityManager,
  orderId: string,
  event: OrderEvent,
): Promise<{ row: OrderRow; fresh: boolean }> {
  const orders = tx.getRepository(OrderRow);
  const known = await orders.findOne({ where: { id: orderId }, lock: { mode: 'pessimistic_write' } });
  if (known) return { row: known, fresh: false };
  if (event.type !== 'taken-in') throw notFound('work order');
  const machine = await tx.getRepository(MachineRow).findOneBy({ id: event.body.machineId });
  if (!machine)
    throw new Problem(
      409,
      'The order does not take this entry',
      `There is no machine "${event.body.machineId}".`,
      '/body/machineId',
    );
  const at = new Date(event.at);
  const row = orders.create({
    id: orderId,
    machineId: machine.id,
    number: event.body.number,
    status: 'open',
    machine: present(machine.description),
    openedAt: at,
    closedAt: null,
    lastEventAt: at,
  });
  return { row, fresh: true };
}

/**
 * Stores one event, once: the same id again is answered with where it stands already.
 *
 * @throws Problem 404 for an unknown order, 409 when the id belongs to another order or event; RefusedEvent when the order does not take it.
 */
export async function appendEvent(db: DataSource, orderId: string, event: OrderEvent): Promise<EventStored> {
  return db.transaction(async (tx) => {
    // Two messages for one order follow one another, also while the order is being made.
    await tx.query('select pg_advisory_xact_lock(hashtextextended($1, 0))', [orderId]);
    const { row, fresh } = await lockedOrder(tx, orderId, event);
    const stored = await tx.getRepository(EventRow).findOneBy({ id: event.id });
    if (stored) {
      if (stored.orderId !== orderId || stored.type !== event.type)
        throw new Problem(409, 'Id in use', 'Another event has this id already. Record it again.', '/id');
      return { seq: stored.seq, already: true };
    }
    const events = fresh ? [] : (await eventsAfter(tx, orderId, 0)).map((item) => item.event);
    if (events.length >= MAX_EVENTS_PER_ORDER)
      throw new Problem(
        409,
        'The order is full',
        `An order holds ${MAX_EVENTS_PER_ORDER} events at most. Close it and take the machine in again.`,
      );
    const machine = keptMachine(present(row.machine));
    const catalogue = await catalogueOf(tx);
    const state = judge(machine, catalogue, events, event);
    const wasClosed = row.closedAt !== null;
    row.index = indexOf(machine, catalogue, state);
    row.status = state.closed ? 'closed' : 'open';
    row.closedAt = state.closed ? new Date(state.closed.at) : null;
    row.lastEventAt = new Date(Math.max(row.lastEventAt.getTime(), Date.parse(event.at)));
    await tx.getRepository(OrderRow).save(row);
    const seq = events.length + 1;
    await tx.getRepository(EventRow).insert({
      id: event.id,
      orderId,
      seq,
      type: event.type,
      at: new Date(event.at),
      by: event.by,
      body: event.body as object,
    });
    // A closed and proved order teaches; a closing that is withdrawn takes its lesson with it.
    if (state.closed || wasClosed)
      await keepLesson(tx, orderId, state.closed && lessonOfOrder(machine, catalogue, state));
    return { seq, already: false };
  });
}
