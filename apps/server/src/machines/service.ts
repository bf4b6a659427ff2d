import type { MachineSummary } from '@zealous/contracts';
import type { Machine } from '@zealous/core';
import type { DataSource } from 'typeorm';
import { MachineRow } from '../db/entities';
import { notFound } from '../http/problem';

interface SummaryRow {
  readonly description: Machine;
  readonly orders: string;
  readonly open: string;
}

export async function listMachines(db: DataSource): Promise<readonly MachineSummary[]> {
  const rows = await db.query<SummaryRow[]>(`
    select m.description, count(o.id) as orders, count(o.id) filter (where o.status = 'open') as open
    from machine m left join work_order o on o.machine_id = m.id
    group by m.id order by m.description ->> 'name'`);
  return rows.map(({ description: { id, name, family, summary }, orders, open }) => ({
    id,
    name,
    family,
    summary,
    orders: Number(orders),
    openOrders: Number(open),
  }));
}

/** @throws Problem 404 */
export async function machineById(db: DataSource, id: string): Promise<Machine> {
  const row = await db.getRepository(MachineRow).findOneBy({ id });
  if (!row) throw notFound('machine');
  return row.description;
}

export async function saveMachine(db: DataSource, machine: Machine): Promise<void> {
  await db.getRepository(MachineRow).save({ id: machine.id, description: machine, updatedAt: new Date() });
}
