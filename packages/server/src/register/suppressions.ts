import { suppressionKey, suppressor, type Suppression, type SuppressionEntry } from '@sieve/core';
import type { SuppressionRow } from '@sieve/contract';
import type { Db } from '../db/open';

/** Everybody who must not be contacted at a time. */
export function suppressionList(db: Db, now: number): Suppression {
  const rows = db.$client
    .prepare('SELECT key, kind, value, why, source, until FROM suppressed WHERE until IS NULL OR until > ?')
    .all(now) as (SuppressionEntry & { key: string })[];
  return new Map(rows.map(({ key, ...entry }) => [key, entry]));
}

/** Answers with the entry that names somebody at a time. */
export const suppressedAt = (db: Db, now: number): ReturnType<typeof suppressor> =>
  suppressor(suppressionList(db, now));

/** The newest 5,000 entries. */
export const suppressionRows = (db: Db): SuppressionRow[] =>
  db.$client.prepare('SELECT * FROM suppressed ORDER BY at DESC, key LIMIT 5000').all() as SuppressionRow[];

/** Puts entries on the list or takes them off. @returns those that were not so before */
export function setSuppressed(
  db: Db,
  entries: readonly SuppressionEntry[],
  isIn: boolean,
  now: number,
): SuppressionEntry[] {
  const add = db.$client.prepare(
    'INSERT OR IGNORE INTO suppressed (key, kind, value, why, source, until, at) VALUES (?, ?, ?, ?, ?, ?, ?)',
  );
  const remove = db.$client.prepare('DELETE FROM suppressed WHERE key = ?');
  return entries.filter((entry) => {
    const { kind, value, why, source, until } = entry;
    const key = suppressionKey(entry);
    return (isIn ? add.run(key, kind, value, why, source, until, now) : remove.run(key)).changes > 0;
  });
}

export const suppressionEntryOf = (db: Db, key: string): SuppressionEntry | undefined =>
  db.$client.prepare('SELECT kind, value, why, source, until FROM suppressed WHERE key = ?').get(key) as
    SuppressionEntry | undefined;
