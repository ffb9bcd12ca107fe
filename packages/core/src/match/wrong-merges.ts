/** Sizes break off where groups are fewer than this share of what the two sizes before lead one to expect. */
const BREAK = 0.1;
/** What the pairs say of themselves weighs as much as so many groups that should not be. */
const PAIRS_WEIGH = 3;
/** How likely all groups that are larger than where the sizes break off are two people, whatever their number. */
const SIZES_END = 0.75;

/**
 * How many of the pairs of merged groups are expected to be two people.
 *
 * Each pair says how likely it is one. But where two people are taken for one, all their records come together: people of `i` and of `j`
 * records make a group of `i + j` with `i * j` wrong pairs. How often people have how many records so says how wrong pairs spread over the
 * sizes. As somebody stands in each source once, the sizes break off somewhere; larger groups are two people, and whether they are more
 * or fewer than the pairs lead one to expect says how far the pairs can be believed (a rate under a gamma prior, seen as Poisson counts).
 *
 * @param sizes how many groups there are of each size, single records as size 1
 * @param byPairs how many pairs are wrong by what each says of itself
 */
export function expectedWrong(sizes: ReadonlyMap<number, number>, byPairs: number): number {
  const largest = largestOfOne(sizes);
  if (largest === null || byPairs === 0) return byPairs;
  const met = meetings(sizes, largest);
  const pairs = sum(met, ([, { pairs }]) => pairs);
  const tooLarge = met.filter(([size]) => size > largest);
  const within = 1 - sum(tooLarge, ([, { pairs }]) => pairs) / pairs;
  const expected = (byPairs * sum(tooLarge, ([, { groups }]) => groups)) / pairs;

  const wrongIn = new Map(met.map(([size, { pairs, groups }]) => [size, pairs / groups]));
  const found = [...sizes].filter(([size]) => size > largest);
  const seen = sum(found, ([, groups]) => groups);
  const wrong = sum(found, ([size, groups]) => groups * (wrongIn.get(size) ?? wrongOfEqual(size, largest)));
  const counted = likelyOfTwo(seen, expected);
  const believed = (PAIRS_WEIGH + counted) / (PAIRS_WEIGH + expected);
  return byPairs * believed * within + (seen === 0 ? 0 : (wrong * counted) / seen);
}

/** How many of so many groups are likely two people, where so many are expected; far more than that some more sources hold. */
function likelyOfTwo(seen: number, expected: number): number {
  const ofOne = (n: number) => (n === 0 ? SIZES_END : 0) + (1 - SIZES_END) / ((n + 1) * (n + 2));
  const weights = chancesOfCounts(seen, expected).map((chance, n) => chance * ofOne(seen - n));
  return sum(weights, (weight, n) => weight * n) / sum(weights, (weight) => weight);
}

/** How likely each count up to one is where so many are expected: Poisson's, whose rate varies as a gamma's of shape `PAIRS_WEIGH`. */
function chancesOfCounts(most: number, expected: number): number[] {
  const all = PAIRS_WEIGH + expected;
  const chances = [(PAIRS_WEIGH / all) ** PAIRS_WEIGH];
  for (let n = 1; n <= most; n++) chances.push((chances[n - 1]! * (PAIRS_WEIGH + n - 1) * expected) / (n * all));
  return chances;
}

/** The most records that somebody has, null where the sizes do not break off. */
function largestOfOne(sizes: ReadonlyMap<number, number>): number | null {
  const of = (size: number) => sizes.get(size) ?? 0;
  for (let size = 2; of(size) > 0; size++)
    if ((BREAK * of(size) ** 2) / of(size - 1) >= Math.max(1, of(size + 1))) return size;
  return null;
}

/** What comes of any two people of up to so many records, by the size of the group: how many groups, and pairs in them that are wrong. */
function meetings(sizes: ReadonlyMap<number, number>, largest: number) {
  const met = new Map<number, { groups: number; pairs: number }>();
  const of = (size: number) => sizes.get(size) ?? 0;
  for (let i = 1; i <= largest; i++)
    for (let j = i; j <= largest; j++) {
      const groups = of(i) * of(j) * (i === j ? 0.5 : 1);
      const known = met.get(i + j) ?? { groups: 0, pairs: 0 };
      if (groups > 0) met.set(i + j, { groups: known.groups + groups, pairs: known.pairs + groups * i * j });
    }
  return [...met];
}

/** Wrong pairs of a group that is larger than two people make, if it is as few as can be with as many records each. */
const wrongOfEqual = (size: number, largest: number) => (size ** 2 / 2) * (1 - 1 / Math.ceil(size / largest));

const sum = <T>(items: readonly T[], of: (item: T, i: number) => number) =>
  items.reduce((all, item, i) => all + of(item, i), 0);
