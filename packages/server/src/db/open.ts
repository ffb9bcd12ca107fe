import { rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import Database from 'better-sqlite3';
import { drizzle, type BetterSQLite3Database } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import { createOutcome, OUTCOME_FORM } from '../sieve/outcomes';
import * as schema from './schema';

export type Db = BetterSQLite3Database<typeof schema> & {
  $client: Database.Database;
  /** The file of outcomes beside it: a cache, safe to delete while nothing runs; see outcomes.ts. */
  outcomes: Database.Database;
};

/**
 * Opens the database in WAL mode, with the outcomes beside it; ':memory:' for tests. With `migrations`, brings its tables up
 * to date and drops outcomes that another version of the application wrote.
 */
export function openDb(file: string, migrations?: string): Db {
  const client = connect(file);
  const db = Object.assign(drizzle(client, { schema }), { $client: client });
  if (migrations) migrate(db, { migrationsFolder: migrations });
  return Object.assign(db, { outcomes: openOutcomes(file, migrations !== undefined) });
}

export function closeDb({ $client, outcomes }: Db): void {
  outcomes.close();
  $client.close();
}

function openOutcomes(dbFile: string, renew: boolean): Database.Database {
  const file = dbFile === ':memory:' ? dbFile : join(dirname(dbFile), 'outcomes.db');
  const client = connect(file);
  if (!renew || client.pragma('user_version', { simple: true }) === OUTCOME_FORM) return client;
  client.close();
  for (const ending of ['', '-wal', '-shm']) rmSync(file + ending, { force: true });
  const fresh = connect(file);
  createOutcome(fresh, 0);
  fresh.pragma(`user_version = ${OUTCOME_FORM}`);
  return fresh;
}

function connect(file: string): Database.Database {
  const client = new Database(file);
  client.pragma('journal_mode = WAL');
  client.pragma('synchronous = NORMAL');
  client.pragma('busy_timeout = 10000');
  client.pragma('cache_size = -64000');
  // 64 MB of changes gather in the log before they are copied into the file, so that a list of 100,000 rarely waits for it.
  client.pragma('wal_autocheckpoint = 16384');
  return client;
}
