import type { MachineSummary } from '@zealous/contracts';
import { migrateMachine, type Machine } from '@zealous/core';
import type { DataSource } from 'typeorm';
import { MachineRow } from '../db/entities';
import { notFound, Problem } from '../http/problem';

interface SummaryRow {
  readonly description: Machine;
  readonly retired_at: Date | null;
  readonly orders: string;
  readonly open: string;
}

/** The machines of the shop, or those that have left it. */
export async function listMachines(db: DataSource, retired = false): Promise<readonly MachineSummary[]> {
  const rows = await db.query<SummaryRow[]>(`
    select m.description, m.retired_at, count(o.id) as orders, count(o.id) filter (where o.status = 'open') as open
    from machine m left join work_order o on o.machine_id = m.id
    where m.retired_at is ${retired ? 'not null' : 'null'}
    group by m.id order by m.description ->> 'name'`);
  return rows.map(({ description, orders, open, retired_at: retiredAt }) => {
    const { id, name, family, summary } = present(description);
    return {
      id,
      name,
      family,
      summary,
      orders: Number(orders),
      openOrders: Number(open),
      ...(retiredAt ? { retiredAt: retiredAt.toISOString() } : {}),
    };
  });
}

/** A stored description in the present version; it may have been stored by an older program. */
export const present = (description: unknown): Machine => migrateMachine(description) as Machine;

/** @throws Problem 404 */
export async function machineById(db: DataSource, id: string): Promise<Machine> {
  const row = await db.getRepository(MachineRow).findOneBy({ id });
  if (!row) throw notFound('machine');
  return present(row.description);
}

export async function saveMachine(db: DataSource, machine: Machine): Promise<void> {
  await db.getRepository(MachineRow).save({ id: machine.id, description: machine, updatedAt: new Date() });
}

/** @throws Problem 409 when a machine has the id already */
export async function addMachine(db: DataSource, machine: Machine): Promise<Machine> {
  const made = await db.query<{ id: string }[]>(
    'insert into machine (id, description, updated_at) values ($1, $2, now()) on conflict do nothing returning id',
    [machine.id, JSON.stringify(machine)],
  );
  if (!made[0]) {
    const problem = `There is a machine "${machine.id}" already. Give this one another id, or change that one.`;
    throw new Problem(409, 'Id in use', problem, '/machine/id');
  }
  return machine;
}

/**
 * Changes a description. Open orders keep the one that they were taken in with.
 *
 * @throws Problem 404, or 409 when somebody changed it since `was` was read
 */
export async function changeMachine(db: DataSource, id: string, machine: Machine, was: Machine): Promise<Machine> {
  if (machine.id !== id) throw new Problem(422, 'Not in the expected form', 'the id of a machine stays', '/machine/id');
  return db.transaction(async (tx) => {
    const rows = tx.getRepository(MachineRow);
    const row = await rows.findOne({ where: { id }, lock: { mode: 'pessimistic_write' } });
    if (!row) throw notFound('machine');
    // JSONB does not keep the order of keys; what it holds is compared, not how it was written.
    const same = await tx.query<{ same: boolean }[]>('select $1::jsonb = $2::jsonb as same', [
      JSON.stringify(present(row.description)),
      JSON.stringify(was),
    ]);
    if (!same[0]?.same) {
      const problem = 'Somebody changed this machine meanwhile. Look at the present description, then change it again.';
      throw new Problem(409, 'Changed meanwhile', problem);
    }
    await rows.save({ id, description: machine, updatedAt: new Date() });
    return machine;
  });
}

/**
 * Takes a machine out of the shop's lists, or back into them; it is kept with its orders.
 *
 * @throws Problem 404, or 409 while an order of it is open
 */
export async function retireMachine(db: DataSource, id: string, retired: boolean): Promise<{ retired: boolean }> {
  return db.transaction(async (tx) => {
    const rows = tx.getRepository(MachineRow);
    const row = await rows.findOne({ where: { id }, lock: { mode: 'pessimistic_write' } });
    if (!row) throw notFound('machine');
    const [open] = await tx.query<{ n: number }[]>(
      "select count(*)::int as n from work_order where machine_id = $1 and status = 'open'",
      [id],
    );
    if (retired && open && open.n > 0) {
      const orders = open.n === 1 ? 'An order of it is' : `${open.n} orders of it are`;
      throw new Problem(409, 'Still on the bench', `${orders} open. Close what is open, then retire the machine.`);
    }
    await rows.update({ id }, { retiredAt: retired ? new Date() : null });
    return { retired };
  });
}
