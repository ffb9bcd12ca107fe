import { widthOf, type Column } from '@sieve/core';
import type { KnownShape } from '@sieve/contract';
import type { Db } from '../db/open';

/** Tables with the same column names, in order, are of one shape. */
const shapeOf = (names: readonly string[]) => JSON.stringify(names.map((name) => name.toLowerCase()));

/** How a table of this shape was read the last time; undefined for one never seen. */
export function mappingOf(db: Db, names: readonly string[]): Column[] | undefined {
  const text = db.$client.prepare('SELECT columns FROM mappings WHERE shape = ?').pluck().get(shapeOf(names)) as
    string | undefined;
  return text === undefined ? undefined : (JSON.parse(text) as Column[]);
}

export function rememberMapping(db: Db, columns: readonly Column[], now: number): void {
  // A shape is what the table has; what is made of it comes with the mapping.
  const shape = shapeOf(columns.slice(0, widthOf(columns)).map(({ name }) => name));
  db.$client
    .prepare('INSERT OR REPLACE INTO mappings (shape, columns, at) VALUES (?, ?, ?)')
    .run(shape, JSON.stringify(columns), now);
}

const MOST_LISTED = 500;

/** Every shape that is known, the latest first. */
export const knownShapes = (db: Db): KnownShape[] =>
  (
    db.$client.prepare('SELECT shape, columns, at FROM mappings ORDER BY at DESC LIMIT ?').all(MOST_LISTED) as {
      shape: string;
      columns: string;
      at: number;
    }[]
  ).map(({ columns, ...row }) => ({ ...row, columns: JSON.parse(columns) as Column[] }));

/** The next table of this shape is recognised anew. */
export const forgetMapping = (db: Db, shape: string): void =>
  void db.$client.prepare('DELETE FROM mappings WHERE shape = ?').run(shape);
