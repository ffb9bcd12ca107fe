import * as z from 'zod';
import { at, count, id } from './model';

export const spendDay = z.object({ day: z.string(), cents: z.int(), bought: count });
export type SpendDay = z.output<typeof spendDay>;

/** Which charges: of a month of the person's time zone, of one service or all, of one job or all. */
export const chargesQuery = z.object({
  month: z.string().regex(/^\d{4}-(0[1-9]|1[0-2])$/, 'a month like 2026-11'),
  who: z.string().max(60).optional(),
  jobId: z.coerce.number().int().positive().optional(),
});
export type ChargesQuery = z.output<typeof chargesQuery>;

export const ledgerQuery = chargesQuery.extend({
  offset: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(500).default(100),
});
export type LedgerQuery = z.output<typeof ledgerQuery>;

/** One charge, or what was given back of one: then the cents are below 0. */
export const chargeRow = z.object({
  id,
  at,
  who: z.string(),
  jobId: z.int(),
  jobName: z.string(),
  cents: z.int(),
  /** Taken of the service's plan in place of money. */
  credits: count,
  reason: z.string(),
  /** The contact that it was for, and their name; null and '' where it was for none, or where none is of that number now. */
  contact: z.int().nullable(),
  name: z.string(),
  /** Cents that were given back of it. */
  givenBack: count,
  /** The charge that this gives back. */
  refundOf: z.int().nullable(),
});
export type ChargeRow = z.output<typeof chargeRow>;

/** What came of charges and refunds together, and how many there are of each. */
const spent = z.object({ cents: z.int(), charges: count, refunds: count });

export const ledgerView = z.object({
  /** Of the month, plans with it. */
  all: spent,
  /** The month before. */
  before: spent,
  /** Plans of which something was used in the month: what they held and cost, and the credits used. */
  plans: z.array(z.object({ who: z.string(), credits: count, cents: count, at, used: count })),
  /** What looking up those who wait for it now would likely cost, and the jobs in which they wait; none in a month that is not this one. */
  planned: z.object({ cents: count, jobs: count }),
  /** Of whom the charges are, by what they come to. */
  services: z.array(spent.extend({ who: z.string() })),
  /** Jobs with charges in the month: what they spent in it, in all, and of how much. */
  jobs: z.array(
    spent.extend({
      jobId: z.int(),
      name: z.string(),
      spentCents: z.int(),
      budgetCents: count,
      valid: count,
    }),
  ),
  /** By day and service, days without charges left out. */
  days: z.array(z.object({ day: z.string(), who: z.string(), cents: z.int() })),
  /** The charges asked for, newest first, and how many and how much they are in all. */
  rows: z.array(chargeRow),
  asked: spent,
});
export type LedgerView = z.output<typeof ledgerView>;

/** What a job may still spend, and which budget says so. */
export const left = z.object({ cents: z.int().min(0), of: z.enum(['job', 'folder', 'month']) });
export type Left = z.output<typeof left>;

/** Money that a service gave back of a charge. */
export const newRefund = z.object({
  chargeId: id,
  cents: z.int().min(1),
  why: z.string().trim().min(1).max(300),
});
export type NewRefund = z.output<typeof newRefund>;
