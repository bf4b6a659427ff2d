import 'reflect-metadata';
import { DataSource } from 'typeorm';
import { EventRow, MachineRow, OrderRow } from './entities';
import { Orders1790000000000 } from './migrations/1790000000000-orders';

/** @param url postgres:// address of the project's own database */
export const dataSource = (url: string): DataSource =>
  new DataSource({
    type: 'postgres',
    url,
    entities: [MachineRow, OrderRow, EventRow],
    migrations: [Orders1790000000000],
    synchronize: false,
    poolSize: 10,
    extra: { connectionTimeoutMillis: 5000 },
  });
