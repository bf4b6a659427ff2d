import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Entries that were withdrawn count for nothing. */
const LIVE = `not exists (select 1 from order_event w
  where w.order_id = e.order_id and w.type = 'event-withdrawn' and w.body ->> 'eventId' = e.id::text)`;

/**
 * What is derived from events says of which version and of how many events it is; what the shop asks over all orders is kept
 * as it grows: facts of repairs, and the sum of what closed orders taught. Pictures know what was sent.
 */
export class Derived1790000500000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table photo add column digest text;
      alter table work_order add column seq integer not null default 0;
      alter table work_order add column index_version integer not null default 0;
      alter table work_order add column index_seq integer not null default 0;
      update work_order o set seq = coalesce((select max(e.seq) from order_event e where e.order_id = o.id), 0);
      create index work_order_stale on work_order (id) where index_seq < seq;

      create table order_fact (
        event_id uuid primary key references order_event (id),
        order_id uuid not null references work_order (id),
        machine_id text not null,
        kind text not null check (kind in ('rung', 'part', 'solvent')),
        at timestamptz not null,
        material text not null,
        what text not null,
        good boolean not null,
        station text,
        offer text,
        maker text,
        batch text,
        old_hours double precision
      );
      create index order_fact_kind on order_fact (kind, at desc);
      create index order_fact_order on order_fact (order_id);
      insert into order_fact
      select e.id, e.order_id, o.machine_id,
        case e.type when 'rung-tried' then 'rung' when 'part-replaced' then 'part' else 'solvent' end,
        e.at, coalesce(i.body ->> 'material', 'unknown'),
        coalesce(e.body ->> 'remedy', e.body ->> 'part', e.body ->> 'solvent'),
        case e.type when 'rung-tried' then e.body ->> 'outcome' = 'cleared'
          when 'solvent-tried' then (e.body ->> 'softened')::boolean else true end,
        e.body ->> 'station', e.body ->> 'offer', e.body ->> 'maker', e.body ->> 'batch', (e.body ->> 'oldHours')::float
      from order_event e join work_order o on o.id = e.order_id
      join order_event i on i.order_id = e.order_id and i.type = 'taken-in'
      where e.type in ('rung-tried', 'part-replaced', 'solvent-tried') and ${LIVE};

      create table shop_state (
        id integer primary key default 1 check (id = 1),
        catalogue_version integer not null default 1,
        learned_version integer not null default 1,
        learned jsonb
      );
      insert into shop_state default values;

      create trigger order_event_never_emptied before truncate on order_event
        for each statement execute function refuse_change();
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      drop trigger order_event_never_emptied on order_event;
      drop table shop_state;
      drop table order_fact;
      drop index work_order_stale;
      alter table photo drop column digest;
      alter table work_order drop column seq;
      alter table work_order drop column index_version;
      alter table work_order drop column index_seq;
    `);
  }
}
