import type { RunInput, RunResult, RunState } from '@sieve/contract';
import { and, asc, desc, eq, sql, type SQL } from 'drizzle-orm';
import { insertedId, type Db } from '../db/open';
import { runs } from './tables';

export type RunTableRow = typeof runs.$inferSelect;

export const addRun = (db: Db, jobId: number, input: RunInput, now: number): number =>
  insertedId(db.insert(runs).values({ jobId, input, state: 'queued', createdAt: now }).run());

export const runRow = (db: Db, id: number): RunTableRow | undefined =>
  db.select().from(runs).where(eq(runs.id, id)).get();

/** Undefined: there is no such run. */
export const runState = (db: Db, id: number): RunState | undefined => runRow(db, id)?.state;

/** A sifting of a job that has not begun yet. */
export const queuedSift = (db: Db, jobId: number): RunTableRow | undefined =>
  db
    .select()
    .from(runs)
    .where(and(eq(runs.jobId, jobId), eq(runs.state, 'queued'), sql`json_extract(${runs.input}, '$.kind') = 'sift'`))
    .get();

/** The oldest first. */
export const queuedRuns = (db: Db): RunTableRow[] =>
  db.select().from(runs).where(eq(runs.state, 'queued')).orderBy(asc(runs.id)).all();

/** The newest first. */
export const runRows = (db: Db, where: SQL | undefined, limit: number): RunTableRow[] =>
  db.select().from(runs).where(where).orderBy(desc(runs.id)).limit(limit).all();

export const isRun = (id: number): SQL => eq(runs.id, id);

export type RunChange = Partial<Pick<RunTableRow, 'state' | 'result' | 'endedAt' | 'notBefore' | 'done' | 'total'>>;

export const setRun = (db: Db, id: number, change: RunChange): void =>
  void db.update(runs).set(change).where(eq(runs.id, id)).run();

/** Runs that a stopped server left in the middle are queued again. */
export const requeueRunning = (db: Db): void =>
  void db.update(runs).set({ state: 'queued' }).where(eq(runs.state, 'running')).run();

export interface RunEnd {
  state: RunState;
  result?: RunResult | null;
  notBefore?: number | null;
}
