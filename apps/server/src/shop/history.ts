import type { ShopHistory } from '@zealous/contracts';
import type { DataSource } from 'typeorm';

const MOST_PARTS = 500;

/** Which remedies worked on which filament, and which makers' parts were fitted and came back, over all orders. */
export async function shopHistory(db: DataSource): Promise<ShopHistory> {
  const tried: ShopHistory['tried'] = await db.query(`
    select what as remedy, material, count(*)::int as tried, (count(*) filter (where good))::int as cleared
    from order_fact where kind = 'rung' group by 1, 2 order by 1, 2`);
  const solvents: ShopHistory['solvents'] = await db.query(`
    select what as solvent, material, count(*)::int as tried, (count(*) filter (where good))::int as softened
    from order_fact where kind = 'solvent' group by 1, 2 order by 1, 2`);
  const parts: ShopHistory['parts'] = await db.query(
    `select p.what as part, p.maker, coalesce(p.batch, '') as batch, o.machine ->> 'name' as machine,
      to_char(p.at at time zone 'UTC', 'YYYY-MM-DD') as at, p.again
    from (
      select what, maker, batch, order_id, at,
        lead(at) over (partition by machine_id, station order by at) is not null as again
      from order_fact where kind = 'part') p
    join work_order o on o.id = p.order_id
    where p.maker is not null order by p.at desc limit $1`,
    [MOST_PARTS],
  );
  const ended: readonly { part: string; offer: string | null; maker: string | null; hours: number }[] = await db.query(
    `select part, hours, offer, maker from (
      select what as part, old_hours as hours, at,
        lag(offer) over fitted as offer, lag(maker) over fitted as maker
      from order_fact where kind = 'part'
      window fitted as (partition by machine_id, station, what order by at)) p
    where hours > 0 order by at desc limit $1`,
    [MOST_PARTS],
  );
  const lives = ended.map(({ part, offer, maker, hours }) => ({
    part,
    ...(offer === null ? {} : { offer }),
    ...(maker === null ? {} : { maker }),
    hours,
    ended: true,
  }));
  return { tried, parts, solvents, lives };
}
