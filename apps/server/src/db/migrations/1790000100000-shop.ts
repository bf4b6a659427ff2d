import type { MigrationInterface, QueryRunner } from 'typeorm';

export class Shop1790000100000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create table shop_change (
        kind text not null check (kind in ('modes', 'checks', 'remedies')),
        id text not null check (length(id) between 1 and 60),
        op text not null check (op in ('add', 'change', 'retire')),
        fields jsonb,
        note text,
        by text,
        changed_at timestamptz not null default now(),
        primary key (kind, id)
      );
      create table lesson (
        order_id uuid primary key references work_order (id) on delete cascade,
        family text not null,
        machine_id text not null,
        counts jsonb not null,
        learned_at timestamptz not null default now()
      );
      create table learned_import (
        id bigint generated always as identity primary key,
        learned jsonb not null,
        imported_at timestamptz not null default now()
      );
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('drop table learned_import; drop table lesson; drop table shop_change;');
  }
}
