import { index, sqliteTable, text } from 'drizzle-orm/sqlite-core';
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
