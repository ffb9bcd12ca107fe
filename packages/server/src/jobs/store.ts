import { withOptions, defaultSteps, type Decision, type Steps } from '@sieve/core';
import type { Job, NewJob } from '@sieve/contract';
import { and, asc, desc, eq, isNull, sql } from 'drizzle-orm';
import type { Db } from '../db/open';
import { charges, decisions, jobs } from '../db/schema';

type JobTableRow = typeof jobs.$inferSelect;

export function createJob(db: Db, job: NewJob, now: number): number {
  return db
    .insert(jobs)
    .values({ ...job, createdAt: now, steps: defaultSteps() })
    .returning({ id: jobs.id })
    .get().id;
}

export const jobRow = (db: Db, id: number): JobTableRow | undefined =>
  db.select().from(jobs).where(eq(jobs.id, id)).get();

export function jobById(db: Db, id: number): Job | undefined {
  const row = jobRow(db, id);
  return row && withTotals(db, row);
}

export const allJobs = (db: Db): Job[] =>
  db
    .select()
    .from(jobs)
    .orderBy(desc(jobs.createdAt), desc(jobs.id))
    .all()
    .map((row) => withTotals(db, row));

function withTotals(db: Db, row: JobTableRow): Job {
  const standing = standingDecisions(db, row.id);
  return {
    ...row,
    steps: effectiveSteps(row.steps, standing),
    spentCents: spentCents(db, row.id),
    decisions: standing.length,
  };
}

export const spentCents = (db: Db, jobId: number): number =>
  db
    .select({ sum: sql<number>`coalesce(sum(${charges.cents}), 0)` })
    .from(charges)
    .where(eq(charges.jobId, jobId))
    .get()!.sum;

/** The decisions that have not been taken back, in order. */
export const standingDecisions = (db: Db, jobId: number): Decision[] =>
  db
    .select({ id: decisions.id, body: decisions.body })
    .from(decisions)
    .where(and(eq(decisions.jobId, jobId), isNull(decisions.undoneAt)))
    .orderBy(asc(decisions.id))
    .all();

/** The options of each step: those the job began with, changed by the decisions that stand. */
export const effectiveSteps = (start: Steps, standing: readonly Decision[]): Steps =>
  standing.reduce((steps, { body }) => (body.kind === 'configure' ? withOptions(steps, body.options) : steps), start);
