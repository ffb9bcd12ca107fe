import {
  completedSieve,
  defaultSieve,
  withStep,
  type ExportColumn,
  type Sieve,
  type SieveStep,
  type Weights,
} from '@sieve/core';
import type { Job, JobPatch, NewJob, Summary } from '@sieve/contract';
import { desc, eq } from 'drizzle-orm';
import { insertedId, type Db } from '../db/open';
import { spentCents } from '../ledger/store';
import { jobs } from './tables';

export type JobTableRow = typeof jobs.$inferSelect;

export function createJob(db: Db, job: NewJob, now: number): number {
  const sieve = defaultSieve();
  return insertedId(
    db
      .insert(jobs)
      .values({ ...job, columns: columnsFor(db, job.client), createdAt: now, begun: sieve, sieve })
      .run(),
  );
}

/** What leaves of a new job: as of the last one for the same client, else of the last one without its own fields. */
function columnsFor(db: Db, client: string): ExportColumn[] | undefined {
  const last = db
    .select({ client: jobs.client, columns: jobs.columns })
    .from(jobs)
    .orderBy(desc(eq(jobs.client, client)), desc(jobs.id))
    .limit(1)
    .get();
  const columns = last?.columns.filter(({ field }) => last.client === client || !field.startsWith('own:'));
  return columns?.length ? columns : undefined;
}

export function jobRow(db: Db, id: number): JobTableRow | undefined {
  const row = db.select().from(jobs).where(eq(jobs.id, id)).get();
  return row && completed(row);
}

/** Jobs of before a step was there have it, too. */
const completed = (row: JobTableRow): JobTableRow => ({
  ...row,
  begun: completedSieve(row.begun),
  sieve: completedSieve(row.sieve),
});

export function jobById(db: Db, id: number): Job | undefined {
  const row = jobRow(db, id);
  return row && toJob(db, row);
}

export const allJobs = (db: Db): Job[] =>
  db
    .select()
    .from(jobs)
    .orderBy(desc(jobs.createdAt), desc(jobs.id))
    .all()
    .map((row) => toJob(db, completed(row)));

const toJob = (db: Db, { sieve, ...row }: JobTableRow): Job => ({
  ...row,
  sieve: [...sieve],
  spentCents: spentCents(db, row.id),
});

export const patchJob = (db: Db, id: number, patch: JobPatch): void => {
  if (Object.keys(patch).length > 0) db.update(jobs).set(patch).where(eq(jobs.id, id)).run();
};

/** The steps in force. */
export const sieveOf = (db: Db, id: number): Sieve =>
  completedSieve(
    JSON.parse(db.$client.prepare('SELECT sieve FROM jobs WHERE id = ?').pluck().get(id) as string) as Sieve,
  );

export const countDecision = (db: Db, id: number, more: 1 | -1): void =>
  void db.$client.prepare('UPDATE jobs SET decisions = decisions + ? WHERE id = ?').run(more, id);

/** Keeps the steps in force: those it began with, set up anew by the decisions that stand. */
export function keepSieve(db: Db, id: number, configured: readonly SieveStep[]): void {
  const sieve = configured.reduce<Sieve>(withStep, jobRow(db, id)!.begun);
  db.update(jobs).set({ sieve }).where(eq(jobs.id, id)).run();
}

export interface Shown {
  outcome: number;
  version: number;
}

/** Which outcome a job shows, and how often it was sifted. */
export const shownOf = (db: Db, id: number): Shown | undefined =>
  db.$client.prepare('SELECT outcome, version FROM jobs WHERE id = ?').get(id) as Shown | undefined;

export const allShown = (db: Db): (Shown & { id: number })[] =>
  db.$client.prepare('SELECT id, outcome, version FROM jobs').all() as (Shown & { id: number })[];

export const setShown = (db: Db, id: number, shown: Shown & { weights: Weights; summary: Summary }): void =>
  void db.update(jobs).set(shown).where(eq(jobs.id, id)).run();
