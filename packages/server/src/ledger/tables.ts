import { sql } from 'drizzle-orm';
import { index, integer, primaryKey, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import { at, id } from '../db/columns';

/** Every cent spent, one row for each fact that was bought, and every cent given back. */
export const charges = sqliteTable(
  'charges',
  {
    id: id(),
    jobId: integer('job_id').notNull(),
    who: text('who').notNull(),
    question: text('question').notNull(),
    cents: integer('cents').notNull(),
    /** What it took of the service's plan in place of money. */
    credits: integer('credits').notNull().default(0),
    reason: text('reason').notNull(),
    at: at('at').notNull(),
    /** The contact that it was for, where it was for one. */
    contact: integer('contact'),
    /** The charge that was given back; the cents are below 0. */
    refundOf: integer('refund_of'),
  },
  (t) => [
    uniqueIndex('charges_fact').on(t.who, t.question, t.at),
    index('charges_job').on(t.jobId, t.cents),
    index('charges_at').on(t.at),
    index('charges_sums').on(t.at, t.who, t.jobId, t.cents, t.refundOf),
    index('charges_who').on(t.who, t.at, t.cents),
    index('charges_refund').on(t.refundOf),
    index('charges_credits')
      .on(t.who, t.at, t.credits)
      .where(sql`credits > 0`),
  ],
);

/**
 * What may be charged by a question that is on its way: written before it is asked, gone with its answer. One that is left belongs to a run that broke off, and may have
 * been charged.
 */
export const maybeCharged = sqliteTable(
  'maybe_charged',
  {
    who: text('who').notNull(),
    question: text('question').notNull(),
    jobId: integer('job_id').notNull(),
    step: text('step').notNull(),
    contact: integer('contact').notNull(),
    cents: integer('cents').notNull(),
  },
  (t) => [primaryKey({ columns: [t.who, t.question] })],
);

/** Months of which a credit of a service's plan was used: what the plan held and cost then. */
export const planMonths = sqliteTable(
  'plan_months',
  {
    who: text('who').notNull(),
    /** Like 2026-11. */
    month: text('month').notNull(),
    credits: integer('credits').notNull(),
    cents: integer('cents').notNull(),
    at: at('at').notNull(),
  },
  (t) => [primaryKey({ columns: [t.who, t.month] })],
);
