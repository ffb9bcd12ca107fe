import { LEVELS, type Compare, type Compared } from './compare';
import { shares } from './kinds';
import type { Interned, Subjects } from './subject';

/** The list, how its records are compared, and what draws from it. */
export interface Drawn {
  subjects: Subjects;
  compare: Record<Compared, Compare>;
  /** 0 to 1. */
  random: () => number;
}
const DRAWS = 10_000;

/** In lists that are too small to say, first and last names go together as they do in a list of a few countries. */
const USUAL = { times: 3, weighs: 5 };

/**
 * How many times as often as chance has it a first name and a last name go together: more than once where the list is of several
 * countries. Where somebody shares the first name of one and the last name of another, their other two names are together as often:
 * in lists of countries whose names nobody else has, as many times as there are countries.
 *
 * @param people how many the list is of, since records of one person say the same twice
 */
export function goTogether({ subjects, compare, random }: Drawn, people: number): number {
  const { size, firstName, lastName } = subjects;
  const keyOf = (first: number, last: number) => first * lastName.values.length + last;
  const [ofFirst, ofLast] = [oneOf(firstName, random), oneOf(lastName, random)];
  const drawn: number[] = [];
  let expected = 0;
  for (let draw = 0; draw < DRAWS && size > 0; draw++) {
    const a = Math.floor(random() * size);
    if (firstName.ids[a] === 0 || lastName.ids[a] === 0) continue;
    const [namedAlike, family] = [ofFirst(firstName.ids[a]!), ofLast(lastName.ids[a]!)];
    if (compare.lastName(a, namedAlike) !== 1 || compare.firstName(a, family) !== 1) continue;
    const [first, last] = [firstName.ids[family]!, lastName.ids[namedAlike]!];
    drawn.push(keyOf(first, last));
    expected += 1 - Math.exp(-people * (firstName.counts[first]! / size) * (lastName.counts[last]! / size));
  }
  const wanted = new Set(drawn);
  const held = new Set<number>();
  for (let i = 0; i < size; i++) {
    const key = keyOf(firstName.ids[i]!, lastName.ids[i]!);
    if (wanted.has(key)) held.add(key);
  }
  const seen = drawn.filter((key) => held.has(key)).length;
  return (seen + USUAL.times * USUAL.weighs) / (expected + USUAL.weighs);
}

/** How many pairs of strangers have one name: at most, since records of one person are counted with them. */
export function namesakesIn(drawn: Drawn, people: number): number {
  const { size, firstName, lastName } = drawn.subjects;
  const agree = ({ counts }: Interned) => counts.reduce((sum, n, id) => (id === 0 ? sum : sum + (n / size) ** 2), 0);
  return ((goTogether(drawn, people) * size * (size - 1)) / 2) * agree(firstName) * agree(lastName);
}

/**
 * Of those of one last name who share a firm or a place as well, the share, 0 to 1, that does so because they are of one family: what is
 * over how often any two share one.
 */
export function kinship({ subjects, compare, random }: Drawn): number {
  const { size, lastName, company, city } = subjects;
  const ofLast = oneOf(lastName, random);
  const isKnown = (a: number) => company.ids[a] !== 0 || city.ids[a] !== 0;
  const family = { all: 1, close: 1 };
  const anybody = { all: 1, close: 1 };
  const look = (seen: typeof family, a: number, b: number) => {
    if (a === b || !isKnown(b) || compare.firstName(a, b) !== 1) return;
    seen.all++;
    if (Math.max(compare.company(a, b), compare.city(a, b)) >= 3) seen.close++;
  };
  for (let draw = 0; draw < DRAWS && size > 0; draw++) {
    const a = Math.floor(random() * size);
    if (lastName.ids[a] === 0 || !isKnown(a)) continue;
    look(family, a, ofLast(lastName.ids[a]!));
    look(anybody, a, Math.floor(random() * size));
  }
  return Math.max(0, 1 - anybody.close / anybody.all / (family.close / family.all));
}

/** Draws a record of those that hold a value. */
function oneOf({ ids, counts }: Interned, random: () => number): (id: number) => number {
  const from = new Int32Array(counts.length);
  for (let id = 1; id < counts.length; id++) from[id] = from[id - 1]! + counts[id - 1]!;
  const next = from.slice();
  const holders = new Int32Array(ids.length);
  for (let i = 0; i < ids.length; i++) holders[next[ids[i]!]!++] = i;
  return (id) => holders[from[id]! + Math.floor(random() * counts[id]!)]!;
}

const BOTH_SAME = LEVELS * LEVELS - 1;
const withBoth = (names: readonly number[], both: number) => shares(names.with(BOTH_SAME, both));

/** No more strangers have both names in common than a share. */
export const atMost = (names: readonly number[], share: number): number[] => {
  const both = names[BOTH_SAME]!;
  return both <= share ? [...names] : withBoth(names, Math.min(both, share * (1 - both)));
};

/** Of a family no more than these have one first name: sons called as their fathers. */
const MOST_CALLED_ALIKE = 0.15;

/**
 * Relatives, colleagues and neighbours of one last name have one first name as often as any two people at least, and no more often than
 * chance has it and families call their own alike.
 *
 * @param random how often any two first names show each level
 * @param kin share of those of one last name who are of one family
 * @param byChance share of the pairs that have both names in common by chance
 */
export function ofRelatives(
  names: readonly number[],
  { random, kin, byChance }: { random: readonly number[]; kin: number; byChance: number },
): number[] {
  const lastAt = (first: number) => names[first * LEVELS + LEVELS - 1]!;
  const others = lastAt(1) + lastAt(2) + lastAt(3);
  const least = shares(
    names.map((share, cell) => {
      const [first, last] = [Math.floor(cell / LEVELS), cell % LEVELS];
      return Math.max(share, (random[first]! * names[LEVELS + last]!) / random[1]!);
    }),
  );
  const calledAlike = (kin * others * MOST_CALLED_ALIKE) / (1 - MOST_CALLED_ALIKE);
  return withBoth(least, Math.min(least[BOTH_SAME]!, byChance + calledAlike));
}
