import type { RunInput, RunResult, RunState } from '@sieve/contract';
import { and, asc, desc, eq, inArray, isNull, notInArray, sql } from 'drizzle-orm';
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

const ENDED: RunState[] = ['done', 'failed', 'cancelled'];

/** The run that splits a search, if one does. */
export const liveSplit = (db: Db, searchId: number): number | null =>
  db
    .select({ id: runs.id })
    .from(runs)
    .where(
      and(
        notInArray(runs.state, ENDED),
        sql`json_extract(${runs.input}, '$.kind') = 'split'`,
        sql`json_extract(${runs.input}, '$.searchId') = ${searchId}`,
      ),
    )
    .get()?.id ?? null;

/** The split of a search that was done last, if its batches are to be pulled. */
export const doneSplitToPull = (db: Db, searchId: number): RunTableRow | undefined =>
  db
    .select()
    .from(runs)
    .where(
      and(
        eq(runs.state, 'done'),
        sql`json_extract(${runs.input}, '$.kind') = 'split'`,
        sql`json_extract(${runs.input}, '$.searchId') = ${searchId}`,
        sql`json_extract(${runs.input}, '$.thenPull')`,
      ),
    )
    .orderBy(desc(runs.id))
    .get();

/** The oldest first. */
export const queuedRuns = (db: Db): RunTableRow[] =>
  db.select().from(runs).where(eq(runs.state, 'queued')).orderBy(asc(runs.id)).all();

const MOST_ENDED = 100;

/** All that are not at their end, and those that ended last; siftings that went well are not among these. The newest first. */
export function listedRuns(db: Db): RunTableRow[] {
  const live = db.select().from(runs).where(notInArray(runs.state, ENDED)).all();
  const ended = db
    .select()
    .from(runs)
    .where(
      and(
        inArray(runs.state, ENDED),
        sql`NOT (${runs.state} = 'done' AND json_extract(${runs.input}, '$.kind') = 'sift')`,
      ),
    )
    .orderBy(desc(runs.id))
    .limit(MOST_ENDED)
    .all();
  return [...live, ...ended].sort((a, b) => b.id - a.id);
}

/** Failed runs have been looked at. */
export const seeFailed = (db: Db, now: number): void =>
  void db
    .update(runs)
    .set({ seenAt: now })
    .where(and(eq(runs.state, 'failed'), isNull(runs.seenAt)))
    .run();

export type RunChange = Partial<
  Pick<RunTableRow, 'state' | 'result' | 'startedAt' | 'endedAt' | 'notBefore' | 'seenAt' | 'done' | 'total'>
>;

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

/** The last runs that asked about contacts and ended well: how many contacts, and how long it took. */
export const timedAsks = (db: Db, step: string): { contacts: number; ms: number } =>
  db.$client
    .prepare(
      `SELECT coalesce(sum(contacts), 0) AS contacts, coalesce(sum(ms), 0) AS ms FROM
         (SELECT json_extract(result, '$.contacts') AS contacts, ended_at - started_at AS ms FROM runs
          WHERE state = 'done' AND started_at IS NOT NULL AND json_extract(input, '$.step') = ?
          ORDER BY id DESC LIMIT 20)`,
    )
    .get(step) as { contacts: number; ms: number };

/** The last run that brought a source in. */
export const intakeOf = (db: Db, sourceId: number): RunTableRow | undefined =>
  db
    .select()
    .from(runs)
    .where(
      and(
        sql`json_extract(${runs.input}, '$.kind') = 'bring-in'`,
        sql`json_extract(${runs.input}, '$.sourceId') = ${sourceId}`,
      ),
    )
    .orderBy(desc(runs.id))
    .get();
