import { index, integer, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import { at, id } from '../db/columns';

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
