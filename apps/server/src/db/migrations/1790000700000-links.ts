import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Where a machine is on the line: its own matter, beside its description, which travels from shop to shop. */
export class Links1790000700000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      create table machine_link (
        machine_id text primary key references machine (id) on delete cascade,
        address text not null check (length(address) between 1 and 400)
      );
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('drop table machine_link;');
  }
}
