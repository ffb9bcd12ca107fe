import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { at, id } from '../db/columns';

/** What outside services answered, for all jobs. Appended, never changed: the newest that is fresh counts. */
export const facts = sqliteTable(
  'facts',
  {
    id: id(),
    kind: text('kind').notNull(),
    question: text('question').notNull(),
    who: text('who').notNull(),
    answer: text('answer', { mode: 'json' }).notNull(),
    askedAt: at('asked_at').notNull(),
  },
  (t) => [index('facts_question').on(t.kind, t.question, t.who, t.id)],
);

/** How services were to deal with, a row for each day on which they were asked. */
export const serviceDays = sqliteTable(
  'service_days',
  {
    who: text('who').notNull(),
    day: text('day').notNull(),
    answers: integer('answers').notNull(),
    /** That all the answers took together. */
    tookMs: integer('took_ms').notNull(),
    /** Questions that it could not be asked. */
    outages: integer('outages').notNull(),
    /** Why, the last time; '' without any. */
    lastOutage: text('last_outage').notNull(),
  },
  (t) => [primaryKey({ columns: [t.who, t.day] })],
);
