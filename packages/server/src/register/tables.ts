import { sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { at } from '../db/columns';

/** Who must not be contacted. */
export const suppressions = sqliteTable('suppressions', {
  value: text('value').primaryKey(),
  kind: text('kind').$type<'email' | 'domain'>().notNull(),
  at: at('at').notNull(),
});
