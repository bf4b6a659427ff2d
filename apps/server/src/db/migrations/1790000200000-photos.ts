import type { MigrationInterface, QueryRunner } from 'typeorm';

export class Photos1790000200000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create table photo (
        id uuid primary key,
        order_id uuid not null references work_order (id) on delete cascade,
        mime text not null check (mime in ('image/jpeg', 'image/png', 'image/webp')),
        width_px integer not null check (width_px between 1 and 6000),
        height_px integer not null check (height_px between 1 and 6000),
        bytes bytea not null check (length(bytes) <= 3145728),
        stored_at timestamptz not null default now()
      );
      create index photo_order on photo (order_id);
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('drop table photo;');
  }
}
