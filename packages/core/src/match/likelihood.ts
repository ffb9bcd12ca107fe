import { COMPARED } from './compare';
import { bitsIn, CLOSE, mixed, OF_ONE, OF_TWO, type KindName, type Kinds, type Shares } from './kinds';
import type { Subjects } from './subject';
import type { TaughtBits } from './taught';

/** What was learned: how often each level of each field is seen among pairs of one person (m) and of two (u), and among each kind of both. */
export interface Weights {
  m: Shares;
  u: Shares;
  kinds: Kinds;
  /** Share of those of one last name and one firm or place who are of one family. */
  kinship: number;
  /** What judged pairs added. */
  taught: TaughtBits | null;
  /** How many pairs it was learned from. */
  compared: number;
}

export const weightsOf = (kinds: Kinds, kinship: number, compared: number): Weights => ({
  m: mixed(OF_ONE.map((name) => kinds[name])).fields,
  u: mixed(OF_TWO.map((name) => kinds[name])).fields,
  kinds,
  kinship,
  taught: null,
  compared,
});

/** How often a pattern is seen, of all pairs: of one person, of two who have more in common than a name, and of strangers. */
export interface PairShares {
  same: number;
  close: number;
  strangers: number;
  kinship: number;
}

export function weigher({
  kinds,
  kinship,
}: Pick<Weights, 'kinds' | 'kinship'>): (levels: readonly number[]) => PairShares {
  const shareOf = (names: readonly KindName[]) => {
    const bits = names.map((name) => bitsIn(kinds[name]));
    return (levels: readonly number[]) => bits.reduce((sum, bitsOf) => sum + 2 ** bitsOf(levels), 0);
  };
  const [same, close, strangers] = [shareOf(OF_ONE), shareOf(CLOSE), shareOf(['strangers'])];
  return (levels) => ({ same: same(levels), close: close(levels), strangers: strangers(levels), kinship });
}

/** What all fields of a pair say together with the prior, in bits; a rare last name says more to strangers than to relatives. */
export const bitsFor = ({ same, close, strangers, kinship }: PairShares, { own, family, firm } = AS_OTHERS): number =>
  Math.log2(same / (close * own * (kinship + (1 - kinship) * family) + strangers * own * family * firm));

/** How likely a pair is one person, 0 to 1, from its bits. */
export const chanceOf = (bits: number): number => 1 / (1 + 2 ** -bits);

/** What one field says for (above 0) or against (below 0), in bits. */
export const bitsOf = (weights: Weights, field: number, level: number): number =>
  level === 0
    ? 0
    : Math.log2(weights.m[field]![level]! / weights.u[field]![level]!) + (weights.taught?.[field]?.[level] ?? 0);

/** How many times as often as any two have a name in common two have this one: the first name, the last, which a family shares, and the firm's. */
export interface Commonness {
  own: number;
  family: number;
  firm: number;
}
const AS_OTHERS: Commonness = { own: 1, family: 1, firm: 1 };
/** One name counts as so many times as common at most, or as rare. */
const MOST_TIMES = 16;

/** Says of pairs how common their names are: a rare one that agrees says more than a common one (Winkler 1989, frequency-based matching). */
export function commonness(subjects: Subjects): (levels: readonly number[], a: number) => Commonness {
  const ofName = (field: 'firstName' | 'lastName' | 'company') => {
    const { ids, counts } = subjects[field];
    const known = counts.reduce((sum, n, id) => (id === 0 ? sum : sum + n), 0);
    /** How often two of those whose name is known have the same. */
    const agree = counts.reduce((sum, n, id) => (id === 0 ? sum : sum + (n / known) ** 2), 0);
    // Of the two records that agree one says how often others have the name.
    const times = Float64Array.from(counts, (n) =>
      Math.max(1 / MOST_TIMES, Math.min(MOST_TIMES, Math.max(1, n - 1) / (agree * known))),
    );
    const f = COMPARED.indexOf(field);
    return (levels: readonly number[], a: number) => (levels[f] === 4 && ids[a] !== 0 ? times[ids[a]!]! : 1);
  };
  const [first, last, company] = [ofName('firstName'), ofName('lastName'), ofName('company')];
  return (levels, a) => ({ own: first(levels, a), family: last(levels, a), firm: company(levels, a) });
}
