import type { SpendDay } from '@sieve/contract';
import type { Db } from '../db/open';

export interface Charge {
  jobId: number;
  who: string;
  question: string;
  cents: number;
  reason: string;
  at: number;
}

/** Writes a charge. Called in the transaction of the fact that it bought; the fact's key is unique. */
export const addCharge = (db: Db, { jobId, who, question, cents, reason, at }: Charge): void =>
  void db.$client
    .prepare('INSERT INTO charges (job_id, who, question, cents, reason, at) VALUES (?, ?, ?, ?, ?, ?)')
    .run(jobId, who, question, cents, reason, at);

export const spentCents = (db: Db, jobId: number): number =>
  db.$client.prepare('SELECT coalesce(sum(cents), 0) FROM charges WHERE job_id = ?').pluck().get(jobId) as number;

/** What was spent since a time, by day. */
export const spendByDay = (db: Db, since: number): SpendDay[] =>
  db.$client
    .prepare(
      `SELECT date(at / 1000, 'unixepoch') AS day, sum(cents) AS cents, count(*) AS bought FROM charges
       WHERE at > ? GROUP BY day ORDER BY day`,
    )
    .all(since) as SpendDay[];
