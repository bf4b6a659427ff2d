import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Filaments, solvents and the shop's terms can be the shop's own too. */
export class ShopKinds1790000300000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table shop_change drop constraint shop_change_kind_check;
      alter table shop_change add constraint shop_change_kind_check
        check (kind in ('modes', 'checks', 'remedies', 'materials', 'solvents', 'terms'));
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      delete from shop_change where kind not in ('modes', 'checks', 'remedies');
      alter table shop_change drop constraint shop_change_kind_check;
      alter table shop_change add constraint shop_change_kind_check check (kind in ('modes', 'checks', 'remedies'));
    `);
  }
}
