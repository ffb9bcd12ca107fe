import type { Subject } from '@sieve/core';
import type { DirectoryRow, PickList } from '@sieve/contract';
import { and, desc, eq } from 'drizzle-orm';
import { insertedId, inTransaction, type Db } from '../db/open';
import { named } from '../db/named';
import { AppError } from '../errors';
import { listEntries } from '../register/held-rows';
import { feed, setFed } from '../register/register';
import { pickLists, picks } from './tables';

export const addPickList = (db: Db, list: { name: string; about: Subject }, now: number): number =>
  insertedId(
    db
      .insert(pickLists)
      .values({ ...list, createdAt: now })
      .run(),
  );

/** Throws when there is none. */
export function thePickList(db: Db, id: number): PickList {
  const found = db.select().from(pickLists).where(eq(pickLists.id, id)).get();
  if (!found) throw new AppError('not-found', { what: 'pick list' });
  const count = db.$client
    .prepare('SELECT count(*) FROM picks WHERE list_id = ? AND NOT out')
    .pluck()
    .get(id) as number;
  return { ...found, picks: count };
}

/** The newest first. */
export const allPickLists = (db: Db): PickList[] =>
  db
    .select({ id: pickLists.id })
    .from(pickLists)
    .orderBy(desc(pickLists.id))
    .all()
    .map(({ id }) => thePickList(db, id));

export const pickedRows = (db: Db, listId: number): DirectoryRow[] =>
  db
    .select({ row: picks.row })
    .from(picks)
    .where(and(eq(picks.listId, listId), eq(picks.out, false)))
    .all()
    .map(({ row }) => row);

/** Puts rows on a list. @returns ids of those that were not on it */
export function addPicks(db: Db, listId: number, rows: readonly DirectoryRow[], now: number): string[] {
  const add = db.$client.prepare(
    `INSERT INTO picks (list_id, row_id, row, at) VALUES (?, ?, ?, ?)
     ON CONFLICT DO UPDATE SET out = 0, row = excluded.row, at = excluded.at WHERE out`,
  );
  return changed(db, listId, () =>
    rows.filter((row) => add.run(listId, row.id, JSON.stringify(row), now).changes > 0).map(({ id }) => id),
  );
}

/** Takes picks off a list, or puts them on it again. @returns ids of those that were not so before */
export function setPicked(db: Db, listId: number, rowIds: readonly string[], isIn: boolean): string[] {
  const set = db.$client.prepare('UPDATE picks SET out = ? WHERE list_id = ? AND row_id = ? AND out <> ?');
  const out = isIn ? 0 : 1;
  return changed(db, listId, () => rowIds.filter((rowId) => set.run(out, listId, rowId, out).changes > 0));
}

function changed(db: Db, listId: number, work: () => string[]): string[] {
  const before = pickedRows(db, listId);
  const ids = inTransaction(db, () => {
    db.$client.prepare('UPDATE pick_lists SET version = version + 1 WHERE id = ?').run(listId);
    return work();
  });
  const { version } = db.select().from(pickLists).where(eq(pickLists.id, listId)).get()!;
  db.register
    .transaction(() => {
      feed(db.register, { list: listId }, listEntries(before), listEntries(pickedRows(db, listId)));
      setFed(db.register, `list ${listId}`, version);
    })
    .immediate();
  return ids;
}

/** Every list with its version and its rows, as the register is made of them. */
export const listsToFeed = (db: Db): { id: number; version: number; rows: () => DirectoryRow[] }[] =>
  db
    .select({ id: pickLists.id, version: pickLists.version })
    .from(pickLists)
    .all()
    .map((list) => ({ ...list, rows: () => pickedRows(db, list.id) }));

export const pickListsNamed = (db: Db, q: string, most: number) =>
  named<{ id: number; name: string }>(db.$client, 'pick_lists', 'id, name', q, most);
