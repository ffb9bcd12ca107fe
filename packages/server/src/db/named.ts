import type { Database } from 'better-sqlite3';

/** Rows of a table whose names hold all words, the newest first. */
export function named<T>(client: Database, table: string, columns: string, q: string, most: number): T[] {
  const words = q.split(/\s+/).filter(Boolean);
  const where = words.map(() => `name LIKE ? ESCAPE '\\'`).join(' AND ');
  const likes = words.map((word) => `%${word.replace(/[\\%_]/g, '\\$&')}%`);
  return client
    .prepare(`SELECT ${columns} FROM ${table} WHERE ${where} ORDER BY id DESC LIMIT ?`)
    .all(...likes, most) as T[];
}
