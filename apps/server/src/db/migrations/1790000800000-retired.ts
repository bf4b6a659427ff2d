import type { MigrationInterface, QueryRunner } from 'typeorm';

/** A machine that left the shop: out of the lists, kept with its orders. */
export class Retired1790000800000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('alter table machine add column retired_at timestamptz;');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('alter table machine drop column retired_at;');
  }
}
