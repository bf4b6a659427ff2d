import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Everything in the catalogue can be the shop's own: tools, cautions, proofs, standing steps and the words of intake too. */
export class MoreShopKinds1790000400000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      alter table shop_change drop constraint shop_change_kind_check;
      alter table shop_change add constraint shop_change_kind_check
        check (kind in ('modes', 'checks', 'remedies', 'materials', 'solvents', 'terms', 'tools', 'cautions', 'proofs',
          'standing', 'symptoms', 'onsets', 'dimensions', 'before'));
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      delete from shop_change where kind not in ('modes', 'checks', 'remedies', 'materials', 'solvents', 'terms');
      alter table shop_change drop constraint shop_change_kind_check;
      alter table shop_change add constraint shop_change_kind_check
        check (kind in ('modes', 'checks', 'remedies', 'materials', 'solvents', 'terms'));
    `);
  }
}
