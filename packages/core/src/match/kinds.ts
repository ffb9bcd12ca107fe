import { COMPARED, LEVELS } from './compare';

/**
 * Kinds of pairs. Of one person: two records of one job, or of two, who changes it having new firm, title, address and line at once. Of
 * two people: of one firm, of one place, of one town that are known to live apart in it, or strangers whom a block brought together for
 * their names.
 */
export const OF_ONE = ['stayed', 'moved'] as const;
export const CLOSE = ['colleagues', 'neighbours', 'townspeople'] as const;
export const OF_TWO = [...CLOSE, 'strangers'] as const;
export const KINDS = [...OF_ONE, ...OF_TWO];
export type KindName = (typeof KINDS)[number];
type OfTwo = (typeof OF_TWO)[number];

/** One of something for each kind of pairs of two people. */
export const ofTwo = <T>(make: (name: OfTwo) => T) =>
  Object.fromEntries(OF_TWO.map((name) => [name, make(name)])) as Record<OfTwo, T>;

/** How often each level of each field is seen among some pairs. */
export type Shares = number[][];

/**
 * What pairs of one kind show: each field, and both names together, by `first * LEVELS + last` where both are known. A block asks
 * for one name or the other, so among those that it brings together the two depend on each other.
 */
export interface Shown {
  fields: Shares;
  names: number[];
}

/** Pairs of one kind: which share of the compared pairs they are, and what they show. */
export interface Kind {
  share: number;
  shown: Shown;
}
export type Kinds = Record<KindName, Kind>;

const FIRST = COMPARED.indexOf('firstName');
const LAST = COMPARED.indexOf('lastName');

/** Counts as shares of their sum. */
export const shares = (counts: number[]): number[] => {
  const sum = counts.reduce((a, b) => a + b, 0);
  return counts.map((n) => n / sum);
};
export const sharesIn = ({ fields, names }: Shown): Shown => ({ fields: fields.map(shares), names: shares(names) });

/** Fields that do not depend on each other. */
export const independent = (fields: Shares): Shown => ({
  fields,
  names: fields[FIRST]!.flatMap((first) => fields[LAST]!.map((last) => first * last)),
});

export const times = ({ fields, names }: Shown, n: number): Shown => ({
  fields: fields.map((field) => field.map((share) => share * n)),
  names: names.map((share) => share * n),
});

/** Adds so many pairs of some levels; a blank field shows nothing. */
export function count({ fields, names }: Shown, levels: readonly number[], n: number) {
  for (const [f, level] of levels.entries()) if (level !== 0) fields[f]![level]! += n;
  if (levels[FIRST] !== 0 && levels[LAST] !== 0) names[levels[FIRST]! * LEVELS + levels[LAST]!]! += n;
}

/** What several kinds show together. */
export function mixed(kinds: readonly Kind[]): Shown {
  const all = kinds.reduce((sum, { share }) => sum + share, 0);
  const mix = (of: (shown: Shown) => number[]) =>
    of(kinds[0]!.shown).map((_, i) => kinds.reduce((sum, { share, shown }) => sum + (share / all) * of(shown)[i]!, 0));
  return { fields: COMPARED.map((_, f) => mix(({ fields }) => fields[f]!)), names: mix(({ names }) => names) };
}

/** How often a pattern is seen as a pair of one kind, of all pairs, in bits. */
export function bitsIn({ share, shown: { fields, names } }: Kind): (levels: readonly number[]) => number {
  const bits = fields.map((field) => field.map((one) => Math.log2(one)));
  const nameBits = names.map((one) => Math.log2(one));
  const all = Math.log2(Math.max(share, 1e-300));
  return (levels) => {
    const [first, last] = [levels[FIRST]!, levels[LAST]!];
    const both = first !== 0 && last !== 0;
    let sum = both ? all + nameBits[first * LEVELS + last]! : all;
    for (let f = 0; f < levels.length; f++)
      if (levels[f] !== 0 && !(both && (f === FIRST || f === LAST))) sum += bits[f]![levels[f]!]!;
    return sum;
  };
}
