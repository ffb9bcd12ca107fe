import { lookupWorld } from '../testing/lookup-world';
import { seededRandom } from '../text/random';
import { estimateAppend, estimatePhones } from './estimate';
import { foreseen } from './foreseen';
import { experienceOf, lookupOdds, stepsOf, type LookupService, type SaidOfOne } from './lookup-order';

// Beta-binomial mean and variance for 10 more after a share of 0.5 in 7: 5 and 10 * 0.25 * (1 + 9 / 8), by hand.
test('the range is that of a beta-binomial', () => {
  expect(foreseen(10, 0.5, 7)).toEqual({ low: 1, likely: 5, high: 9 });
  expect(foreseen(0, 0.5, 7)).toEqual({ low: 0, likely: 0, high: 0 });
  expect(foreseen(50, 0, 100)).toEqual({ low: 0, likely: 0, high: 0 });
});

const PRICE = 7;
interface Range {
  low: number;
  high: number;
}

/** 300 runs over lists of which between a fifth and four fifths can be found, after nothing, little or much was looked up. */
function runs(
  said: (seen: { tried: number; found: number }, contacts: number) => Range,
  { cents, part } = { cents: 1, part: 1 },
) {
  const next = seededRandom(11);
  const pick = <T>(of: readonly T[]) => of[Math.floor(next() * of.length)]!;
  const hits = (n: number, share: number) => Array.from({ length: n }, next).filter((x) => x < share).length;
  let count = 0;
  for (let run = 0; run < 300; run++) {
    const truth = 0.2 + 0.6 * next();
    const tried = pick([0, 20, 200, 2000]);
    const contacts = pick([40, 400, 2000]);
    const { low, high } = said({ tried, found: hits(tried, truth * part) }, contacts);
    const found = cents * hits(contacts, truth * part);
    if (low <= found && found <= high) count++;
  }
  return count / 300;
}

/** How often both what they find and what it costs lie in their ranges where four finders that are paid in their ways were asked before, in any order. */
function ofFourFinders(runs: number): number[] {
  const held = [0, 0];
  const timed = { contacts: 0, ms: 0 };
  for (let seed = 1; seed <= runs; seed++) {
    const { services, person, askedInAnyOrder } = lookupWorld(9000 + seed, 4);
    const said = Array.from({ length: seed % 2 ? 100 : 800 }, askedInAnyOrder);
    const steps = stepsOf(
      lookupOdds(said, services),
      services.map(({ id }) => id),
    );
    const people = Array.from({ length: 400 }, person);
    // Nobody has an address by a pattern, so that finders are asked about all.
    const seen = { tried: said.length, byPattern: 0, byFinder: 0 };
    const { cost, valid } = estimateAppend(400, seen, 1, 1e9, timed, 1e9, experienceOf(said, steps));
    const found = people.filter((one) => [...one.values()].includes('valid')).length;
    const cents = people.reduce((sum, one) => sum + costOf(one, services), 0);
    held[0]! += Number(valid.low <= found && found <= valid.high);
    held[1]! += Number(cost.lowCents <= cents && cents <= cost.highCents);
  }
  return held.map((count) => count / runs);
}

/** How often what three phone services cost lies in its range, after some people were asked of all of them. */
function costOfPhones(runs: number): number {
  let held = 0;
  for (let seed = 1; seed <= runs; seed++) {
    const { services, person } = lookupWorld(7000 + seed, 3);
    const sold = services.map(({ cents: priceCents, pays }) => ({ priceCents, pays }));
    const spent = (people: number) => Array.from({ length: people }, () => costOf(person(), services));
    const before = spent(seed % 2 ? 60 : 800);
    const sum = (values: readonly number[]) => values.reduce((all, one) => all + one, 0);
    const seen = { tried: before.length, found: 0, cents: sum(before), squares: sum(before.map((c) => c * c)) };
    const { cost } = estimatePhones(400, seen, sold, 1, 1e9, { contacts: 0, ms: 0 });
    const cents = sum(spent(400));
    held += Number(cost.lowCents <= cents && cents <= cost.highCents);
  }
  return held / runs;
}

function costOf(said: SaidOfOne, services: readonly LookupService[]): number {
  let sum = 0;
  for (const { id, cents, pays } of services) {
    const answer = said.get(id)!;
    if (pays === 'question' || answer === 'valid' || (pays === 'answer' && answer === 'wrong')) sum += cents;
    if (answer === 'valid') break;
  }
  return sum;
}

test('what is said before looking up holds the truth nine times of ten, over 300 runs', () => {
  const addresses = runs(({ tried, found }, contacts) => {
    const byPattern = Math.round(found / 2);
    return estimateAppend(contacts, { tried, byPattern, byFinder: found - byPattern }, 1, 1e9).valid;
  });
  const service = { priceCents: 1, pays: 'answer' as const };
  const phones = runs(({ tried, found }, contacts) => {
    const timed = { contacts: 0, ms: 0 };
    return estimatePhones(contacts, { tried, found, cents: found, squares: found }, [service], 1, 1e9, timed).valid;
  });
  // Half of them by a finder that is paid for what it finds.
  const paid = runs(
    ({ tried, found }, contacts) => {
      const { cost } = estimateAppend(contacts, { tried, byPattern: found, byFinder: found }, PRICE, 1e9);
      return { low: cost.lowCents, high: cost.highCents };
    },
    { cents: PRICE, part: 0.5 },
  );
  for (const share of [addresses, phones, paid, ...ofFourFinders(300), costOfPhones(300)]) {
    expect(share).toBeGreaterThanOrEqual(0.85);
    expect(share).toBeLessThanOrEqual(0.95);
  }
});
