import { samplePairs, type Pairs } from './blocks';
import { COMPARED, LEVELS, type Compare, type Compared } from './compare';
import { atMost, kinship, namesakesIn, ofRelatives, shares } from './namesakes';
import type { Subjects } from './subject';
import type { TaughtBits } from './taught';

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

/**
 * What was learned: how often each level of each field is seen among same people (m) and among others (u), of whom some are
 * close to each other, relatives and colleagues, and the rest are strangers of one name.
 */
export interface Weights {
  m: Shares;
  u: Shares;
  /** Share of the compared pairs that are the same person. */
  prior: number;
  same: Shown;
  close: Shown;
  strangers: Shown;
  /** Share of the others that are close. */
  closeShare: number;
  /** Share of the close of one last name that are of one family; not there in what was stored before it was counted: all. */
  kinship?: number;
  /** What judged pairs added. */
  taught: TaughtBits | null;
  /** How many pairs it was learned from; not there in what was stored before it was counted. */
  compared?: number;
}

const FIELDS = COMPARED.length;
const FIRST = COMPARED.indexOf('firstName');
const LAST = COMPARED.indexOf('lastName');
const EMAIL = COMPARED.indexOf('email');
const PHONE = COMPARED.indexOf('phone');
const PROFILE = COMPARED.indexOf('profile');
const BY_NAME = new Set([FIRST, LAST, EMAIL]);
const COMPANY = COMPARED.indexOf('company');
const PLACE = COMPARED.indexOf('city');
const SMOOTH = 0.5;
/** Pairs that are enough to learn from. */
const LEARN_FROM = 30_000;

/** First guesses of m, by level from 1; they only start the learning. */
const START_M: Record<Compared, number[]> = {
  firstName: [0.06, 0.06, 0.18, 0.7],
  lastName: [0.04, 0.04, 0.07, 0.85],
  email: [0.05, 0.3, 0.1, 0.55],
  phone: [0.2, 0.1, 0.04, 0.66],
  profile: [0.02, 0.01, 0.01, 0.96],
  company: [0.15, 0.1, 0.1, 0.65],
  city: [0.15, 0.05, 0.04, 0.76],
  title: [0.25, 0.2, 0.15, 0.4],
  suffix: [0.02, 0.28, 0.01, 0.69],
};

/**
 * Relatives and colleagues share mailboxes, phones and firms: first names that are known and differ rule a pair out, unless
 * a profile link says otherwise. Last names may differ where a mailbox or a phone is shared, since people marry.
 */
function mayBe(levelOf: (field: number) => number): boolean {
  const same = LEVELS - 1;
  const [first, last] = [levelOf(FIRST), levelOf(LAST)];
  if (first !== 1 && last !== 1) return true;
  if (levelOf(PROFILE) === same) return true;
  if (first === 1 || first === 0) return false;
  return levelOf(EMAIL) >= 3 || levelOf(PHONE) === same;
}
export const mayBeOne = (levels: readonly number[]): boolean => mayBe((field) => levels[field]!);

/** What an exact key counts, however little there is to learn from. */
export const CERTAIN = 0.999;

/** One mailbox or one profile page, and names that agree: one person. */
export const sharesExactKey = (levels: readonly number[]): boolean =>
  (levels[EMAIL] === LEVELS - 1 || levels[PROFILE] === LEVELS - 1) && levels[FIRST]! >= 2 && levels[LAST]! >= 3;

/** The levels of a pair as one number: base 5 digits in the order of COMPARED. */
export const patternOf = (compare: Record<Compared, Compare>) => {
  const functions = COMPARED.map((field) => compare[field]);
  return (a: number, b: number): number => {
    let pattern = 0;
    for (const f of functions) pattern = pattern * LEVELS + f(a, b);
    return pattern;
  };
};

/** The pattern of a pair that can be one person, else -1: most are ruled out by their names alone. */
export const patternIfOne = (compare: Record<Compared, Compare>) => {
  const functions = COMPARED.map((field) => compare[field]);
  const [first, last, ...others] = functions as [Compare, Compare, ...Compare[]];
  return (a: number, b: number): number => {
    const [firstLevel, lastLevel] = [first(a, b), last(a, b)];
    if ((firstLevel === 1 || lastLevel === 1) && !mayBe((field) => functions[field]!(a, b))) return -1;
    let pattern = firstLevel * LEVELS + lastLevel;
    for (const other of others) pattern = pattern * LEVELS + other(a, b);
    return pattern;
  };
};

export function levelsOf(pattern: number): number[] {
  const levels = new Array<number>(FIELDS);
  for (let f = FIELDS - 1; f >= 0; f--) {
    levels[f] = pattern % LEVELS;
    pattern = Math.floor(pattern / LEVELS);
  }
  return levels;
}

interface Seen {
  levels: number[];
  n: number;
  /** That it can be one person; who cannot teaches what the others are like. */
  mayBe: boolean;
}

/** Pairs of one kind: how many of all pairs they are, and how often they show each level. */
interface Kind {
  share: number;
  shown: Shown;
}

/**
 * Learns the weights from the data by expectation maximisation (Fellegi and Sunter 1969; Winkler 1988), in two passes.
 *
 * First over all pairs of records: u from pairs drawn at random, and pairs that share no block count as different people.
 * That cannot go astray, but takes the others for less alike than they are, since pairs that share a block agree on names
 * far more often. So then all is learned among the compared pairs, from where the first pass ended; the others as two kinds
 * (Larsen and Rubin 2001), since relatives and colleagues agree on place, firm and line together and strangers do not.
 *
 * @param pairs the compared pairs; of very many, a sample is learned from
 * @param random 0 to 1; a seeded one makes the outcome repeatable
 */
export function learnWeights(
  pairs: Pairs,
  subjects: Subjects,
  compare: Record<Compared, Compare>,
  random: () => number,
): Weights {
  const counts = new Map<number, number>();
  const { sample, each } = samplePairs(pairs, LEARN_FROM);
  const patternAt = patternOf(compare);
  for (let k = 0; k < sample.size; k++) {
    const pattern = patternAt(sample.a(k), sample.b(k));
    counts.set(pattern, (counts.get(pattern) ?? 0) + each);
  }
  const seen = [...counts].map(([pattern, n]) => {
    const levels = levelsOf(pattern);
    return { levels, n, mayBe: mayBeOne(levels) };
  });
  const all = Math.max(pairs.size, 1, (subjects.size * (subjects.size - 1)) / 2);
  const u = randomU(subjects, compare, random);
  const prior = Math.min(0.5, (subjects.size * 0.1) / all);
  const overall: Kind[] = [
    { share: prior, shown: START },
    { share: 1 - prior, shown: independent(u) },
  ];
  if (pairs.size < 20) return weightsOf([...overall, { share: 0, shown: overall[1]!.shown }]);
  maximise(overall, seen, { unseen: all - pairs.size, onlyFirst: true });
  const matched = overall[0]!.share * all;
  // Records of one person are one: each has as many matches as the mean of them.
  const people = subjects.size / (1 + (2 * matched) / subjects.size);
  const drawn = { subjects, compare, random };
  const within = apart(overall, seen, Math.min(0.9, Math.max(1e-6, matched / pairs.size)));
  maximise(within, seen, { unseen: 0, onlyFirst: false, random: u, namesakes: namesakesIn(drawn, people) });
  const grown = within[0]!.share * pairs.size > matched * MOST_GROWTH;
  const weights = weightsOf(grown ? [...overall, { share: 0, shown: overall[1]!.shown }] : within);
  return { ...weights, kinship: kinship(drawn) };
}

/** A second pass that finds so many more matches than the first has begun to call something else a match. */
const MOST_GROWTH = 1.3;
const ROUNDS = 25;
/** A share of a pair that changes nothing. */
const NOTHING = 1e-9;

/** Rounds of expectation and maximisation over kinds of pairs, the first of them the same people; changes them. */
function maximise(
  kinds: Kind[],
  seen: readonly Seen[],
  {
    unseen,
    onlyFirst,
    random,
    namesakes = Infinity,
  }: { unseen: number; onlyFirst: boolean; random?: Shares; namesakes?: number },
) {
  const pairs = seen.reduce((sum, { n }) => sum + n, unseen);
  // A handful of made-up pairs keeps a level that was never seen from meaning the impossible.
  const made = Math.min(20, seen.length * 0.2);
  const odds = new Float64Array(kinds.length);
  const begun = kinds.map(({ shown }, k) => (k === 0 ? START : shown));
  for (let round = 0; round < ROUNDS; round++) {
    const weigh = kinds.map(({ share, shown }) => bitsIn(shown, share));
    const sums = kinds.map(() => 0);
    const counted = begun.map((shown) => times(shown, made));
    for (const { levels, n, mayBe } of seen) {
      let all = 0;
      for (let k = 0; k < kinds.length; k++) all += odds[k] = k === 0 && !mayBe ? 0 : 2 ** weigh[k]!(levels);
      for (let k = 0; k < kinds.length; k++) {
        const share = odds[k]! / all;
        sums[k]! += share * n;
        if (share > NOTHING) count(counted[k]!, levels, share * n);
      }
    }
    sums[kinds.length - 1]! += unseen;
    for (const [k, kind] of kinds.entries()) {
      kind.share = Math.min(1 - 1e-12, Math.max(1e-12, sums[k]! / pairs));
      if (k === 0 || !onlyFirst) kind.shown = sharesIn(counted[k]!);
    }
    if (random) {
      const [, close, strangers] = kinds as [Kind, Kind, Kind];
      close.shown.names = ofRelatives(close.shown.names, random[FIRST]!);
      // Strangers share a block for their names, of which their addresses are made; in all else they are any two people.
      strangers.shown.fields = strangers.shown.fields.map((field, f) => (BY_NAME.has(f) ? field : random[f]!));
      strangers.shown.names = atMost(strangers.shown.names, namesakes / (strangers.share * pairs));
    }
  }
}

/** Same people, close others and strangers to begin with: close is who agrees on a firm or a place. */
function apart([same, others]: readonly Kind[], seen: readonly Seen[], prior: number): Kind[] {
  const [sameBits, otherBits] = [bitsIn(same!.shown, prior), bitsIn(others!.shown, 1 - prior)];
  const shown = [times(others!.shown, SMOOTH), times(others!.shown, SMOOTH)];
  const sums = [SMOOTH, SMOOTH];
  for (const { levels, n, mayBe } of seen) {
    const other = mayBe ? (1 - chanceOf(sameBits(levels) - otherBits(levels))) * n : n;
    const kind = Math.max(levels[COMPANY]!, levels[PLACE]!) >= 3 ? 0 : 1;
    sums[kind]! += other;
    count(shown[kind]!, levels, other);
  }
  const all = sums[0]! + sums[1]!;
  return [
    { share: prior, shown: same!.shown },
    ...shown.map((one, k) => ({ share: ((1 - prior) * sums[k]!) / all, shown: sharesIn(one) })),
  ];
}

function weightsOf([same, close, strangers]: readonly Kind[]): Weights {
  const others = close!.share + strangers!.share;
  const closeShare = close!.share / others;
  return {
    m: same!.shown.fields,
    u: close!.shown.fields.map((field, f) =>
      field.map((share, level) => share * closeShare + strangers!.shown.fields[f]![level]! * (1 - closeShare)),
    ),
    prior: same!.share / (same!.share + others),
    same: same!.shown,
    close: close!.shown,
    strangers: strangers!.shown,
    closeShare,
    taught: null,
  };
}

/** Fields that do not depend on each other. */
const independent = (fields: Shares): Shown => ({
  fields,
  names: fields[FIRST]!.flatMap((first) => fields[LAST]!.map((last) => first * last)),
});
const START = independent(COMPARED.map((field) => [0, ...START_M[field]]));

const times = ({ fields, names }: Shown, n: number): Shown => ({
  fields: fields.map((field) => field.map((share) => share * n)),
  names: names.map((share) => share * n),
});
const sharesIn = ({ fields, names }: Shown): Shown => ({ fields: fields.map(shares), names: shares(names) });

function count({ fields, names }: Shown, levels: readonly number[], n: number) {
  for (let f = 0; f < FIELDS; f++) if (levels[f] !== 0) fields[f]![levels[f]!]! += n;
  if (levels[FIRST] !== 0 && levels[LAST] !== 0) names[levels[FIRST]! * LEVELS + levels[LAST]!]! += n;
}

function randomU(s: Subjects, compare: Record<Compared, Compare>, random: () => number): Shares {
  const draws = Math.min(LEARN_FROM, s.size * 40);
  const u = COMPARED.map(() => [0, ...Array<number>(LEVELS - 1).fill(SMOOTH)]);
  for (let k = 0; k < draws; k++) {
    const a = Math.floor(random() * s.size);
    const b = Math.floor(random() * s.size);
    if (a === b) continue;
    for (const [f, field] of COMPARED.entries()) {
      const level = compare[field](a, b);
      if (level !== 0) u[f]![level]!++;
    }
  }
  return u.map(shares);
}

/** How often a pattern is seen among pairs of one kind, in bits, its share included. Blank fields say nothing. */
function bitsIn({ fields, names }: Shown, share: number): (levels: readonly number[]) => number {
  const bits = fields.map((field) => field.map((one) => Math.log2(one)));
  const nameBits = names.map((one) => Math.log2(one));
  const all = Math.log2(Math.max(share, 1e-300));
  return (levels) => {
    const [first, last] = [levels[FIRST]!, levels[LAST]!];
    const both = first !== 0 && last !== 0;
    let sum = both ? all + nameBits[first * LEVELS + last]! : all;
    for (let f = 0; f < FIELDS; f++)
      if (levels[f] !== 0 && !(both && (f === FIRST || f === LAST))) sum += bits[f]![levels[f]!]!;
    return sum;
  };
}

/** How often a pattern is seen as a pair of each kind, of all pairs. */
export interface PairShares {
  same: number;
  close: number;
  strangers: number;
  kinship: number;
}

export function weigher({
  prior,
  closeShare,
  kinship = 1,
  ...kinds
}: Omit<Weights, 'taught'>): (levels: readonly number[]) => PairShares {
  const same = bitsIn(kinds.same, prior);
  const close = bitsIn(kinds.close, (1 - prior) * closeShare);
  const strangers = bitsIn(kinds.strangers, (1 - prior) * (1 - closeShare));
  return (levels) => ({
    same: 2 ** same(levels),
    close: 2 ** close(levels),
    strangers: 2 ** strangers(levels),
    kinship,
  });
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
