import type { Column } from '@sieve/core';
import type { Origin, SourceAbout } from '@sieve/contract';
import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { at, id } from '../db/columns';

/** Where records came from. Written once, with its records. */
export const sources = sqliteTable(
  'sources',
  {
    id: id(),
    jobId: integer('job_id').notNull(),
    name: text('name').notNull(),
    origin: text('origin', { mode: 'json' }).$type<Origin>().notNull(),
    about: text('about').$type<SourceAbout>().notNull(),
    columns: text('columns', { mode: 'json' }).$type<Column[]>().notNull(),
    /** The uploaded file that it is read from; '' without one. */
    file: text('file').notNull(),
    createdAt: at('created_at').notNull(),
    /** Checkpoint of bringing in: rows read so far, in the same transaction as the records. */
    rowsRead: integer('rows_read').notNull().default(0),
  },
  (t) => [index('sources_job').on(t.jobId)],
);

/** How a table with these column names was read the last time. */
export const mappings = sqliteTable('mappings', {
  /** The names, as JSON. */
  shape: text('shape').primaryKey(),
  columns: text('columns', { mode: 'json' }).$type<Column[]>().notNull(),
  at: at('at').notNull(),
});

export const records = sqliteTable(
  'records',
  {
    id: id(),
    sourceId: integer('source_id').notNull(),
    line: integer('line').notNull(),
    cells: text('cells', { mode: 'json' }).$type<string[]>().notNull(),
  },
  (t) => [index('records_source').on(t.sourceId)],
);

export const rowIssues = sqliteTable(
  'row_issues',
  {
    sourceId: integer('source_id').notNull(),
    line: integer('line').notNull(),
    code: text('code').notNull(),
    kept: integer('kept', { mode: 'boolean' }).notNull(),
    field: text('field').notNull(),
    input: text('input').notNull(),
    /** The source that brought the row in, mended; null while nobody has. */
    mendedBy: integer('mended_by'),
  },
  (t) => [index('row_issues_source').on(t.sourceId)],
);
