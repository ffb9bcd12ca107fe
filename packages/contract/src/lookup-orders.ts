import * as z from 'zod';
import { sought } from './sought';
import { count } from './model';

export const lookupOrdersQuery = z.object({
  /** Ids of the finders in the order by hand, with commas between. */
  order: z.string().max(500).default(''),
  of: sought,
});

const range = z.object({ low: z.number(), high: z.number() });

/** Finders in the order in which they are asked: the share of people that finds, and cents for each person who is asked about. */
export const lookupOrder = z.object({
  ids: z.array(z.string()),
  found: z.number(),
  cents: z.number(),
  /** Nine times of ten it lies between these. */
  foundRange: range,
  centsRange: range,
  /** Cents for each person that it costs less than the order by hand. */
  less: range,
});
export type LookupOrder = z.output<typeof lookupOrder>;

const priced = z.object({ who: z.string(), count: z.number(), eachCents: z.number() });

/** What the valid emails of a job cost, and what those likely cost that looking up who waits brings; in cents each, by who brings them as core has it. */
export const nextValid = z.object({
  target: count,
  got: z.array(priced),
  next: z.array(priced),
  leftCents: z.number(),
});
export type NextValid = z.output<typeof nextValid>;

/** What earlier answers say of an order by hand, of the cheapest that finds as many, and of the one that finds most for its money. */
export const lookupOrders = z.object({
  /** People whom the answers are of. */
  people: count,
  /** Ids of the finders that were asked about too few to say anything of them. */
  seldom: z.array(z.string()),
  /** What each of them answered: how many it was asked about, of how many it knew something right or wrong, and the range of the right ones, 0 to 1. */
  each: z.array(
    z.object({
      id: z.string(),
      asked: count,
      right: count,
      wrong: count,
      low: z.number(),
      high: z.number(),
      /** What an answer took on average in the last 30 days; null without any. */
      ms: count.nullable(),
      /** Questions that it could not be asked in them, and why the last time. */
      outages: count,
      lastOutage: z.string(),
      /** Of its plan in this month. */
      creditsLeft: count,
    }),
  ),
  byHand: lookupOrder,
  cheapest: lookupOrder,
  most: lookupOrder,
});
export type LookupOrders = z.output<typeof lookupOrders>;
