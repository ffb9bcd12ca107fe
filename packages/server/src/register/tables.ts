import type { SuppressionEntry } from '@sieve/core';
import { sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { at } from '../db/columns';

/** Who must not be contacted. */
export const suppressed = sqliteTable('suppressed', {
  key: text('key').primaryKey(),
  kind: text('kind').$type<SuppressionEntry['kind']>().notNull(),
  value: text('value').notNull(),
  why: text('why').$type<SuppressionEntry['why']>().notNull(),
  source: text('source').notNull(),
  until: at('until'),
  at: at('at').notNull(),
});
