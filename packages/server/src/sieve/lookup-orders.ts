import {
  ANY_AGE,
  atAnyAge,
  cheapestOrder,
  dayOf,
  experienceOf,
  judge,
  lookupOdds,
  MOST_SERVICES,
  orderOf,
  orderRanges,
  stepsOf,
  wilson,
  type OrderExperience,
  type OrderStep,
  type SaidOfOne,
} from '@sieve/core';
import { zoneOf, type LookupOrders, type Settings, type Sought } from '@sieve/contract';
import type { Db } from '../db/open';
import { creditsLeft, findersNow } from '../ledger/plans';
import { spentMeter } from '../ledger/store';
import { factsAt, newestAnswers } from '../outside/facts';
import { mannersSince } from '../outside/service-days';

/** How services were to deal with is said of so many days. */
const MANNERS_DAYS = 30;
const DAY_MS = 86_400_000;

/** The newest answers; older ones say less of how finders are now. */
const MOST_ANSWERS = 20_000;
/** Of a finder that was asked about fewer people nothing is claimed: it is in no order but that by hand. */
const LEAST_ASKED = 20;

/**
 * What services answered so far, over all jobs, says of an order of them: what it finds and costs, which order finds as many for the least money, and
 * which finds most for the same money. Finders beside the order take part, as many as can be ordered exactly.
 */
export function lookupOrders(
  db: Db,
  settings: Settings,
  byHand: readonly string[],
  of: Sought,
  now: number,
): LookupOrders {
  const spent = spentMeter(db);
  const finders = of === 'addresses' ? findersNow(spent, settings, 1, now) : settings.phoneServices;
  const said = of === 'addresses' ? saidOfAddresses(db, settings.lists, MOST_ANSWERS) : saidOfPhones(db);
  const seldom = finders.flatMap(({ id }) => (said.filter((one) => one.has(id)).length < LEAST_ASKED ? [id] : []));
  const inOrder = [
    ...byHand.flatMap((id) => finders.find((finder) => finder.id === id) ?? []),
    ...finders.filter(({ id }) => !byHand.includes(id) && !seldom.includes(id)),
  ].slice(0, MOST_SERVICES);
  const services = inOrder.map(({ id, priceCents: cents, pays }) => ({ id, cents, pays }));
  const odds = lookupOdds(said, services);
  const own = orderOf(odds, byHand);
  // Where nobody is asked by hand, any order that finds the most is better.
  const wanting =
    own.ids.length === 0 ? ([{ found: 1 }, { found: 1 }] as const) : ([own, { cents: own.cents }] as const);
  const orders = [own, ...wanting.map((wanted) => cheapestOrder(odds, wanted))];
  const ranges = orderRanges(
    said,
    services,
    orders.map(({ ids }) => ids),
  );
  const [hand, cheapest, most] = orders.map((order, i) => {
    const { found: foundRange, cents: centsRange, less } = ranges[i]!;
    return { ...order, foundRange, centsRange, less };
  });
  const since = dayOf(now - MANNERS_DAYS * DAY_MS, zoneOf(settings));
  const each = finders.map(({ id }) => ({
    id,
    ...answersOf(said, id),
    ...mannersSince(db, id, since),
    creditsLeft: creditsLeft(spent, settings, id, now),
  }));
  return { people: said.length, seldom, each, byHand: hand!, cheapest: cheapest!, most: most! };
}

function answersOf(said: readonly SaidOfOne[], id: string) {
  const answers = said.flatMap((one) => one.get(id) ?? []);
  const count = (of: Said) => answers.filter((answer) => answer === of).length;
  return {
    asked: answers.length,
    right: count('valid'),
    wrong: count('wrong'),
    ...wilson(count('valid'), answers.length),
  };
}

/** What is said before a run rests on so many of the newest answers, and on no fewer people than these. */
const NEWEST = 2000;
const LEAST_PEOPLE = 30;

/** What an order of finders found and cost lately, each by itself and all together; null while they answered about too few people. */
export function orderSoFar(
  db: Db,
  { finders, lists }: Settings,
  byHand: readonly string[],
): { steps: OrderStep[]; all: OrderExperience } | null {
  const said = saidOfAddresses(db, lists, NEWEST);
  const asked = byHand.flatMap((id) => finders.find((finder) => finder.id === id) ?? []).slice(0, MOST_SERVICES);
  const isKnown = asked.every(({ id }) => said.filter((one) => one.has(id)).length >= LEAST_ASKED);
  if (asked.length === 0 || said.length < LEAST_PEOPLE || !isKnown) return null;
  const services = asked.map(({ id, priceCents: cents, pays }) => ({ id, cents, pays }));
  const steps = stepsOf(
    lookupOdds(said, services),
    services.map(({ id }) => id),
  );
  return { steps, all: experienceOf(said, steps) };
}

/** What finders said of each person; an address whose verdict is not known yet is left out. */
function saidOfAddresses(db: Db, lists: Settings['lists'], most: number): SaidOfOne[] {
  const env = { facts: atAnyAge(factsAt(db, 0, ANY_AGE)), lists };
  return byQuestion(newestAnswers(db, 'finder', most), ({ email }) => {
    if (email === null) return 'none';
    const judged = judge(email, env);
    return judged.ask ? null : judged.done.verdict === 'valid' ? 'valid' : 'wrong';
  });
}

/** What services listed for each question of any pass. */
const saidOfPhones = (db: Db): SaidOfOne[] =>
  byQuestion(newestAnswers(db, 'phones', MOST_ANSWERS), ({ phones }) => (phones.length > 0 ? 'valid' : 'none'));

type Said = 'valid' | 'wrong' | 'none';

/** Answers by what was asked and who answered; of one service the newest counts. */
function byQuestion<A>(
  answers: readonly { question: string; who: string; answer: A }[],
  saidOf: (answer: A) => Said | null,
): SaidOfOne[] {
  const questions = new Map<string, Map<string, Said>>();
  for (const { question, who, answer } of answers) {
    const said = saidOf(answer);
    if (said === null) continue;
    const one = questions.get(question) ?? new Map<string, Said>();
    if (!one.has(who)) one.set(who, said);
    questions.set(question, one);
  }
  return [...questions.values()];
}
