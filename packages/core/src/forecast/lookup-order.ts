import type { Pays } from '../facts/pays';
import { seededRandom } from '../text/random';

/** A service that can be asked for what somebody lacks. */
export interface LookupService {
  id: string;
  cents: number;
  pays: Pays;
}

/** What services said of one person, by their ids; one that was not asked is not there. `wrong`: an answer that did not verify. */
export type SaidOfOne = ReadonlyMap<string, 'valid' | 'wrong' | 'none'>;

/** Services in the order in which they are asked, what share of people that finds, 0 to 1, and what it costs for each person, in cents. */
export interface LookupOrder {
  ids: string[];
  found: number;
  cents: number;
}

/** More are not ordered exactly. */
export const MOST_SERVICES = 8;

/** What is known of some services together. A set of them is a number, a bit for each. */
export interface LookupOdds {
  services: readonly LookupService[];
  /** By set: the share of people of whom none of the set knows anything valid. */
  unknownTo: Float64Array;
  /** By service: how often it answers wrongly where it knows nothing valid. */
  wrong: readonly number[];
}

/**
 * Learns which services know whom: how often each combination of them does, from people whom some were asked about. Who is asked next depends only
 * on what was answered, so those who were not asked are missing at random and expectation maximisation fills them in (Dempster, Laird and Rubin
 * 1977; Little and Rubin 2002, ch. 8). Services are not taken for independent: that is only where it starts, worth a handful of people.
 */
export function lookupOdds(said: readonly SaidOfOne[], services: readonly LookupService[]): LookupOdds {
  return oddsOf(tally(said, services), services);
}

/** How often the same was seen: which services were asked, and which of them knew something valid. */
interface Seen {
  asked: number;
  valid: number;
  n: number;
}
interface Tally {
  seen: Seen[];
  wrong: number[];
}

const START = { strength: 4, knows: 0.4 };
const ROUNDS = 60;
/** What a service that was seldom asked is taken to answer wrongly. Common practice, no source. */
const USUAL_WRONG = { share: 0.1, n: 10 };

function tally(said: readonly SaidOfOne[], services: readonly LookupService[]): Tally {
  const counts = new Map<number, Seen>();
  const wrong = services.map(() => 0);
  const unknown = services.map(() => 0);
  for (const one of said) {
    let [asked, valid] = [0, 0];
    for (const [j, { id }] of services.entries()) {
      const answer = one.get(id);
      if (answer === undefined) continue;
      asked |= 1 << j;
      if (answer === 'valid') valid |= 1 << j;
      else {
        unknown[j]!++;
        if (answer === 'wrong') wrong[j]!++;
      }
    }
    if (asked === 0) continue;
    const key = asked * 256 + valid;
    const known = counts.get(key);
    if (known) known.n++;
    else counts.set(key, { asked, valid, n: 1 });
  }
  return {
    seen: [...counts.values()],
    wrong: wrong.map((n, j) => (n + USUAL_WRONG.share * USUAL_WRONG.n) / (unknown[j]! + USUAL_WRONG.n)),
  };
}

function oddsOf({ seen, wrong }: Tally, services: readonly LookupService[]): LookupOdds {
  const size = 1 << services.length;
  const knows = services.map((_, j) => {
    const of = (bits: 'asked' | 'valid') => seen.reduce((sum, one) => sum + (one[bits] & (1 << j) ? one.n : 0), 0);
    return (of('valid') + START.strength * START.knows) / (of('asked') + START.strength);
  });
  const start = Float64Array.from({ length: size }, (_, cell) =>
    knows.reduce((product, share, j) => product * (cell & (1 << j) ? share : 1 - share), 1),
  );
  const total = seen.reduce((sum, { n }) => sum + n, START.strength);
  let joint = start;
  for (let round = 0; round < ROUNDS; round++) {
    const next = start.map((share) => share * START.strength);
    for (const { asked, valid, n } of seen) {
      let all = 0;
      for (let cell = 0; cell < size; cell++) if ((cell & asked) === valid) all += joint[cell]!;
      for (let cell = 0; cell < size; cell++)
        if ((cell & asked) === valid) next[cell]! += all === 0 ? 0 : (n * joint[cell]!) / all;
    }
    joint = next.map((share) => share / total);
  }
  const unknownTo = Float64Array.from({ length: size }, (_, set) =>
    joint.reduce((sum, share, cell) => ((cell & set) === 0 ? sum + share : sum), 0),
  );
  return { services, unknownTo, wrong };
}

/** What asking one service costs after a set of others that knew nothing, for each person that the order is begun for. */
function stepCents({ services, unknownTo, wrong }: LookupOdds, set: number, j: number): number {
  const { cents, pays } = services[j]!;
  const reached = unknownTo[set]!;
  const found = reached - unknownTo[set | (1 << j)]!;
  if (pays === 'question') return cents * reached;
  return cents * (pays === 'valid' ? found : found + wrong[j]! * (reached - found));
}

/** What one service of an order finds and costs, for each person that the order is begun for. */
export interface OrderStep {
  who: string;
  found: number;
  cents: number;
  /** What it adds to the mean square of what a person costs, in square cents: how far apart people are. */
  squares: number;
}

/** What each service of an order finds where those before it knew nothing, and costs. Ids that are not among the services are left out. */
export function stepsOf({ services, unknownTo, wrong }: LookupOdds, ids: readonly string[]): OrderStep[] {
  // What somebody whom nobody knew so far has cost.
  let [set, soFar] = [0, 0];
  return ids.flatMap((who) => {
    const j = services.findIndex(({ id }) => id === who);
    if (j < 0) return [];
    const { cents: price, pays } = services[j]!;
    const cents = stepCents({ services, unknownTo, wrong }, set, j);
    const step = {
      who,
      found: unknownTo[set]! - unknownTo[set | (1 << j)]!,
      cents,
      squares: cents * (2 * soFar + price),
    };
    soFar += price * { question: 1, answer: wrong[j]!, valid: 0 }[pays];
    set |= 1 << j;
    return [step];
  });
}

/** What the finders in their order find of people whom patterns do not, 0 to 1, and cost for each of them, in cents, with the mean of the squares. */
export interface OrderExperience {
  found: number;
  cents: number;
  squares: number;
  /** People that this rests on. */
  people: number;
}

/** What steps of an order find and cost together; it rests on as many as the step of which least is known, beside those who come to it. */
export function experienceOf(said: readonly SaidOfOne[], steps: readonly OrderStep[]): OrderExperience {
  const all = { found: 0, cents: 0, squares: 0, people: said.length };
  for (const { who, found, cents, squares } of steps) {
    const asked = said.reduce((sum, one) => sum + Number(one.has(who)), 0);
    all.people = Math.min(all.people, asked / (1 - all.found));
    all.found += found;
    all.cents += cents;
    all.squares += squares;
  }
  return all;
}

/** What an order of some's own finds and costs. Ids that are not among the services are left out. */
export function orderOf(odds: LookupOdds, ids: readonly string[]): LookupOrder {
  const steps = stepsOf(odds, ids);
  return {
    ids: steps.map(({ who }) => who),
    found: steps.reduce((sum, { found }) => sum + found, 0),
    cents: steps.reduce((sum, { cents }) => sum + cents, 0),
  };
}

/** Of each set of services the order that costs least, exactly: the cheapest way to ask a set ends with one of it, after the cheapest of the rest. */
function cheapestOfEachSet(odds: LookupOdds): { cents: Float64Array; last: Int8Array } {
  const size = odds.unknownTo.length;
  const cents = new Float64Array(size).fill(Infinity);
  const last = new Int8Array(size).fill(-1);
  cents[0] = 0;
  for (let set = 1; set < size; set++)
    for (let j = 0; j < odds.services.length; j++) {
      if (!(set & (1 << j))) continue;
      const rest = set ^ (1 << j);
      const sum = cents[rest]! + stepCents(odds, rest, j);
      if (sum < cents[set]!) [cents[set], last[set]] = [sum, j];
    }
  return { cents, last };
}

/** What is wanted: at least a share of people found for the least money, or as many as possible for so many cents each. */
export type Wanting = { found: number } | { cents: number };

const HAIR = 1e-9;

/** The order and the stopping point that give what is wanted, exactly; where nothing finds as many as wanted, the one that finds most. */
export function cheapestOrder(odds: LookupOdds, wanting: Wanting): LookupOrder {
  const { cents, last } = cheapestOfEachSet(odds);
  const foundBy = (set: number) => 1 - odds.unknownTo[set]!;
  const mostFound = foundBy(odds.unknownTo.length - 1);
  let best = 0;
  for (let set = 1; set < cents.length; set++) {
    const [found, bestFound] = [foundBy(set), foundBy(best)];
    const isCheaper = cents[set]! < cents[best]! - HAIR;
    if ('found' in wanting) {
      const least = Math.min(wanting.found, mostFound) - HAIR;
      if (found >= least && (bestFound < least || isCheaper)) best = set;
    } else if (cents[set]! <= wanting.cents + HAIR) {
      const isMore = found > bestFound + HAIR;
      if (isMore || (found > bestFound - HAIR && isCheaper)) best = set;
    }
  }
  const ids: string[] = [];
  for (let set = best; set > 0; set ^= 1 << last[set]!) ids.unshift(odds.services[last[set]!]!.id);
  return orderOf(odds, ids);
}

const DRAWS = 100;

/**
 * Between what nine of ten of what orders find and cost lies, by drawing the people anew (Efron 1979, bootstrap).
 *
 * @returns for each order its share found, its cents, and how much less it costs than the first one, each as low and high
 */
export function orderRanges(
  said: readonly SaidOfOne[],
  services: readonly LookupService[],
  orders: readonly (readonly string[])[],
): { found: Bounds; cents: Bounds; less: Bounds }[] {
  const seen = tally(said, services);
  const all = seen.seen.reduce((sum, { n }) => sum + n, 0);
  const random = seededRandom(2026);
  const drawn = Array.from({ length: all === 0 ? 0 : DRAWS }, () => {
    const odds = oddsOf({ ...seen, seen: drawAnew(seen.seen, all, random) }, services);
    return orders.map((ids) => orderOf(odds, ids));
  });
  return orders.map((_, at) => ({
    found: rangeOf(drawn.map((those) => those[at]!.found)),
    cents: rangeOf(drawn.map((those) => those[at]!.cents)),
    less: rangeOf(drawn.map((those) => those[0]!.cents - those[at]!.cents)),
  }));
}

export interface Bounds {
  low: number;
  high: number;
}

function rangeOf(values: readonly number[]): Bounds {
  const sorted = [...values].sort((a, b) => a - b);
  const at = (share: number) => sorted[Math.round(share * (sorted.length - 1))] ?? 0;
  return { low: at(0.05), high: at(0.95) };
}

function drawAnew(seen: readonly Seen[], all: number, random: () => number): Seen[] {
  const ends: number[] = [];
  let end = 0;
  for (const { n } of seen) ends.push((end += n));
  const counts = seen.map(() => 0);
  for (let k = 0; k < all; k++) {
    const at = random() * all;
    let [low, high] = [0, ends.length - 1];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (ends[middle]! > at) high = middle;
      else low = middle + 1;
    }
    counts[low]!++;
  }
  return seen.flatMap((one, i) => (counts[i]! > 0 ? [{ ...one, n: counts[i]! }] : []));
}
