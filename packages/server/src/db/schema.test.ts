import { is } from 'drizzle-orm';
import { getTableConfig, SQLiteTable } from 'drizzle-orm/sqlite-core';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { testDb } from '../testing/fixtures';
import * as schema from './schema';

const { db } = testDb();
const meta = join(__dirname, '../../migrations/meta');
const snapshots = readdirSync(meta)
  .filter((name) => name.endsWith('_snapshot.json'))
  .sort()
  .map((name) => JSON.parse(readFileSync(join(meta, name), 'utf8')) as Snapshot);
interface Snapshot {
  id: string;
  prevId: string;
  tables: Record<string, { columns: Record<string, object> }>;
}

test('the migrations make the tables that the schema says, and the next one can be generated from the last snapshot', () => {
  const said = Object.values(schema)
    .filter((table) => is(table, SQLiteTable))
    .map((table) => getTableConfig(table as SQLiteTable))
    .map(({ name, columns }) => [name, columns.map((column) => column.name).sort()] as const)
    .sort(([a], [b]) => (a < b ? -1 : 1));
  const made = said.map(
    ([name]) => [name, db.$client.prepare('SELECT name FROM pragma_table_info(?)').pluck().all(name).sort()] as const,
  );
  expect(made).toEqual(said);
  const last = Object.entries(snapshots.at(-1)!.tables)
    .map(([name, { columns }]) => [name, Object.keys(columns).sort()] as const)
    .sort(([a], [b]) => (a < b ? -1 : 1));
  expect(last).toEqual(said);
  expect(snapshots.slice(1).map(({ prevId }) => prevId)).toEqual(snapshots.slice(0, -1).map(({ id }) => id));
  expect(new Set(snapshots.map(({ id }) => id)).size).toBe(snapshots.length);
});
