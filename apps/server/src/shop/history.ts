import type { ShopHistory } from '@zealous/contracts';
import type { DataSource } from 'typeorm';

const MOST_PARTS = 500;
/** Entries that were withdrawn count for nothing. */
const LIVE = (event: string): string => `not exists (
  select 1 from order_event w
  where w.order_id = ${event}.order_id and w.type = 'event-withdrawn' and w.body ->> 'eventId' = ${event}.id::text)`;

/** Which remedies worked on which filament, and which makers' parts were fitted and came back, over all orders. */
export async function shopHistory(db: DataSource): Promise<ShopHistory> {
  const tried: ShopHistory['tried'] = await db.query(`
    select t.body ->> 'remedy' as remedy, coalesce(i.body ->> 'material', 'unknown') as material,
      count(*)::int as tried, (count(*) filter (where t.body ->> 'outcome' = 'cleared'))::int as cleared
    from order_event t
    join order_event i on i.order_id = t.order_id and i.type = 'taken-in'
    where t.type = 'rung-tried' and ${LIVE('t')}
    group by 1, 2 order by 1, 2`);
  const parts: ShopHistory['parts'] = await db.query(
    `select p.body ->> 'part' as part, p.body ->> 'maker' as maker, coalesce(p.body ->> 'batch', '') as batch,
      o.machine ->> 'name' as machine, to_char(p.at at time zone 'UTC', 'YYYY-MM-DD') as at,
      exists (
        select 1 from order_event later join work_order o2 on o2.id = later.order_id
        where later.type = 'part-replaced' and o2.machine_id = o.machine_id and later.at > p.at
          and later.body ->> 'station' = p.body ->> 'station' and ${LIVE('later')}) as again
    from order_event p join work_order o on o.id = p.order_id
    where p.type = 'part-replaced' and p.body ? 'maker' and ${LIVE('p')}
    order by p.at desc limit $1`,
    [MOST_PARTS],
  );
  const solvents: ShopHistory['solvents'] = await db.query(`
    select s.body ->> 'solvent' as solvent, coalesce(i.body ->> 'material', 'unknown') as material,
      count(*)::int as tried, (count(*) filter (where (s.body ->> 'softened')::boolean))::int as softened
    from order_event s
    join order_event i on i.order_id = s.order_id and i.type = 'taken-in'
    where s.type = 'solvent-tried' and ${LIVE('s')}
    group by 1, 2 order by 1, 2`);
  const ended: readonly { part: string; offer: string | null; maker: string | null; hours: number }[] = await db.query(
    `select p.body ->> 'part' as part, (p.body ->> 'oldHours')::float as hours, old.offer, old.maker
    from order_event p join work_order o on o.id = p.order_id
    left join lateral (
      select f.body ->> 'offer' as offer, f.body ->> 'maker' as maker
      from order_event f join work_order o2 on o2.id = f.order_id
      where f.type = 'part-replaced' and o2.machine_id = o.machine_id and f.at < p.at
        and f.body ->> 'station' = p.body ->> 'station' and f.body ->> 'part' = p.body ->> 'part' and ${LIVE('f')}
      order by f.at desc limit 1) old on true
    where p.type = 'part-replaced' and (p.body ->> 'oldHours')::float > 0 and ${LIVE('p')}
    order by p.at desc limit $1`,
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
