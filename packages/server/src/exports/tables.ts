import type { ExportLayout, ExportRun } from '@sieve/contract';
import { integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { at, id } from '../db/columns';

export const exportsTable = sqliteTable('exports', {
  id: id(),
  jobId: integer('job_id').notNull(),
  at: at('at').notNull(),
  layout: text('layout', { mode: 'json' }).$type<ExportLayout>().notNull(),
  state: text('state').notNull(),
  rows: integer('rows').notNull().default(0),
  files: text('files', { mode: 'json' }).$type<ExportRun['files']>().notNull(),
});

/** Who left with which export, by the keys by which they were known then; the register is made again from it. */
export const exportRows = sqliteTable(
  'export_rows',
  {
    exportId: integer('export_id').notNull(),
    /** The contact's first record. */
    recordId: integer('record_id').notNull(),
    keys: text('keys', { mode: 'json' }).$type<string[]>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.exportId, t.recordId] })],
);
