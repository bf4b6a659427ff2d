import { keptMachine, type OrderEvent } from '@zealous/core';
import type { DataSource } from 'typeorm';
import type { OrderIndex } from '../db/entities';
import { storeProblem } from '../http/problem';
import { present } from '../machines';
import { catalogueKept, catalogueOf } from '../shop';
import { indexInThread } from '../work/pool';

/**
 * Version of what is derived from an order's entries for lists. Raise it when `OrderIndex` or what it says changes: rows of
 * another version are worked out anew, at the start, by `npm run rebuild`, and when a list comes by them.
 */
export const INDEX_VERSION = 2;

interface Row {
  readonly seq: number;
  readonly machine: unknown;
  readonly catalogue: string | null;
  readonly events: readonly OrderEvent[] | null;
}

/** Events of an order as one JSON array, in their order; times in UTC with milliseconds. */
const WHOLE = `
  select o.seq, o.machine, o.catalogue, (
    select json_agg(json_build_object('id', e.id, 'at', to_char(e.at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"'),
      'by', e.by, 'type', e.type, 'body', e.body) order by e.seq)
    from order_event e where e.order_id = o.id) as events
  from work_order o where o.id = $1`;

/** Keeps what lists show of orders up to date, after entries are stored and outside their transaction. */
export class Derived {
  /** By order, the moment from which it may be worked out. */
  private readonly waiting = new Map<string, number>();
  private readonly running = new Map<string, Promise<void>>();
  private timer: NodeJS.Timeout | undefined;
  private ended = false;

  constructor(private readonly db: DataSource) {}

  /** Once the order has been quiet for a moment; asked again it waits anew, so that a burst of entries costs one working out. */
  schedule(id: string, quietMs = QUIET_MS): void {
    if (this.ended) return;
    this.waiting.set(id, Date.now() + quietMs);
    this.next();
  }

  private next(): void {
    clearTimeout(this.timer);
    const now = Date.now();
    let soonest = Infinity;
    for (const [id, due] of this.waiting) {
      if (this.running.size >= AT_ONCE || this.ended) return;
      if (this.running.has(id)) continue;
      if (due > now) soonest = Math.min(soonest, due);
      else {
        this.waiting.delete(id);
        this.start(id);
      }
    }
    if (soonest < Infinity) this.timer = setTimeout(() => this.next(), soonest - now);
  }

  private start(id: string): void {
    const work = this.workOut(id)
      .catch((error: unknown) => {
        // The list shows what is there; the next entry, list or start tries again.
        if (!this.ended && !storeProblem(error as Error))
          process.stderr.write(`order ${id}: not worked out: ${(error as Error).message}\n`);
      })
      .finally(() => {
        this.running.delete(id);
        this.next();
      });
    this.running.set(id, work);
  }

  /** Up to date, as far as it can be; never throws. It waits in the same queue as all others. */
  async refresh(id: string): Promise<void> {
    this.waiting.set(id, 0);
    this.next();
    while (!this.ended && (this.waiting.has(id) || this.running.has(id)))
      await (this.running.get(id) ?? Promise.race(this.running.values()));
  }

  private async workOut(id: string): Promise<void> {
    const [row] = await this.db.query<Row[]>(WHOLE, [id]);
    if (!row?.events) return;
    const machine = keptMachine(present(row.machine));
    const index: OrderIndex = await indexInThread({
      machine,
      catalogue: await catalogueKept(this.db, row.catalogue, await catalogueOf(this.db)),
      events: row.events,
    });
    await this.db.query(
      `update work_order set "index" = $2, index_seq = $3, index_version = $4 where id = $1 and (index_seq <= $3 or index_version <> $4)`,
      [id, JSON.stringify(index), row.seq, INDEX_VERSION],
    );
  }

  /** Orders whose row is of another version or behind its entries: open ones first. */
  async stale(most: number): Promise<readonly string[]> {
    const rows = await this.db.query<{ id: string }[]>(
      `select id from work_order where index_version <> $1 or index_seq < seq order by status desc, opened_at desc limit $2`,
      [INDEX_VERSION, most],
    );
    return rows.map(({ id }) => id);
  }

  /** When nothing waits and nothing runs any more. */
  async idle(): Promise<void> {
    while (this.waiting.size + this.running.size > 0) {
      for (const id of this.waiting.keys()) this.waiting.set(id, 0);
      this.next();
      await Promise.all(this.running.values());
    }
  }

  async stop(): Promise<void> {
    this.ended = true;
    clearTimeout(this.timer);
    this.waiting.clear();
    await Promise.all(this.running.values());
  }
}

/** One at a time: entries and lists go before. */
const AT_ONCE = 1;
/** Milliseconds without a further entry after which an order is worked out for the lists (chosen). */
const QUIET_MS = 700;
