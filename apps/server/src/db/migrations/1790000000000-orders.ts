import type { MigrationInterface, QueryRunner } from 'typeorm';

export class Orders1790000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create table machine (
        id text primary key check (length(id) between 1 and 60),
        description jsonb not null,
        updated_at timestamptz not null default now()
      );
      create table work_order (
        id uuid primary key,
        machine_id text not null references machine (id),
        number text not null check (length(number) between 1 and 30),
        status text not null check (status in ('open', 'closed')),
        machine jsonb not null,
        "index" jsonb not null,
        opened_at timestamptz not null,
        closed_at timestamptz,
        last_event_at timestamptz not null,
        check ((status = 'closed') = (closed_at is not null))
      );
      create index work_order_by_status on work_order (status, opened_at desc);
      create index work_order_by_machine on work_order (machine_id, opened_at desc);
      create table order_event (
        id uuid primary key,
        order_id uuid not null references work_order (id),
        seq integer not null check (seq > 0),
        type text not null,
        at timestamptz not null,
        by text not null check (length(by) between 1 and 60),
        body jsonb not null,
        received_at timestamptz not null default now(),
        unique (order_id, seq)
      );
      create function refuse_change() returns trigger language plpgsql as $$
        begin raise exception 'order events are only appended'; end $$;
      create trigger order_event_append_only before update or delete on order_event
        for each row execute function refuse_change();
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(
      'drop table order_event; drop function refuse_change; drop table work_order; drop table machine;',
    );
  }
}
