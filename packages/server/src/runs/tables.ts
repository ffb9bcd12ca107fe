import type { RunInput, RunResult, RunState } from '@sieve/contract';
import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { at, id } from '../db/columns';

export const runs = sqliteTable(
  'runs',
  {
    id: id(),
    jobId: integer('job_id').notNull(),
    input: text('input', { mode: 'json' }).$type<RunInput>().notNull(),
    state: text('state').$type<RunState>().notNull(),
    done: integer('done').notNull().default(0),
    total: integer('total').notNull().default(0),
    result: text('result', { mode: 'json' }).$type<RunResult>(),
    createdAt: at('created_at').notNull(),
    /** When its work began last. */
    startedAt: at('started_at'),
    endedAt: at('ended_at'),
    /** A run that waits for its hours. */
    notBefore: at('not_before'),
    /** A person looked at how it failed. */
    seenAt: at('seen_at'),
  },
  (t) => [index('runs_state').on(t.state)],
);
