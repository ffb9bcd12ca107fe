import type { HarvestEnd, KnownSet, StopRules } from '@sieve/core';
import type { NextWish, PAGE_STATES } from '@sieve/contract';
import { index, integer, primaryKey, real, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { at, id } from '../db/columns';

/** Repeated records taken out of a page and the pages after it; the checkpoint is `number` and `address`, written with the rows. */
export const harvests = sqliteTable(
  'harvests',
  {
    id: id(),
    jobId: integer('job_id').notNull(),
    /** Of the time that it was asked last. */
    sourceId: integer('source_id').notNull(),
    runId: integer('run_id').notNull(),
    name: text('name').notNull(),
    /** The first page; '' for a file that does not say where it is from. */
    start: text('start').notNull(),
    /** The first page as it was looked at, among the uploads: the first time, it is not fetched again. */
    file: text('file').notNull(),
    set: text('set', { mode: 'json' }).$type<KnownSet>().notNull(),
    next: text('next', { mode: 'json' }).$type<NextWish>().notNull(),
    stop: text('stop', { mode: 'json' }).$type<StopRules>().notNull(),
    seconds: real('seconds').notNull(),
    siteSeconds: real('site_seconds').notNull().default(0),
    everyDays: integer('every_days'),
    nextAt: at('next_at'),
    /** Counted up each time that it is asked. */
    round: integer('round').notNull().default(1),
    /** The page that comes next, from 1, and where it is. */
    number: integer('number').notNull().default(1),
    address: text('address').notNull(),
    lastNumber: integer('last_number').notNull().default(0),
    end: text('end').$type<HarvestEnd>(),
  },
  (t) => [index('harvests_job').on(t.jobId)],
);

export const harvestPages = sqliteTable(
  'harvest_pages',
  {
    harvestId: integer('harvest_id').notNull(),
    round: integer('round').notNull(),
    number: integer('number').notNull(),
    address: text('address').notNull(),
    state: text('state').$type<(typeof PAGE_STATES)[number]>().notNull(),
    rows: integer('rows').notNull(),
    fresh: integer('fresh').notNull(),
    yours: integer('yours').notNull(),
    left: integer('left').notNull(),
    lowest: real('lowest'),
    /** Among the uploads, where its layout is another: to be looked at. */
    file: text('file').notNull().default(''),
    ms: integer('ms').notNull(),
    at: at('at').notNull(),
  },
  (t) => [primaryKey({ columns: [t.harvestId, t.round, t.number] })],
);

/** Records that a harvest has met, by what makes them themselves, and the source that they came in with. */
export const harvested = sqliteTable(
  'harvested',
  {
    harvestId: integer('harvest_id').notNull(),
    key: text('key').notNull(),
    sourceId: integer('source_id').notNull(),
  },
  (t) => [primaryKey({ columns: [t.harvestId, t.key] })],
);

/** How the next page was found on a site the last time. */
export const nextPages = sqliteTable('next_pages', {
  host: text('host').primaryKey(),
  next: text('next', { mode: 'json' }).$type<NextWish>().notNull(),
});
