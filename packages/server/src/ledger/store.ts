import { dayOf } from '@sieve/core';
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

/** The days of every time zone begin at a quarter of an hour. */
const QUARTER_MS = 15 * 60_000;

/** What was spent since a time, by the days of a time zone. */
export function spendByDay(db: Db, since: number, zone: string): SpendDay[] {
  const quarters = db.$client
    .prepare(
      `SELECT at / ${QUARTER_MS} AS quarter, sum(cents) AS cents, count(*) AS bought FROM charges
       WHERE at > ? GROUP BY quarter ORDER BY quarter`,
    )
    .all(since) as { quarter: number; cents: number; bought: number }[];
  const days = new Map<string, SpendDay>();
  for (const { quarter, cents, bought } of quarters) {
    const day = dayOf(quarter * QUARTER_MS, zone);
    const sum = days.get(day) ?? { day, cents: 0, bought: 0 };
    days.set(day, { day, cents: sum.cents + cents, bought: sum.bought + bought });
  }
  return [...days.values()];
}
