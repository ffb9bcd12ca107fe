import { integer, sqliteTable } from 'drizzle-orm/sqlite-core';
import { id } from '../db/columns';

/** The numbers of the outcomes of each job: the one that is shown, the one before, and any that is being written. */
export const outcomes = sqliteTable('outcomes', { id: id(), jobId: integer('job_id').notNull() });
