import Database from 'better-sqlite3';
import { drizzle, type BetterSQLite3Database } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import * as schema from './schema';

export type Db = BetterSQLite3Database<typeof schema> & { $client: Database.Database };

/** Opens the database in WAL mode; ':memory:' for tests. With `migrations`, brings its tables up to date. */
export function openDb(file: string, migrations?: string): Db {
  const client = new Database(file);
  client.pragma('journal_mode = WAL');
  client.pragma('synchronous = NORMAL');
  client.pragma('busy_timeout = 10000');
  client.pragma('cache_size = -64000');
  const db = Object.assign(drizzle(client, { schema }), { $client: client });
  if (migrations) migrate(db, { migrationsFolder: migrations });
  return db;
}
