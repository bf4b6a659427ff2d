import { parseMachine, parseOrder } from '@zealous/core/formats';
import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import type { DataSource } from 'typeorm';
import { saveMachine } from '../machines';
import { appendEvent } from '../orders';
import { LinkRow, MachineRow } from './entities';

const filesIn = (folder: string): readonly unknown[] =>
  readdirSync(folder)
    .filter((name) => name.endsWith('.json'))
    .sort()
    .map((name) => JSON.parse(readFileSync(join(folder, name), 'utf8')) as unknown);

/** Loads the demo scenario from its open files into an empty database; what is there already is left alone. */
export async function loadDemo(db: DataSource, folder: string): Promise<number> {
  if ((await db.getRepository(MachineRow).count()) > 0) return 0;
  for (const file of filesIn(join(folder, 'machines'))) await saveMachine(db, parseMachine(file));
  const links = JSON.parse(readFileSync(join(folder, 'links.json'), 'utf8')) as Readonly<Record<string, string>>;
  for (const [machineId, address] of Object.entries(links))
    await db.getRepository(LinkRow).save({ machineId, address });
  const orders = filesIn(join(folder, 'orders')).map(parseOrder);
  for (const order of orders) for (const event of order.events) await appendEvent(db, order.id, event);
  return orders.length;
}
