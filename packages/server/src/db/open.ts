import { rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { questionKey } from '@sieve/core';
import Database from 'better-sqlite3';
import { drizzle, type BetterSQLite3Database } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import { createRegister, REGISTER_FORM } from '../register/register';
import { createOutcome, OUTCOME_FORM } from '../sieve/outcomes';
import * as schema from './schema';

export type Db = BetterSQLite3Database<typeof schema> & {
  $client: Database.Database;
  /** The file of outcomes beside it: a cache, safe to delete while nothing runs; see sieve/outcomes.ts. */
  outcomes: Database.Database;
  /** The file of who is held: made again when it is missing; see register/register.ts. */
  register: Database.Database;
};

/**
 * Opens the database in WAL mode, with the outcomes and the register beside it; ':memory:' for tests. With `migrations`,
 * brings its tables up to date and drops what another version of the application wrote beside it.
 */
export function openDb(file: string, migrations?: string): Db {
  const waitMs = migrations ? 50 : 10_000;
  const client = connect(file, waitMs);
  const db = Object.assign(drizzle(client, { schema }), { $client: client });
  if (migrations) {
    for (const [name, of] of Object.entries(SQL_OF_MIGRATIONS)) client.function(name, { deterministic: true }, of);
    migrate(db, { migrationsFolder: migrations });
  }
  const beside = (name: string, form: number, create: (fresh: Database.Database) => void) =>
    openBeside(file === ':memory:' ? file : join(dirname(file), name), migrations ? form : null, waitMs, create);
  return Object.assign(db, {
    outcomes: beside('outcomes.db', OUTCOME_FORM, (fresh) => createOutcome(fresh, 0)),
    register: beside('register.db', REGISTER_FORM, createRegister),
  });
}

/** Functions that migrations call. */
const SQL_OF_MIGRATIONS = {
  /** 0010: the key of a question to a finder, from as it was before. */
  finder_key: (question: unknown): string => {
    const [firstName, lastName, domain] = JSON.parse(String(question)) as [string, string, string];
    return questionKey({ kind: 'finder', finder: '', firstName, lastName, domain });
  },
};

export function closeDb({ $client, outcomes, register }: Db): void {
  register.close();
  outcomes.close();
  $client.close();
}

/**
 * The number of the row that an insert made. Inserts are `run`: with `RETURNING` and `get` SQLite commits after the row was read,
 * and a full disk would go unheard.
 */
export const insertedId = ({ lastInsertRowid }: Database.RunResult): number => Number(lastInsertRowid);

/** Does its work in one transaction that nobody else writes into. */
export const inTransaction = <T>(db: Db, work: () => T): T => db.$client.transaction(work).immediate();

/** @param form makes the file anew when it is of another form; null leaves it as it is */
function openBeside(
  file: string,
  form: number | null,
  waitMs: number,
  create: (fresh: Database.Database) => void,
): Database.Database {
  const client = connect(file, waitMs);
  if (form === null || client.pragma('user_version', { simple: true }) === form) return client;
  client.close();
  for (const ending of ['', '-wal', '-shm']) rmSync(file + ending, { force: true });
  const fresh = connect(file, waitMs);
  create(fresh);
  fresh.pragma(`user_version = ${form}`);
  return fresh;
}

/** @param waitMs how long for another's lock; the server's own connection waits briefly, since everybody waits with it; `http/patient.ts` tries again */
function connect(file: string, waitMs: number): Database.Database {
  const client = new Database(file);
  client.pragma('journal_mode = WAL');
  client.pragma('synchronous = NORMAL');
  client.pragma(`busy_timeout = ${waitMs}`);
  client.pragma('cache_size = -64000');
  // 64 MB of changes gather in the log before they are copied into the file, so that a list of 100,000 rarely waits for it.
  client.pragma('wal_autocheckpoint = 16384');
  return client;
}
