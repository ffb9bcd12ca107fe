import type { Subject } from '@sieve/core';
import type { DirectoryRow } from '@sieve/contract';
import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { at, id } from '../db/columns';

export const pickLists = sqliteTable('pick_lists', {
  id: id(),
  name: text('name').notNull(),
  about: text('about').$type<Subject>().notNull(),
  createdAt: at('created_at').notNull(),
  /** Counted up with every change; the register knows which one it holds. */
  version: integer('version').notNull().default(0),
});

/** Rows picked by hand, each once in a list. */
export const picks = sqliteTable(
  'picks',
  {
    listId: integer('list_id').notNull(),
    rowId: text('row_id').notNull(),
    row: text('row', { mode: 'json' }).$type<DirectoryRow>().notNull(),
    at: at('at').notNull(),
    /** It was taken off the list. */
    out: integer('out', { mode: 'boolean' }).notNull().default(false),
  },
  (t) => [primaryKey({ columns: [t.listId, t.rowId] }), index('picks_row').on(t.rowId)],
);
