import type { Search } from '@sieve/core';
import type { SplitView, Standing, StandingFailure } from '@sieve/contract';
import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { at, id } from '../db/columns';

/** Saved questions to a directory. */
export const searches = sqliteTable('searches', {
  id: id(),
  name: text('name').notNull(),
  folder: text('folder').notNull(),
  jobId: integer('job_id'),
  search: text('search', { mode: 'json' }).$type<Search>().notNull(),
  createdAt: at('created_at').notNull(),
  /** Counted up with every change. */
  version: integer('version').notNull().default(0),
  split: text('split', { mode: 'json' }).$type<SplitView>(),
  /** Rows that a pull takes of one company; 0: all. */
  perCompany: integer('per_company').notNull().default(0),
  standing: text('standing', { mode: 'json' }).$type<Standing>(),
  /** When a standing search is asked again; null when that hangs on another search. */
  nextAt: at('next_at'),
  /** Why it could not be asked when it was due; null once it was. */
  failed: text('failed', { mode: 'json' }).$type<StandingFailure>(),
  /** Since when it stands, or when it was last asked. */
  standingSince: at('standing_since').notNull().default(0),
});

/** The parts of a split search that are pulled. */
export const searchBatches = sqliteTable(
  'search_batches',
  {
    id: id(),
    searchId: integer('search_id').notNull(),
    position: integer('position').notNull(),
    search: text('search', { mode: 'json' }).$type<Search>().notNull(),
    /** Cells of a sheet that go with each of its rows. */
    kept: text('kept', { mode: 'json' }).$type<Record<string, string>>().notNull().default({}),
    count: integer('count').notNull(),
  },
  (t) => [index('batches_search').on(t.searchId, t.position)],
);

/** Fetching of a search batch; the checkpoint is `page`, written with the rows of the page before. */
export const pulls = sqliteTable(
  'pulls',
  {
    id: id(),
    searchId: integer('search_id').notNull(),
    /** Its place in the split at that time. */
    batch: integer('batch').notNull(),
    batchId: integer('batch_id').notNull(),
    jobId: integer('job_id').notNull(),
    sourceId: integer('source_id').notNull(),
    runId: integer('run_id').notNull(),
    search: text('search', { mode: 'json' }).$type<Search>().notNull(),
    kept: text('kept', { mode: 'json' }).$type<Record<string, string>>().notNull().default({}),
    perCompany: integer('per_company').notNull().default(0),
    standing: integer('standing', { mode: 'boolean' }).notNull(),
    startedAt: at('started_at').notNull(),
    endedAt: at('ended_at'),
    /** Pages are walked again when rows were missed because the results shifted. */
    round: integer('round').notNull().default(1),
    page: integer('page').notNull().default(1),
    /** Rows that were new in this round. */
    roundNew: integer('round_new').notNull().default(0),
    /** Rows that are taken, from the first on; 0: all. */
    first: integer('first').notNull().default(0),
    promised: integer('promised').notNull().default(0),
    came: integer('came').notNull().default(0),
    fresh: integer('fresh').notNull().default(0),
    yours: integer('yours').notNull().default(0),
    full: integer('full').notNull().default(0),
  },
  (t) => [index('pulls_search').on(t.searchId), index('pulls_job').on(t.jobId)],
);

/** Which rows of the directory a pull met, each once, and whether it took them. */
export const pulled = sqliteTable(
  'pulled',
  {
    pullId: integer('pull_id').notNull(),
    rowId: text('row_id').notNull(),
    /** Folded, as rows of one company are counted by it. */
    company: text('company').notNull().default(''),
    taken: integer('taken', { mode: 'boolean' }).notNull().default(true),
    at: at('at').notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.pullId, t.rowId] }),
    index('pulled_row').on(t.rowId),
    index('pulled_company').on(t.company),
    index('pulled_at').on(t.at),
  ],
);
