import { MAIL_OUT, type ExportColumn, type Sieve, type Weights } from '@sieve/core';
import type { Summary } from '@sieve/contract';
import { integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { at, id } from '../db/columns';

export const jobs = sqliteTable('jobs', {
  id: id(),
  name: text('name').notNull(),
  client: text('client').notNull().default(''),
  folder: text('folder').notNull(),
  note: text('note').notNull(),
  targetValid: integer('target_valid').notNull(),
  budgetCents: integer('budget_cents').notNull(),
  columns: text('columns', { mode: 'json' }).$type<ExportColumn[]>().notNull().default(MAIL_OUT),
  createdAt: at('created_at').notNull(),
  /** The steps it began with, and those in force: changed by the decisions that stand. */
  begun: text('begun', { mode: 'json' }).$type<Sieve>().notNull(),
  sieve: text('sieve', { mode: 'json' }).$type<Sieve>().notNull(),
  /** Decisions that stand. */
  decisions: integer('decisions').notNull().default(0),
  /** The outcome that is shown, by its number in the file of outcomes. 0: none yet. */
  outcome: integer('outcome').notNull().default(0),
  /** How often the job was sifted. */
  version: integer('version').notNull().default(0),
  /** What matching learned, to explain pairs by. */
  weights: text('weights', { mode: 'json' }).$type<Weights>(),
  summary: text('summary', { mode: 'json' }).$type<Summary>(),
});
