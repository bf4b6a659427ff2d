import { MAX_EVENTS_PER_ORDER, type EventStored } from '@zealous/contracts';
import {
  judge,
  keptMachine,
  type Catalogue,
  type Lesson,
  type Machine,
  type OrderEvent,
  type OrderState,
} from '@zealous/core';
import { LRUCache } from 'lru-cache';
import { isDeepStrictEqual } from 'node:util';
import { QueryFailedError, type DataSource, type EntityManager } from 'typeorm';
import { MachineRow, type OrderIndex } from '../db/entities';
import { notFound, Problem } from '../http/problem';
import { present } from '../machines';
import { catalogueKept, catalogueOf, hashOf, keepCatalogue, keepLesson } from '../shop';
import { lessonInThread } from '../work/pool';
import type { IndexTask } from '../work/tasks';
import { INDEX_VERSION, type Derived } from './derived';
import { keepFact } from './facts';
import { eventsAfter } from './service';
import { bareIndex } from './summary';

interface Recent {
  readonly seq: number;
  readonly events: readonly OrderEvent[];
  /** What they reduce to by `catalogue`. */
  readonly state: OrderState;
  readonly catalogue: Catalogue;
}

/** Entries and states of the orders that were written to last, so that the next one need neither read nor reduce them again. */
const recent = new LRUCache<string, Recent>({ max: 500 });

interface Locked {
  readonly id: string;
  readonly machineId: string;
  readonly machine: Machine;
  readonly index?: Partial<OrderIndex>;
  readonly closed: boolean;
  readonly lastEventAt: Date;
  readonly openedAt: Date;
  readonly seq: number;
  readonly fresh: boolean;
  /** Version of the shop's catalogue at this moment. */
  readonly catalogue?: number;
  /** Hash of the catalogue that it was closed with. */
  readonly kept: string | null;
}

interface LockedRow {
  readonly machine_id: string;
  readonly index: Partial<OrderIndex>;
  readonly closed_at: Date | null;
  readonly last_event_at: Date;
  readonly opened_at: Date;
  readonly seq: number;
  readonly catalogue: number;
  readonly kept: string | null;
}

/** Machines of the orders that were written to last: an order keeps the description that it was taken in with. */
const machines = new LRUCache<string, Machine>({ max: 500 });

async function machineOfOrder(tx: EntityManager, id: string): Promise<Machine> {
  const known = machines.get(id);
  if (known) return known;
  const [row] = await tx.query<{ machine: unknown }[]>('select machine from work_order where id = $1', [id]);
  const machine = keptMachine(present(row?.machine));
  machines.set(id, machine);
  return machine;
}

/** An order that is there, locked; everything that an entry needs of it in one question. */
async function known(tx: EntityManager, id: string): Promise<Locked | undefined> {
  const [row] = await tx.query<LockedRow[]>(
    `select machine_id, "index", closed_at, last_event_at, opened_at, seq, catalogue as kept,
      (select catalogue_version from shop_state) as catalogue from work_order where id = $1 for update`,
    [id],
  );
  return (
    row && {
      id,
      machineId: row.machine_id,
      machine: await machineOfOrder(tx, id),
      index: row.index,
      closed: row.closed_at !== null,
      lastEventAt: row.last_event_at,
      openedAt: row.opened_at,
      seq: row.seq,
      fresh: false,
      catalogue: row.catalogue,
      kept: row.kept,
    }
  );
}

/** The order, locked; begun when the event is the one that takes the machine in. */
async function lockedOrder(tx: EntityManager, id: string, event: OrderEvent): Promise<Locked> {
  const there = await known(tx, id);
  if (there) return there;
  // Two messages that both begin an order follow one another.
  await tx.query('select pg_advisory_xact_lock(hashtextextended($1, 0))', [id]);
  const meanwhile = await known(tx, id);
  if (meanwhile) return meanwhile;
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
  return {
    id,
    machineId: machine.id,
    machine: keptMachine(present(machine.description)),
    closed: false,
    lastEventAt: at,
    openedAt: at,
    seq: 0,
    fresh: true,
    kept: null,
  };
}

const entriesOf = async (
  tx: EntityManager,
  { id, seq, fresh }: Locked,
): Promise<Pick<Recent, 'events'> & Partial<Recent>> => {
  if (fresh) return { events: [] };
  const known = recent.get(id);
  if (known?.seq === seq) return known;
  return { events: (await eventsAfter(tx, id, 0)).map((item) => item.event) };
};

/** The same id again: nothing new when it says the same, a clash when it does not. @throws Problem 409 with both */
function seenBefore(events: readonly OrderEvent[], event: OrderEvent): number | undefined {
  const at = events.findIndex(({ id }) => id === event.id);
  const stored = events[at];
  if (!stored) return undefined;
  const plain = ({ at: when, ...rest }: OrderEvent) => ({ ...rest, at: new Date(when).getTime() });
  if (!isDeepStrictEqual(plain(stored), plain(JSON.parse(JSON.stringify(event)) as OrderEvent)))
    throw new Problem(409, 'Id in use', 'Another entry has this id already. Record it again.', '/id', {
      stored,
      sent: event,
    });
  return at + 1;
}

/** Another order may have taken the id meanwhile: PostgreSQL's unique_violation. */
const isTaken = (error: unknown): boolean =>
  error instanceof QueryFailedError && (error.driverError as { readonly code?: string }).code === '23505';

/**
 * Stores one event, once: the same id again is answered with where it stands already. What lists show of the order is worked
 * out afterwards, outside the transaction.
 *
 * @throws Problem 404 for an unknown order, 409 when the id belongs to another order or event; RefusedEvent when the order does not take it.
 */
export async function appendEvent(
  db: DataSource,
  orderId: string,
  event: OrderEvent,
  derived?: Derived,
): Promise<EventStored> {
  let taught: Taught | undefined;
  try {
    for (;;) {
      const done = await db.transaction((tx) => append(tx, orderId, event, taught));
      if ('teaches' in done) {
        // A thread may take longer than the database lets a transaction idle. What came meanwhile is reckoned with anew.
        taught = { by: done.teaches, lesson: await lessonInThread(done.teaches) };
        continue;
      }
      const { seq, now } = done;
      if (now) {
        recent.set(orderId, now);
        derived?.schedule(orderId);
      }
      return { seq, already: !now };
    }
  } catch (error) {
    if (isTaken(error))
      throw new Problem(409, 'Id in use', 'Another entry has this id already. Record it again.', '/id');
    throw error;
  }
}

/** What an order teaches, and what it was reckoned from. */
interface Taught {
  readonly by: IndexTask;
  readonly lesson: Lesson | undefined;
}

const reckonedFrom = (task: IndexTask, taught: Taught | undefined): taught is Taught =>
  taught !== undefined &&
  taught.by.events.length === task.events.length &&
  hashOf(taught.by.catalogue) === hashOf(task.catalogue);

/** Stores the event; or says from what its lesson is to be reckoned first, and stores nothing. */
async function append(
  tx: EntityManager,
  orderId: string,
  event: OrderEvent,
  taught: Taught | undefined,
): Promise<{ readonly seq: number; readonly now?: Recent } | { readonly teaches: IndexTask }> {
  const order = await lockedOrder(tx, orderId, event);
  const before = await entriesOf(tx, order);
  const { events } = before;
  const seen = seenBefore(events, event);
  if (seen !== undefined) return { seq: seen };
  if (events.length >= MAX_EVENTS_PER_ORDER)
    throw new Problem(
      409,
      'The order is full',
      `An order holds ${MAX_EVENTS_PER_ORDER} events at most. Close it and take the machine in again.`,
    );
  const { machine } = order;
  const catalogue = await catalogueKept(tx, order.kept, await catalogueOf(tx, order.catalogue));
  // As it will be read again: without the class of the message.
  const plain = JSON.parse(JSON.stringify(event)) as OrderEvent;
  const state = judge(machine, catalogue, events, plain, before.catalogue === catalogue ? before.state : undefined);
  const seq = events.length + 1;
  const whole = [...events, plain];
  // Only its own entries close and open an order: a catalogue that knows less now changes nothing of that.
  const closed = event.type === 'closed' || (order.closed && !withdrawsClosing(events, event));
  // A closed and proved order teaches; a closing that is withdrawn takes its lesson with it.
  const teaches = closed && !order.closed ? { machine, catalogue, events: whole } : undefined;
  if (teaches && !reckonedFrom(teaches, taught)) return { teaches };
  const closedAt = closed ? new Date(state.closed?.at ?? order.lastEventAt) : null;
  const lastEventAt = new Date(Math.max(order.lastEventAt.getTime(), Date.parse(event.at)));
  const index = JSON.stringify(bareIndex(machine, catalogue, state, order.index));
  const entry = [event.id, event.type, event.at, event.by, JSON.stringify(event.body)];
  // What closes an order is what it is read by from then on; opened again it goes by the present catalogue.
  const kept = !closed ? null : order.closed ? order.kept : await keepCatalogue(tx, catalogue);
  // The row and the entry in one question: each costs a way to the database and back.
  if (order.fresh)
    await tx.query(
      `with begun as (
        insert into work_order (id, machine_id, number, status, machine, "index", opened_at, last_event_at, seq, index_seq, index_version)
        values ($1, $2, $3, 'open', $4, $5, $6, $7, 1, 0, $8) returning id)
       insert into order_event (id, order_id, seq, type, at, by, body)
       select $9::uuid, begun.id, 1, $10, $11::timestamptz, $12, $13::jsonb from begun`,
      [
        orderId,
        order.machineId,
        state.intake?.number,
        JSON.stringify(machine),
        index,
        order.openedAt,
        lastEventAt,
        INDEX_VERSION,
        ...entry,
      ],
    );
  else
    await tx.query(
      `with changed as (
        update work_order set status = $2, closed_at = $3, last_event_at = $4, "index" = $5, seq = $6, index_version = $7, catalogue = $13
        where id = $1 returning id)
       insert into order_event (id, order_id, seq, type, at, by, body)
       select $8::uuid, changed.id, $6, $9, $10::timestamptz, $11, $12::jsonb from changed`,
      [orderId, closed ? 'closed' : 'open', closedAt, lastEventAt, index, seq, INDEX_VERSION, ...entry, kept],
    );
  await keepFact(tx, { id: orderId, machineId: order.machineId, material: state.intake?.material ?? 'unknown' }, event);
  if (closed !== order.closed) await keepLesson(tx, orderId, teaches && taught?.lesson);
  return { seq, now: { seq, events: whole, state, catalogue } };
}

const withdrawsClosing = (events: readonly OrderEvent[], event: OrderEvent): boolean =>
  event.type === 'event-withdrawn' && events.some(({ id, type }) => type === 'closed' && id === event.body.eventId);
