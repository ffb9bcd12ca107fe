import { dayOf } from '@sieve/core';
import type { SpendDay } from '@sieve/contract';
import type { Db } from '../db/open';

export interface Charge {
  jobId: number;
  who: string;
  question: string;
  cents: number;
  /** What it takes of the service's plan in place of money. */
  credits: number;
  reason: string;
  /** The contact that it is for; null: for none. */
  contact: number | null;
  at: number;
}

/** Writes a charge. Called in the transaction of the fact that it bought; the fact's key is unique. */
export const addCharge = (db: Db, { jobId, who, question, cents, credits, reason, contact, at }: Charge): void =>
  void db.$client
    .prepare(
      'INSERT INTO charges (job_id, who, question, cents, credits, reason, contact, at) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
    )
    .run(jobId, who, question, cents, credits, reason, contact, at);

/** A question that may be charged, by who is paid for it; the contact that it is asked for at a step. */
export interface MaybeCharged {
  who: string;
  question: string;
  step: string;
  contact: number;
  cents: number;
}

/** Notes what a question may cost before it is asked; it is known by its service and its key. */
export const askedFor = (db: Db, jobId: number, { who, question, step, contact, cents }: MaybeCharged): void =>
  void db.$client
    .prepare(
      'INSERT OR REPLACE INTO maybe_charged (who, question, job_id, step, contact, cents) VALUES (?, ?, ?, ?, ?, ?)',
    )
    .run(who, question, jobId, step, contact, cents);

/** A question was answered, could not be asked, or is needed no more. */
export const askedNoMore = (db: Db, { who, question }: Pick<MaybeCharged, 'who' | 'question'>): void =>
  void db.$client.prepare('DELETE FROM maybe_charged WHERE who = ? AND question = ?').run(who, question);

/** Questions of runs of a job that broke off. */
export const brokenOff = (db: Db, jobId: number): MaybeCharged[] =>
  db.$client
    .prepare('SELECT who, question, step, contact, cents FROM maybe_charged WHERE job_id = ?')
    .all(jobId) as MaybeCharged[];

export const spentCents = (db: Db, jobId: number): number =>
  db.$client.prepare('SELECT coalesce(sum(cents), 0) FROM charges WHERE job_id = ?').pluck().get(jobId) as number;

/** Whatever was paid: charges, what was given back of them, and the months of plans, which are of no job. */
export const PAID = `(SELECT who, job_id, at, cents, refund_of, 1 AS is_charge FROM charges
  UNION ALL SELECT who, NULL, at, cents, NULL, 0 FROM plan_months)`;

/** What is summed: charges of one job or all, of one service or all, in a span of time or ever. */
interface Scope {
  jobId?: number;
  who?: string;
  from?: number;
  to?: number;
}
export type Spent = (scope: Scope) => { cents: number; credits: number };

/**
 * Sums that are asked for before every question of a run. Charges are only ever added, so each time only those are read that came since; what was given back
 * can be taken out again, and is summed anew.
 */
export function spentMeter(db: Db): Spent {
  const known = new Map<string, { cents: number; credits: number; upTo: number }>();
  return (scope) => {
    const { jobId, who, from = 0, to = Number.MAX_SAFE_INTEGER } = scope;
    const parts = ['at >= ? AND at < ?', ...(jobId ? ['job_id = ?'] : []), ...(who ? ['who = ?'] : [])];
    const values = [from, to, ...(jobId ? [jobId] : []), ...(who ? [who] : [])];
    const key = JSON.stringify(scope);
    const before = known.get(key) ?? { cents: 0, credits: 0, upTo: 0 };
    const since = db.$client
      .prepare(
        `SELECT coalesce(sum(cents), 0) AS cents, coalesce(sum(credits), 0) AS credits,
           coalesce((SELECT max(id) FROM charges), 0) AS upTo
         FROM charges NOT INDEXED WHERE id > ? AND refund_of IS NULL AND ${parts.join(' AND ')}`,
      )
      .get(before.upTo, ...values) as { cents: number; credits: number; upTo: number };
    const now = {
      cents: before.cents + since.cents,
      credits: before.credits + since.credits,
      upTo: Math.max(before.upTo, since.upTo),
    };
    known.set(key, now);
    const givenBack = db.$client
      .prepare(
        `SELECT coalesce(sum(cents), 0) FROM charges INDEXED BY charges_refund WHERE refund_of IS NOT NULL AND ${parts.join(' AND ')}`,
      )
      .pluck()
      .get(...values) as number;
    return { cents: now.cents + givenBack, credits: now.credits };
  };
}

/** What the plans cost that were begun from one time until another. */
export const plansBegunBetween = (db: Db, from: number, to: number): number =>
  db.$client
    .prepare('SELECT coalesce(sum(cents), 0) FROM plan_months WHERE at >= ? AND at < ?')
    .pluck()
    .get(from, to) as number;

/** What was spent on each contact of a job. */
export const spentByContact = (db: Db, jobId: number): Map<number, number> =>
  new Map(
    db.$client
      .prepare('SELECT contact, sum(cents) FROM charges WHERE job_id = ? AND contact IS NOT NULL GROUP BY contact')
      .raw()
      .all(jobId) as [number, number][],
  );

/** What some services have been paid, over all jobs, and the sum of the squares of what was for each contact. */
export const spentWith = (db: Db, services: readonly string[]): { cents: number; squares: number } =>
  db.$client
    .prepare(
      `SELECT coalesce(sum(cents), 0) AS cents, coalesce(sum(cents * cents), 0) AS squares FROM
         (SELECT sum(cents) AS cents FROM charges WHERE who IN (SELECT value FROM json_each(?)) GROUP BY job_id, contact)`,
    )
    .get(JSON.stringify(services)) as { cents: number; squares: number };

/** The days of every time zone begin at a quarter of an hour. */
export const QUARTER_MS = 15 * 60_000;

/** What was spent since a time, by the days of a time zone. */
export function spendByDay(db: Db, since: number, zone: string): SpendDay[] {
  const quarters = db.$client
    .prepare(
      `SELECT at / ${QUARTER_MS} AS quarter, sum(cents) AS cents, sum(is_charge AND refund_of IS NULL) AS bought FROM ${PAID}
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

/** What of a charge can still be given back, and of whom it is; undefined: there is no such charge. */
export const refundable = (db: Db, id: number): { jobId: number; who: string; leftCents: number } | undefined =>
  db.$client
    .prepare(
      `SELECT job_id AS jobId, who, cents + (SELECT coalesce(sum(back.cents), 0) FROM charges back WHERE back.refund_of = charges.id) AS leftCents
       FROM charges WHERE id = ? AND refund_of IS NULL`,
    )
    .get(id) as { jobId: number; who: string; leftCents: number } | undefined;

/**
 * Writes that a service gave money back, or takes that out again.
 *
 * @param refund `key`: what it is known by
 * @returns false when more would be given back than is left of the charge
 */
export function setRefund(
  db: Db,
  { chargeId, cents, why, key }: { chargeId: number; cents: number; why: string; key: string },
  isIn: boolean,
  now: number,
): boolean {
  if (!isIn)
    return (
      db.$client.prepare('DELETE FROM charges WHERE refund_of = ? AND question = ?').run(chargeId, key).changes > 0
    );
  const left = refundable(db, chargeId);
  if (!left || left.leftCents < cents) return false;
  db.$client
    .prepare(
      'INSERT INTO charges (job_id, who, question, cents, reason, contact, at, refund_of) SELECT job_id, who, ?, ?, ?, contact, ?, id FROM charges WHERE id = ?',
    )
    .run(key, -cents, why, now, chargeId);
  return true;
}
