import type { Decision, SieveStep } from '@sieve/core';
import type { Author, DecisionRow, DecisionSubject, LoggedBody } from '@sieve/contract';
import { and, asc, desc, eq, isNull } from 'drizzle-orm';
import { insertedId, type Db } from '../db/open';
import { decisions } from './tables';

const of = ({ subject, subjectId }: DecisionSubject) =>
  and(eq(decisions.subject, subject), eq(decisions.subjectId, subjectId));

export const addDecision = (
  db: Db,
  { subject, subjectId }: DecisionSubject,
  author: Author,
  body: LoggedBody,
  now: number,
): DecisionRow =>
  decisionById(db, insertedId(db.insert(decisions).values({ subject, subjectId, author, at: now, body }).run()))!;

export const decisionById = (db: Db, id: number): DecisionRow | undefined =>
  db.select().from(decisions).where(eq(decisions.id, id)).get();

export function markUndone(db: Db, id: number, undoneAt: number | null): DecisionRow {
  db.update(decisions).set({ undoneAt }).where(eq(decisions.id, id)).run();
  return decisionById(db, id)!;
}

/** The newest first. */
export const decisionRows = (db: Db, subject: DecisionSubject, limit: number): DecisionRow[] =>
  db.select().from(decisions).where(of(subject)).orderBy(desc(decisions.id)).limit(limit).all();

/** The decisions about a job that have not been taken back, in order; changes of its brief are not among them. */
export const standingDecisions = (db: Db, jobId: number): Decision[] =>
  db
    .select({ id: decisions.id, body: decisions.body })
    .from(decisions)
    .where(and(of({ subject: 'job', subjectId: jobId }), isNull(decisions.undoneAt)))
    .orderBy(asc(decisions.id))
    .all()
    .filter(({ body }) => body.kind !== 'brief') as Decision[];

/** The steps that the standing decisions about a job set up, in order. */
export const configuredSteps = (db: Db, jobId: number): SieveStep[] =>
  (
    db.$client
      .prepare(
        `SELECT json_extract(body, '$.step') FROM decisions WHERE subject = 'job' AND subject_id = ? AND undone_at IS NULL
         AND json_extract(body, '$.kind') = 'configure' ORDER BY id`,
      )
      .pluck()
      .all(jobId) as string[]
  ).map((step) => JSON.parse(step) as SieveStep);

/** Whether the decision that brought a source in has been taken back. */
export const isTakenBack = (db: Db, sourceId: number): boolean =>
  db.$client
    .prepare(
      `SELECT undone_at FROM decisions WHERE json_extract(body, '$.kind') = 'bring-in' AND json_extract(body, '$.sourceId') = ?`,
    )
    .pluck()
    .get(sourceId) != null;

/** For each source of a job the decision that brought it in. */
export function broughtIn(db: Db, jobId: number): Map<number, { decision: number; out: boolean }> {
  const rows = db.$client
    .prepare(
      `SELECT id, undone_at AS undoneAt, json_extract(body, '$.sourceId') AS sourceId FROM decisions
       WHERE subject = 'job' AND subject_id = ? AND json_extract(body, '$.kind') = 'bring-in'`,
    )
    .all(jobId) as { id: number; undoneAt: number | null; sourceId: number }[];
  return new Map(rows.map(({ id, undoneAt, sourceId }) => [sourceId, { decision: id, out: undoneAt !== null }]));
}
