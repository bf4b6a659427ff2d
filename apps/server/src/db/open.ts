import type { DataSource } from 'typeorm';
import { dataSource } from './dataSource';

const env = (name: string): string => {
  const value = process.env[name];
  if (!value) throw new Error(`${name} is not set. Start with "npm run demo", which sets it.`);
  return value;
};

/** What the program's own user may do: everything but change the shape of the database, and events only be added to. */
const grants = (user: string): string => `
  grant usage on schema public to ${user};
  grant select, insert, update, delete on all tables in schema public to ${user};
  grant usage, select on all sequences in schema public to ${user};
  revoke update, delete, truncate on order_event from ${user};
  revoke truncate on all tables in schema public from ${user};`;

/**
 * The database, migrated. With `ZT_OWNER_URL` the owner migrates and the program then works as a user that can neither change
 * tables nor take an event away, whatever it is made to say.
 */
export async function openDatabase(): Promise<DataSource> {
  const url = env('ZT_DATABASE_URL');
  const ownerUrl = process.env['ZT_OWNER_URL'];
  if (!ownerUrl) {
    const db = await dataSource(url).initialize();
    await db.runMigrations();
    return db;
  }
  const owner = await dataSource(ownerUrl, 2).initialize();
  try {
    await owner.runMigrations();
    const user = new URL(url).username;
    if (!/^[a-z_]+$/.test(user)) throw new Error(`"${user}" cannot be the user of the database.`);
    await owner.query(grants(user));
  } finally {
    await owner.destroy();
  }
  return dataSource(url).initialize();
}
