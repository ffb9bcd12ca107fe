import { wilson } from './wilson';

/** What earlier lookups showed: how many were tried and how many ended in a valid address. */
export interface Experience {
  tried: number;
  byPattern: number;
  byFinder: number;
}

export interface Estimate {
  /** Contacts that would be asked about. */
  contacts: number;
  valid: { low: number; likely: number; high: number };
  /** Cents. `most` is never passed: it is also cut to what the budget leaves. */
  cost: { likelyCents: number; mostCents: number };
  seconds: number;
  /** True when the budget may end before the contacts do. */
  budgetMayEnd: boolean;
}

/**
 * What the trade expects before anything is known: about half get an address, a quarter by patterns alone. Common
 * practice, no source. It weighs as much as 40 lookups.
 */
const USUAL: Experience = { tried: 40, byPattern: 10, byFinder: 10 };

/** Before anything was timed: 1,034 people take about 32 minutes. Common practice, no source. It weighs as much as 40 contacts. */
const USUAL_MS = (32 * 60_000) / 1034;

/** Seconds for one contact, from runs that were timed. */
export const secondsEach = (timed: { contacts: number; ms: number }): number =>
  (timed.ms + USUAL.tried * USUAL_MS) / (timed.contacts + USUAL.tried) / 1000;

/**
 * Time, cost and likely yield of asking about a number of contacts.
 *
 * @param priceCents of one valid address, the dearest finder's; 0 when no finder is asked
 * @param leftCents what the budget leaves
 * @param timed earlier runs: how many contacts they asked about, and how long they took
 */
export function estimateAppend(
  contacts: number,
  seen: Experience,
  priceCents: number,
  leftCents: number,
  timed: { contacts: number; ms: number } = { contacts: 0, ms: 0 },
): Estimate {
  const finders = priceCents > 0;
  const tried = seen.tried + USUAL.tried;
  const byPattern = (seen.byPattern + USUAL.byPattern) / tried;
  const byFinder = finders ? (seen.byFinder + USUAL.byFinder) / tried : 0;
  const affordable = finders ? Math.floor(leftCents / priceCents) : 0;
  const bought = Math.min(contacts * byFinder, affordable);
  const share = byPattern + (contacts === 0 ? 0 : bought / contacts);
  const interval = wilson(share * tried, tried);
  return {
    contacts,
    valid: {
      low: Math.floor(contacts * interval.low),
      likely: Math.round(contacts * share),
      high: Math.min(contacts, Math.ceil(contacts * interval.high)),
    },
    cost: { likelyCents: Math.round(bought) * priceCents, mostCents: Math.min(contacts, affordable) * priceCents },
    seconds: Math.ceil(contacts * secondsEach(timed)),
    budgetMayEnd: finders && contacts * byFinder > affordable,
  };
}
