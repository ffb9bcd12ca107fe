import { appendEmail, appendPhone, dayOf, harmlessLine, monthSpan } from '@sieve/core';
import {
  servicesIn,
  zoneOf,
  type ChargeRow,
  type ChargesQuery,
  type LedgerQuery,
  type LedgerView,
  type Settings,
} from '@sieve/contract';
import type { Db } from '../db/open';
import { allJobs } from '../jobs/store';
import { estimateFor, phoneEstimate } from '../sieve/estimate';
import { contactNames } from '../sieve/rows';
import { plansOf } from './plans';
import { PAID, QUARTER_MS } from './store';

interface Span {
  from: number;
  to: number;
}
type Spent = LedgerView['all'];

/** What was spent in a month: by service, job and day, and the charges themselves. */
export function ledgerView(db: Db, settings: Settings, query: LedgerQuery, now: number): LedgerView {
  const zone = zoneOf(settings);
  const span = monthSpan(query.month, zone);
  const inMonth = [span.from, span.to] as const;
  const spent = (by: 'who' | 'job_id') =>
    db.$client
      .prepare(`SELECT ${by} AS by, ${SUMS} FROM ${PAID} WHERE at >= ? AND at < ? GROUP BY ${by} ORDER BY cents DESC`)
      .all(...inMonth) as ({ by: string | number | null } & Spent)[];
  const jobs = new Map(allJobs(db).map((job) => [job.id, job]));
  return {
    all: sumOf(db, span),
    before: sumOf(db, monthSpan(dayOf(span.from - 1, zone).slice(0, 7), zone)),
    plans: plansOf(db, query.month, span),
    planned: span.from <= now && now < span.to ? planned(db, settings, now) : { cents: 0, jobs: 0 },
    services: spent('who').map(({ by, ...rest }) => ({ who: String(by), ...rest })),
    jobs: spent('job_id').flatMap(({ by, ...rest }) => {
      if (by === null) return [];
      const job = jobs.get(Number(by));
      return {
        ...rest,
        jobId: Number(by),
        name: job?.name ?? '',
        spentCents: job?.spentCents ?? rest.cents,
        budgetCents: job?.budgetCents ?? 0,
        valid: job?.summary?.verdicts.valid ?? 0,
      };
    }),
    days: daysOf(db, span, zone),
    rows: chargeRows(db, span, query, query),
    asked: sumOf(db, span, query, ' AND is_charge'),
  };
}

/** The charges that are asked for as CSV, newest first, and the plans of the month behind them. Amounts in whole units of the currency. */
export function chargesFile(db: Db, settings: Settings, query: ChargesQuery): string {
  const zone = zoneOf(settings);
  const named = new Map(servicesIn(settings).map(({ id, name }) => [id, name]));
  const span = monthSpan(query.month, zone);
  const head = [
    'Time',
    'Service',
    'Job',
    'What for',
    'Person',
    `Amount, ${settings.currency}`,
    'Credits',
    'Given back',
    'Number',
  ];
  const plans = query.jobId ? [] : plansOf(db, query.month, span).filter(({ who }) => !query.who || who === query.who);
  const lines = chargeRows(db, span, query).map((row) => [
    new Date(row.at).toISOString(),
    named.get(row.who) ?? row.who,
    row.jobName,
    row.reason,
    row.name,
    (row.cents / 100).toFixed(2),
    row.credits > 0 ? String(row.credits) : '',
    row.givenBack > 0 ? (row.givenBack / 100).toFixed(2) : '',
    String(row.id),
  ]);
  const planLines = plans.map(({ who, at, cents, credits }) => [
    new Date(at).toISOString(),
    named.get(who) ?? who,
    '',
    `Plan of ${query.month}, ${credits} credits`,
    '',
    (cents / 100).toFixed(2),
    '',
    '',
    '',
  ]);
  return [head, ...lines, ...planLines].map(harmlessLine).join('');
}

/** What those who wait for it would likely cost, and in how many jobs they wait. */
function planned(db: Db, settings: Settings, now: number): LedgerView['planned'] {
  const estimates = { [appendEmail.kind]: estimateFor, [appendPhone.kind]: phoneEstimate };
  const each = allJobs(db).map(({ id, sieve, summary }) =>
    sieve
      .filter((step) => step.on && (summary?.steps.find((said) => said.id === step.id)?.waits ?? 0) > 0)
      .reduce((sum, { kind }) => sum + (estimates[kind]?.(db, id, settings, now).cost.likelyCents ?? 0), 0),
  );
  return { cents: each.reduce((sum, cents) => sum + cents, 0), jobs: each.filter((cents) => cents > 0).length };
}

type Which = Pick<ChargesQuery, 'who' | 'jobId'>;

/** The condition of a span, of a service and of a job, and what stands for its question marks. */
function where({ from, to }: Span, { who, jobId }: Which): [string, (string | number)[]] {
  const parts = ['at >= ? AND at < ?', ...(who ? ['who = ?'] : []), ...(jobId ? ['job_id = ?'] : [])];
  return [parts.join(' AND '), [from, to, ...(who ? [who] : []), ...(jobId ? [jobId] : [])]];
}

const SUMS = `coalesce(sum(cents), 0) AS cents, coalesce(sum(is_charge AND refund_of IS NULL), 0) AS charges,
  coalesce(sum(refund_of IS NOT NULL), 0) AS refunds`;

function sumOf(db: Db, span: Span, which: Which = {}, besides = ''): Spent {
  const [condition, values] = where(span, which);
  return db.$client.prepare(`SELECT ${SUMS} FROM ${PAID} WHERE ${condition}${besides}`).get(...values) as Spent;
}

function chargeRows(db: Db, span: Span, which: Which, page?: { offset: number; limit: number }): ChargeRow[] {
  const [condition, values] = where(span, which);
  const rows = db.$client
    .prepare(
      `SELECT id, at, who, job_id AS jobId, cents, credits, reason, contact, refund_of AS refundOf,
         (SELECT coalesce(-sum(back.cents), 0) FROM charges back WHERE back.refund_of = charges.id) AS givenBack
       FROM charges WHERE ${condition} ORDER BY at DESC, id DESC LIMIT ? OFFSET ?`,
    )
    .all(...values, page?.limit ?? -1, page?.offset ?? 0) as Omit<ChargeRow, 'jobName' | 'name'>[];
  const jobs = new Map(allJobs(db).map(({ id, name }) => [id, name]));
  const contactsOf = (jobId: number) => rows.flatMap((row) => (row.jobId === jobId ? (row.contact ?? []) : []));
  const names = new Map(
    [...new Set(rows.map(({ jobId }) => jobId))]
      .filter((jobId) => jobs.has(jobId))
      .map((jobId) => [jobId, contactNames(db, jobId, contactsOf(jobId))]),
  );
  return rows.map((row) => ({
    ...row,
    jobName: jobs.get(row.jobId) ?? '',
    name: (row.contact !== null && names.get(row.jobId)?.get(row.contact)) || '',
  }));
}

function daysOf(db: Db, { from, to }: Span, zone: string): LedgerView['days'] {
  const quarters = db.$client
    .prepare(
      `SELECT at / ${QUARTER_MS} AS quarter, who, sum(cents) AS cents FROM ${PAID}
       WHERE at >= ? AND at < ? GROUP BY quarter, who ORDER BY quarter`,
    )
    .all(from, to) as { quarter: number; who: string; cents: number }[];
  const days = new Map<string, LedgerView['days'][number]>();
  for (const { quarter, who, cents } of quarters) {
    const day = dayOf(quarter * QUARTER_MS, zone);
    const key = `${day} ${who}`;
    days.set(key, { day, who, cents: (days.get(key)?.cents ?? 0) + cents });
  }
  return [...days.values()];
}
