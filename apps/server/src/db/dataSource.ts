import 'reflect-metadata';
import { DataSource } from 'typeorm';
import {
  EventRow,
  LearnedImportRow,
  LessonRow,
  LinkRow,
  MachineRow,
  OrderRow,
  PhotoRow,
  ShopChangeRow,
} from './entities';
import { Orders1790000000000 } from './migrations/1790000000000-orders';
import { Photos1790000200000 } from './migrations/1790000200000-photos';
import { Shop1790000100000 } from './migrations/1790000100000-shop';
import { Derived1790000500000 } from './migrations/1790000500000-derived';
import { KeptCatalogue1790000600000 } from './migrations/1790000600000-keptCatalogue';
import { Links1790000700000 } from './migrations/1790000700000-links';
import { MoreShopKinds1790000400000 } from './migrations/1790000400000-moreShopKinds';
import { Retired1790000800000 } from './migrations/1790000800000-retired';
import { ShopKinds1790000300000 } from './migrations/1790000300000-shopKinds';

/**
 * @param url postgres:// address of the project's own database
 * @param most connections at once; who asks for one more waits
 */
export const dataSource = (url: string, most = 10): DataSource =>
  new DataSource({
    type: 'postgres',
    url,
    entities: [MachineRow, LinkRow, OrderRow, EventRow, ShopChangeRow, LessonRow, LearnedImportRow, PhotoRow],
    migrations: [
      Orders1790000000000,
      Shop1790000100000,
      Photos1790000200000,
      ShopKinds1790000300000,
      MoreShopKinds1790000400000,
      Derived1790000500000,
      KeptCatalogue1790000600000,
      Links1790000700000,
      Retired1790000800000,
    ],
    synchronize: false,
    poolSize: most,
    extra: {
      connectionTimeoutMillis: 5_000,
      // One stays open: so the database can tell that a server is at work, and nothing is restored beneath it.
      min: 1,
      idle_in_transaction_session_timeout: 15_000,
      statement_timeout: 10_000,
      lock_timeout: 5_000,
    },
    // A connection that dies between two questions is replaced by the pool; it must not end the program.
    poolErrorHandler: (error: Error) => process.stderr.write(`database connection lost: ${error.message}\n`),
  });
