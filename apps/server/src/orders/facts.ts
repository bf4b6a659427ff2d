import type { OrderEvent } from '@zealous/core';
import type { EntityManager } from 'typeorm';

interface Fact {
  readonly kind: 'rung' | 'part' | 'solvent';
  readonly what: string;
  readonly good: boolean;
  readonly station?: string;
  readonly offer?: string;
  readonly maker?: string;
  readonly batch?: string;
  readonly oldHours?: number;
}

/** What an entry tells the shop beyond its order. */
function factOf(event: OrderEvent): Fact | undefined {
  switch (event.type) {
    case 'rung-tried':
      return { kind: 'rung', what: event.body.remedy, good: event.body.outcome === 'cleared' };
    case 'solvent-tried':
      return { kind: 'solvent', what: event.body.solvent, good: event.body.softened };
    case 'part-replaced': {
      const { part, station, offer, maker, batch, oldHours } = event.body;
      return {
        kind: 'part',
        what: part,
        good: true,
        station,
        ...(offer === undefined ? {} : { offer }),
        ...(maker === undefined ? {} : { maker }),
        ...(batch === undefined ? {} : { batch }),
        ...(oldHours === undefined ? {} : { oldHours }),
      };
    }
    default:
      return undefined;
  }
}

/** Keeps the shop's facts with an entry, in its transaction: one that is withdrawn takes its fact along. */
export async function keepFact(
  tx: EntityManager,
  order: { readonly id: string; readonly machineId: string; readonly material: string },
  event: OrderEvent,
): Promise<void> {
  if (event.type === 'event-withdrawn') {
    await tx.query('delete from order_fact where event_id = $1', [event.body.eventId]);
    return;
  }
  const fact = factOf(event);
  if (!fact) return;
  const { kind, what, good, station, offer, maker, batch, oldHours } = fact;
  await tx.query(
    `insert into order_fact (event_id, order_id, machine_id, kind, at, material, what, good, station, offer, maker, batch, old_hours)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13)`,
    [
      event.id,
      order.id,
      order.machineId,
      kind,
      event.at,
      order.material,
      what,
      good,
      station ?? null,
      offer ?? null,
      maker ?? null,
      batch ?? null,
      oldHours ?? null,
    ],
  );
}
