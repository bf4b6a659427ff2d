import 'reflect-metadata';
import { DataSource } from 'typeorm';
import { EventRow, LearnedImportRow, LessonRow, MachineRow, OrderRow, PhotoRow, ShopChangeRow } from './entities';
import { Orders1790000000000 } from './migrations/1790000000000-orders';
import { Photos1790000200000 } from './migrations/1790000200000-photos';
import { Shop1790000100000 } from './migrations/1790000100000-shop';
import { MoreShopKinds1790000400000 } from './migrations/1790000400000-moreShopKinds';
import { ShopKinds1790000300000 } from './migrations/1790000300000-shopKinds';

/** @param url postgres:// address of the project's own database */
export const dataSource = (url: string): DataSource =>
  new DataSource({
    type: 'postgres',
    url,
    entities: [MachineRow, OrderRow, EventRow, ShopChangeRow, LessonRow, LearnedImportRow, PhotoRow],
    migrations: [
      Orders1790000000000,
      Shop1790000100000,
      Photos1790000200000,
      ShopKinds1790000300000,
      MoreShopKinds1790000400000,
    ],
    synchronize: false,
    poolSize: 10,
    extra: { connectionTimeoutMillis: 5000 },
  });
