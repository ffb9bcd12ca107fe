import type { Pays } from '../facts/pays';
import { foreseen } from './foreseen';
import type { OrderExperience } from './lookup-order';

/** What earlier lookups showed: how many were tried and how many ended in a valid address. */
export interface Experience {
  tried: number;
  byPattern: number;
  byFinder: number;
  /** True where no address is made from patterns this time, whatever they gave before. */
  withoutPatterns?: boolean;
}

export interface Estimate {
  /** Contacts that would be asked about. */
  contacts: number;
  /** The range that holds nine times of ten. */
  valid: { low: number; likely: number; high: number };
  /** Cents, and the range that holds nine times of ten. `most` is never passed: it is also cut to what the budget leaves. */
  cost: { lowCents: number; likelyCents: number; highCents: number; mostCents: number };
  seconds: number;
  /** True when the budget may end before the contacts do. */
  budgetMayEnd: boolean;
}

/**
 * What the trade expects before anything is known: about half get an address, a quarter by patterns alone. Common
 * practice, no source. Lists differ, by a third or more; so it weighs no more than 8 lookups.
 */
const USUAL: Experience = { tried: 8, byPattern: 2, byFinder: 2 };

/** What earlier lookups of phones showed: how many people were asked about, how many got one, and what that cost, with the sum of the squares of what each did. */
export interface PhoneExperience {
  tried: number;
  found: number;
  cents: number;
  squares: number;
}

/** Before anything is known half get a phone, and each is asked of every service once. Common practice, no source. It weighs as much as 8 people. */
const USUAL_PHONES = { tried: 8, found: 4 };

/** Before anything was timed: 1,034 people take about 32 minutes. Common practice, no source. It weighs as much as 40 contacts. */
const USUAL_MS = (32 * 60_000) / 1034;
const USUAL_TIMED = 40;

/** The shares of contacts looked up that patterns and finders likely give, and the contacts that this rests on. */
export function likelyShares(seen: Experience): { byPattern: number; byFinder: number; tried: number } {
  const tried = seen.tried + USUAL.tried;
  const share = (count: number) => count / tried;
  return {
    byPattern: seen.withoutPatterns ? 0 : share(seen.byPattern + USUAL.byPattern),
    byFinder: share(seen.byFinder + USUAL.byFinder),
    tried,
  };
}

/** The same of an order that was asked about too few: each address it finds costs the price. */
export function usualOrder(seen: Experience, priceCents: number): OrderExperience {
  const { byPattern, byFinder, tried } = likelyShares(seen);
  const found = priceCents > 0 ? byFinder / (1 - byPattern) : 0;
  return { found, cents: priceCents * found, squares: priceCents ** 2 * found, people: tried };
}

/** All of it, or as many whole contacts as the budget leaves for. */
const mostWithin = (contacts: number, eachCents: number, leftCents: number): number =>
  eachCents === 0 ? 0 : Math.min(contacts, Math.floor(leftCents / eachCents)) * eachCents;

/**
 * Cents that are likely, and between which the cost lies nine times of ten: as if each contact cost one sum or nothing, so often that the mean is right, and the
 * mean square too.
 *
 * @param of `dearestCents`: that sum, the mean square by the mean
 */
function costRange(of: {
  contacts: number;
  eachCents: number;
  dearestCents: number;
  /** Contacts that this rests on. */
  tried: number;
  /** What is paid besides, whatever is found. */
  surelyCents: number;
  mostCents: number;
}): Estimate['cost'] {
  const { contacts, eachCents, dearestCents, tried, surelyCents, mostCents } = of;
  const dearest = Math.max(dearestCents, eachCents);
  const within = (cents: number) => Math.min(mostCents, Math.round(surelyCents + cents));
  const { low, high } = foreseen(contacts, dearest === 0 ? 0 : eachCents / dearest, tried);
  return {
    lowCents: within(low * dearest),
    likelyCents: within(contacts * eachCents),
    highCents: within(high * dearest),
    mostCents,
  };
}

/** Seconds for one contact, from runs that were timed. */
export const secondsEach = (timed: { contacts: number; ms: number }): number =>
  (timed.ms + USUAL_TIMED * USUAL_MS) / (timed.contacts + USUAL_TIMED) / 1000;

/**
 * Time, cost and likely yield of asking about a number of contacts.
 *
 * @param priceCents of one valid address, the dearest finder's; 0 when no finder is asked
 * @param leftCents what the budget leaves
 * @param mostEachCents what one contact can cost at most: more than the price where finders charge for answers or questions
 * @param timed earlier runs: how many contacts they asked about, and how long they took
 * @param verifyingCents what verifying the addresses of one contact likely costs
 * @param order what their answers say of the finders; null while they answered too little: then each address found costs the price
 */
export function estimateAppend(
  contacts: number,
  seen: Experience,
  priceCents: number,
  leftCents: number,
  timed: { contacts: number; ms: number } = { contacts: 0, ms: 0 },
  mostEachCents = priceCents,
  order: OrderExperience | null = null,
  verifyingCents = 0,
): Estimate {
  const { byPattern, tried } = likelyShares(seen);
  const said = order ?? usualOrder(seen, priceCents);
  const lacking = priceCents > 0 ? contacts * (1 - byPattern) : 0;
  const verifying = Math.min(leftCents, contacts * verifyingCents);
  const asked = said.cents > 0 ? Math.min(lacking, (leftCents - verifying) / said.cents) : lacking;
  const share = byPattern + (contacts === 0 ? 0 : (asked * said.found) / contacts);
  return {
    contacts,
    valid: foreseen(contacts, share, tried),
    cost: costRange({
      contacts,
      eachCents: contacts === 0 ? 0 : (asked * said.cents) / contacts,
      dearestCents: said.cents === 0 ? 0 : said.squares / said.cents,
      tried: Math.min(tried, said.people),
      surelyCents: verifying,
      mostCents: mostWithin(contacts, mostEachCents, leftCents),
    }),
    seconds: Math.ceil(contacts * secondsEach(timed)),
    budgetMayEnd: contacts * verifyingCents + lacking * said.cents > leftCents,
  };
}

/**
 * Time, cost and likely yield of asking for phones.
 *
 * @param services what each charges, in cents
 * @param questions that one person takes at most of each service
 */
export function estimatePhones(
  contacts: number,
  seen: PhoneExperience,
  services: readonly { priceCents: number; pays: Pays }[],
  questions: number,
  leftCents: number,
  timed: { contacts: number; ms: number },
): Estimate {
  const tried = seen.tried + USUAL_PHONES.tried;
  const share = services.length === 0 ? 0 : (seen.found + USUAL_PHONES.found) / tried;
  const all = services.reduce((sum, { priceCents }) => sum + priceCents, 0);
  const usualCents = services.reduce(
    (sum, { priceCents, pays }) => sum + (pays === 'question' ? priceCents : (priceCents * share) / services.length),
    0,
  );
  const cents = seen.cents + USUAL_PHONES.tried * usualCents;
  const squares = seen.squares + USUAL_PHONES.tried * usualCents * all;
  const eachCents = cents / tried;
  return {
    contacts,
    valid: foreseen(contacts, share, tried),
    cost: costRange({
      contacts,
      eachCents,
      dearestCents: cents === 0 ? 0 : squares / cents,
      tried,
      surelyCents: 0,
      mostCents: Math.min(leftCents, contacts * all * questions),
    }),
    seconds: Math.ceil(contacts * secondsEach(timed)),
    budgetMayEnd: contacts * eachCents > leftCents,
  };
}
