import { samplePairs, type Pairs } from './blocks';
import { COMPARED, LEVELS, type Compare, type Compared } from './compare';
import type { Subjects } from './subject';

/** What was learned: for each field and level how often it is seen among same people (m) and among others (u). */
export interface Weights {
  m: number[][];
  u: number[][];
  /** Share of the compared pairs that are the same person. */
  prior: number;
}

const FIELDS = COMPARED.length;
const SMOOTH = 0.5;
/** Pairs that are enough to learn from. */
const LEARN_FROM = 30_000;

/** First guesses of m, by level from 1; they only start the learning. */
const START_M: Record<Compared, number[]> = {
  firstName: [0.06, 0.06, 0.18, 0.7],
  lastName: [0.04, 0.04, 0.07, 0.85],
  email: [0.25, 0.1, 0.1, 0.55],
  phone: [0.25, 0.01, 0.04, 0.7],
  profile: [0.02, 0.01, 0.01, 0.96],
  company: [0.15, 0.1, 0.1, 0.65],
  city: [0.15, 0.05, 0.04, 0.76],
  title: [0.25, 0.2, 0.15, 0.4],
};

/** The levels of a pair as one number: base 5 digits in the order of COMPARED. */
export const patternOf = (compare: Record<Compared, Compare>) => {
  const functions = COMPARED.map((field) => compare[field]);
  return (a: number, b: number): number => {
    let pattern = 0;
    for (const f of functions) pattern = pattern * LEVELS + f(a, b);
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
}

/**
 * Learns the weights from the data by expectation maximisation (Fellegi and Sunter 1969; Winkler 1988), in two passes.
 *
 * First over all pairs of records: u from pairs drawn at random, and pairs that share no block count as different people.
 * That cannot go astray, but takes the others for less alike than they are, since pairs that share a block agree on names
 * far more often. So then m and u are both learned among the compared pairs, from where the first pass ended.
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
    const pattern = patternAt(sample.a[k]!, sample.b[k]!);
    counts.set(pattern, (counts.get(pattern) ?? 0) + each);
  }
  const seen = [...counts].map(([pattern, n]) => ({ levels: levelsOf(pattern), n }));
  const all = Math.max(1, (subjects.size * (subjects.size - 1)) / 2);
  const start: Weights = {
    m: COMPARED.map((field) => [0, ...START_M[field]]),
    u: randomU(subjects, compare, random),
    prior: Math.min(0.5, (subjects.size * 0.1) / all),
  };
  if (pairs.size < 20) return start;
  const overall = maximise(start, seen, all, 25, start.u);
  const matched = overall.prior * all;
  const within = maximise(
    { ...overall, prior: Math.min(0.9, Math.max(1e-6, matched / pairs.size)) },
    seen,
    pairs.size,
    25,
    null,
  );
  return within.prior * pairs.size > matched * MOST_GROWTH ? overall : within;
}

/** A second pass that finds so many more matches than the first has begun to call something else a match. */
const MOST_GROWTH = 1.3;

/** Rounds of expectation and maximisation; u stays as it is when `fixedU` is given. */
function maximise(
  start: Weights,
  seen: readonly Seen[],
  pairs: number,
  rounds: number,
  fixedU: number[][] | null,
): Weights {
  const weights = { ...start };
  // A handful of made-up pairs keeps a level that was never seen from meaning the impossible.
  const made = Math.min(20, seen.length * 0.2);
  for (let round = 0; round < rounds; round++) {
    const m = COMPARED.map((field) => [0, ...START_M[field].map((share) => share * made)]);
    const u = start.u.map((field) => field.map((share) => share * made));
    const weigh = weigher(weights);
    let matched = 0;
    for (const { levels, n } of seen) {
      const p = chanceOf(weigh(levels));
      matched += p * n;
      for (let f = 0; f < FIELDS; f++) {
        const level = levels[f]!;
        if (level === 0) continue;
        m[f]![level]! += p * n;
        u[f]![level]! += (1 - p) * n;
      }
    }
    weights.m = m.map(shares);
    weights.u = fixedU ?? u.map(shares);
    weights.prior = Math.min(0.9, Math.max(1e-12, matched / pairs));
  }
  return weights;
}

const shares = (counts: number[]): number[] => {
  const sum = counts.reduce((a, b) => a + b, 0);
  return counts.map((n) => n / sum);
};

function randomU(s: Subjects, compare: Record<Compared, Compare>, random: () => number): number[][] {
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

/** What all fields of a pair say together with the prior, in bits. Blank fields say nothing. */
export function weigher(weights: Weights): (levels: readonly number[]) => number {
  const bits = COMPARED.map((_, f) => weights.m[f]!.map((_m, level) => bitsOf(weights, f, level)));
  const prior = Math.log2(weights.prior / (1 - weights.prior));
  return (levels) => levels.reduce((sum, level, f) => sum + bits[f]![level]!, prior);
}

/** How likely a pair is one person, 0 to 1, from its bits. */
export const chanceOf = (bits: number): number => 1 / (1 + 2 ** -bits);

/** What one field says for (above 0) or against (below 0), in bits. */
export const bitsOf = (weights: Weights, field: number, level: number): number =>
  level === 0 ? 0 : Math.log2(weights.m[field]![level]! / weights.u[field]![level]!);

const NAMES = [COMPARED.indexOf('firstName'), COMPARED.indexOf('lastName'), COMPARED.indexOf('company')] as const;

/** A rare name that agrees says more than a common one: bits to add for a pair (Winkler 1989, frequency-based matching). */
export function rarity(subjects: Subjects, weights: Weights, pattern: readonly number[], a: number): number {
  let bits = 0;
  for (const f of NAMES) {
    if (pattern[f] !== 4) continue;
    const column = subjects[COMPARED[f]!];
    const id = column.ids[a]!;
    if (id === 0) continue;
    const share = Math.max(column.counts[id]! / subjects.size, 2 / subjects.size);
    bits += Math.max(-4, Math.min(3, Math.log2(weights.u[f]![4]! / share))) * 0.5;
  }
  return bits;
}
