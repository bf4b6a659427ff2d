import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A closed order is read for ever by the catalogue that it was closed with, whatever the shop or a delivery changes later. */
export class KeptCatalogue1790000600000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create table catalogue_kept (
        hash text primary key check (length(hash) = 64),
        catalogue jsonb not null,
        kept_at timestamptz not null default now()
      );
      alter table work_order add column catalogue text references catalogue_kept (hash);
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('alter table work_order drop column catalogue; drop table catalogue_kept;');
  }
}
