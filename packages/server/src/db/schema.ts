import type { Column, DecisionBody, Search, Steps, Subject, Weights } from '@sieve/core';
import type { DirectoryRow, ExportLayout, Format, SplitView, Standing, Summary } from '@sieve/contract';
import { index, integer, primaryKey, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';

const id = () => integer('id').primaryKey({ autoIncrement: true });
const at = (name: string) => integer(name);

export const jobs = sqliteTable('jobs', {
  id: id(),
  name: text('name').notNull(),
  folder: text('folder').notNull(),
  note: text('note').notNull(),
  targetValid: integer('target_valid').notNull(),
  budgetCents: integer('budget_cents').notNull(),
  createdAt: at('created_at').notNull(),
  steps: text('steps', { mode: 'json' }).$type<Steps>().notNull(),
  /** The outcome that is shown, by its number in the file of outcomes. 0: none yet. */
  outcome: integer('outcome').notNull().default(0),
  /** How often the job was sifted. */
  version: integer('version').notNull().default(0),
  /** What matching learned, to explain pairs by. */
  weights: text('weights', { mode: 'json' }).$type<Weights>(),
  summary: text('summary', { mode: 'json' }).$type<Summary>(),
});

/** Where records came from. Written once, with its records. */
export const sources = sqliteTable(
  'sources',
  {
    id: id(),
    jobId: integer('job_id').notNull(),
    name: text('name').notNull(),
    format: text('format', { mode: 'json' }).$type<Format>().notNull(),
    columns: text('columns', { mode: 'json' }).$type<Column[]>().notNull(),
    file: text('file').notNull(),
    createdAt: at('created_at').notNull(),
    /** Checkpoint of bringing in: rows read so far, in the same transaction as the records. */
    rowsRead: integer('rows_read').notNull().default(0),
    complete: integer('complete', { mode: 'boolean' }).notNull().default(false),
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
  },
  (t) => [index('row_issues_source').on(t.sourceId)],
);

/** The numbers of the outcomes of each job: the one that is shown, the one before, and any that is being written. */
export const outcomes = sqliteTable('outcomes', { id: id(), jobId: integer('job_id').notNull() });

/** What an outside service answered: kept for all jobs. */
export const facts = sqliteTable(
  'facts',
  {
    kind: text('kind').notNull(),
    question: text('question').notNull(),
    who: text('who').notNull(),
    answer: text('answer', { mode: 'json' }).notNull(),
    askedAt: at('asked_at').notNull(),
  },
  (t) => [primaryKey({ columns: [t.kind, t.question, t.who] })],
);

/** Every cent spent, one row for each fact that was bought. */
export const charges = sqliteTable(
  'charges',
  {
    id: id(),
    jobId: integer('job_id').notNull(),
    who: text('who').notNull(),
    question: text('question').notNull(),
    cents: integer('cents').notNull(),
    reason: text('reason').notNull(),
    at: at('at').notNull(),
  },
  (t) => [uniqueIndex('charges_fact').on(t.who, t.question), index('charges_job').on(t.jobId)],
);

export const decisions = sqliteTable(
  'decisions',
  {
    id: id(),
    jobId: integer('job_id').notNull(),
    at: at('at').notNull(),
    body: text('body', { mode: 'json' }).$type<DecisionBody>().notNull(),
    undoneAt: integer('undone_at'),
  },
  (t) => [index('decisions_job').on(t.jobId, t.id)],
);

export const runs = sqliteTable(
  'runs',
  {
    id: id(),
    jobId: integer('job_id').notNull(),
    kind: text('kind').notNull(),
    input: text('input', { mode: 'json' }).$type<Record<string, number>>().notNull(),
    state: text('state').notNull(),
    done: integer('done').notNull().default(0),
    total: integer('total').notNull().default(0),
    message: text('message').notNull().default(''),
    createdAt: at('created_at').notNull(),
    endedAt: at('ended_at'),
    /** A run that waits for its hours. */
    notBefore: at('not_before'),
  },
  (t) => [index('runs_state').on(t.state)],
);

export const exportsTable = sqliteTable('exports', {
  id: id(),
  jobId: integer('job_id').notNull(),
  at: at('at').notNull(),
  layout: text('layout', { mode: 'json' }).$type<ExportLayout>().notNull(),
  state: text('state').notNull(),
  rows: integer('rows').notNull().default(0),
  files: text('files', { mode: 'json' }).$type<{ name: string; rows: number; sha256: string }[]>().notNull(),
});

/** Who left with which export, by record and by address, so that it is remembered after any re-sifting. */
export const exportRows = sqliteTable(
  'export_rows',
  {
    exportId: integer('export_id').notNull(),
    jobId: integer('job_id').notNull(),
    recordId: integer('record_id').notNull(),
    email: text('email').notNull(),
  },
  (t) => [primaryKey({ columns: [t.exportId, t.recordId] }), index('export_rows_record').on(t.recordId)],
);

export const suppressions = sqliteTable('suppressions', {
  value: text('value').primaryKey(),
  kind: text('kind').notNull(),
  at: at('at').notNull(),
});

export const settingsTable = sqliteTable('settings', {
  key: text('key').primaryKey(),
  value: text('value', { mode: 'json' }).notNull(),
});

/** Saved questions to a directory. */
export const searches = sqliteTable('searches', {
  id: id(),
  name: text('name').notNull(),
  folder: text('folder').notNull(),
  jobId: integer('job_id'),
  search: text('search', { mode: 'json' }).$type<Search>().notNull(),
  createdAt: at('created_at').notNull(),
  split: text('split', { mode: 'json' }).$type<SplitView>(),
  /** Rows that a pull takes of one company; 0: all. */
  perCompany: integer('per_company').notNull().default(0),
  standing: text('standing', { mode: 'json' }).$type<Standing>(),
  /** When a standing search is asked again; null when that hangs on another search. */
  nextAt: at('next_at'),
  /** Since when it stands, or when it was last asked. */
  standingSince: at('standing_since').notNull().default(0),
});

/** The parts of a split search that are pulled. */
export const batches = sqliteTable(
  'batches',
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

/** Fetching of a batch; the checkpoint is `page`, written with the rows of the page before. */
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

export const pickLists = sqliteTable('pick_lists', {
  id: id(),
  name: text('name').notNull(),
  about: text('about').$type<Subject>().notNull(),
  createdAt: at('created_at').notNull(),
});

/** Rows picked by hand, each once in a list. */
export const picks = sqliteTable(
  'picks',
  {
    listId: integer('list_id').notNull(),
    rowId: text('row_id').notNull(),
    row: text('row', { mode: 'json' }).$type<DirectoryRow>().notNull(),
    at: at('at').notNull(),
  },
  (t) => [primaryKey({ columns: [t.listId, t.rowId] }), index('picks_row').on(t.rowId)],
);
