import type { Author, DecisionSubject, LoggedBody } from '@sieve/contract';
import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { at, id } from '../db/columns';

export const decisions = sqliteTable(
  'decisions',
  {
    id: id(),
    subject: text('subject').$type<DecisionSubject['subject']>().notNull(),
    subjectId: integer('subject_id').notNull(),
    author: text('author').$type<Author>().notNull(),
    at: at('at').notNull(),
    body: text('body', { mode: 'json' }).$type<LoggedBody>().notNull(),
    undoneAt: integer('undone_at'),
  },
  (t) => [index('decisions_subject').on(t.subject, t.subjectId, t.id)],
);
