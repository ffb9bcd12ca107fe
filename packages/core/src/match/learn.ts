import { samplePairs, type Pairs } from './blocks';
import { COMPARED, LEVELS, type Compare, type Compared } from './compare';
import { bitsIn, count, independent, KINDS, mixed, OF_TWO, ofTwo, shares, sharesIn, times } from './kinds';
import type { Kind, Kinds, Shares } from './kinds';
import { chanceOf, weightsOf, type Weights } from './likelihood';
import { atMost, kinship, namesakesIn, ofRelatives } from './namesakes';
import { levelsOf, mayBeOne, patternOf } from './pattern';
import type { Subjects } from './subject';

const FIRST = COMPARED.indexOf('firstName');
const COMPANY = COMPARED.indexOf('company');
const PLACE = COMPARED.indexOf('city');
const TITLE = COMPARED.indexOf('title');
const fieldsOf = (...names: Compared[]) => new Set(names.map((name) => COMPARED.indexOf(name)));
const BY_NAME = fieldsOf('firstName', 'lastName', 'email');
/** What is new with a new job. */
const OF_THE_JOB = fieldsOf('company', 'title', 'email', 'phone');
/** What two people of a kind agree on, by field and level; the first that fits. */
const HAVE_IN_COMMON: readonly [(typeof OF_TWO)[number], field: number, levels: readonly number[]][] = [
  ['colleagues', COMPANY, [3, 4]],
  ['neighbours', PLACE, [3, 4]],
  ['townspeople', PLACE, [2]],
];
const SMOOTH = 0.5;
/** Pairs that are enough to learn from. */
const LEARN_FROM = 30_000;

/** First guesses of what pairs of one person show, by level from 1; they only start the learning. */
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
const START = independent(COMPARED.map((field) => [0, ...START_M[field]]));
/** To begin with a tenth of the pairs of one person is of two jobs, of which firm and title mostly differ. */
const START_MOVED = { share: 0.1, shows: [0, 0.85, 0.05, 0.05, 0.05] };

interface Seen {
  levels: number[];
  n: number;
  /** That it can be one person; who cannot teaches what the others are like. */
  mayBe: boolean;
}

/**
 * Learns the weights from the data by expectation maximisation (Fellegi and Sunter 1969; Winkler 1988), in two passes.
 *
 * First over all pairs of records: u from pairs drawn at random, and pairs that share no block count as different people.
 * That cannot go astray, but takes the others for less alike than they are, since pairs that share a block agree on names
 * far more often. So then all is learned among the compared pairs, from where the first pass ended, as several kinds (after
 * Larsen and Rubin 2001): colleagues agree on the firm and what hangs on it, neighbours on the place, strangers on neither.
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
  const seen = seenAmong(pairs, compare);
  const all = Math.max(pairs.size, 1, (subjects.size * (subjects.size - 1)) / 2);
  const u = randomU(subjects, compare, random);
  const prior = Math.min(0.5, (subjects.size * 0.1) / all);
  const same: Kind = { share: prior, shown: START };
  const others: Kind = { share: 1 - prior, shown: independent(u) };
  const drawn = { subjects, compare, random };
  if (pairs.size < 20) return weightsOf(twoKinds(same, others), 1, pairs.size);
  const kin = kinship(drawn);
  maximise([same, others], seen, { ofOne: 1, unseen: all - pairs.size, onlyFirst: true });
  const matched = same.share * all;
  // Records of one person are one: each has as many matches as the mean of them.
  const people = subjects.size / (1 + (2 * matched) / subjects.size);
  const known = { random: u, namesakes: namesakesIn(drawn, people) / pairs.size, kin, handful: HANDFUL / pairs.size };
  const kinds = apart(same, others, seen, Math.min(0.9, Math.max(1e-6, matched / pairs.size)));
  maximise(
    KINDS.map((name) => kinds[name]),
    seen,
    { ofOne: 2, unseen: 0, onlyFirst: false, settle: () => settle(kinds, known) },
  );
  const grown = (kinds.stayed.share + kinds.moved.share) * pairs.size > matched * MOST_GROWTH;
  return weightsOf(grown ? twoKinds(same, others) : kinds, kin, pairs.size);
}

/** What the compared pairs show, and how many of them show it. */
function seenAmong(pairs: Pairs, compare: Record<Compared, Compare>): Seen[] {
  const counts = new Map<number, number>();
  const { sample, each } = samplePairs(pairs, LEARN_FROM);
  const patternAt = patternOf(compare);
  for (let k = 0; k < sample.size; k++) {
    const pattern = patternAt(sample.a(k), sample.b(k));
    counts.set(pattern, (counts.get(pattern) ?? 0) + each);
  }
  return [...counts].map(([pattern, n]) => {
    const levels = levelsOf(pattern);
    return { levels, n, mayBe: mayBeOne(levels) };
  });
}

/** Where no more is told apart than one person and others. */
const twoKinds = (same: Kind, others: Kind): Kinds => ({
  stayed: same,
  moved: { ...same, share: 0 },
  ...ofTwo((name) => (name === 'colleagues' ? others : { ...others, share: 0 })),
});

/** A second pass that finds so many more matches than the first has begun to call something else a match. */
const MOST_GROWTH = 2;
const ROUNDS = 25;
/** A share of a pair that changes nothing. */
const NOTHING = 1e-9;

interface Learning {
  /** How many of the kinds, the first, are of one person. */
  ofOne: number;
  /** Pairs of the last kind that are not among those that were seen. */
  unseen: number;
  /** What the others show is known. */
  onlyFirst: boolean;
  /** What must hold of the kinds, seen to after each round. */
  settle?: () => void;
}

/** Rounds of expectation and maximisation over kinds of pairs; changes them. */
function maximise(kinds: readonly Kind[], seen: readonly Seen[], { ofOne, unseen, onlyFirst, settle }: Learning) {
  const pairs = seen.reduce((sum, { n }) => sum + n, unseen);
  // A handful of made-up pairs keeps a level that was never seen from meaning the impossible.
  const made = Math.min(20, seen.length * 0.2);
  const odds = new Float64Array(kinds.length);
  const begun = kinds.map(({ shown }, k) => (k === 0 ? START : shown));
  for (let round = 0; round < ROUNDS; round++) {
    const weigh = kinds.map(bitsIn);
    const sums = kinds.map(() => 0);
    const counted = begun.map((shown) => times(shown, made));
    for (const { levels, n, mayBe } of seen) {
      let all = 0;
      for (let k = 0; k < kinds.length; k++) all += odds[k] = k < ofOne && !mayBe ? 0 : 2 ** weigh[k]!(levels);
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
    settle?.();
  }
}

/** What is known of the kinds before any pair is seen. */
interface Known {
  /** What any two records show. */
  random: Shares;
  /** How many of the compared pairs are strangers of one name, at most. */
  namesakes: number;
  /** Share of those of one last name and firm or place who are of one family. */
  kin: number;
  /** A handful of pairs is no sign that people change the job: the share of the pairs that it takes. */
  handful: number;
}
const HANDFUL = 6;

/** Makes what is known hold of the kinds as a round left them. */
function settle(kinds: Kinds, { random, namesakes, kin, handful }: Known) {
  const { stayed, moved, strangers } = kinds;
  const few = Math.min(moved.share, handful);
  moved.share = Math.max(1e-12, moved.share - few);
  stayed.share += few;
  // A new job changes neither the name nor how it is written.
  const ofOne = mixed([stayed, moved]);
  for (const kind of [stayed, moved])
    kind.shown = {
      names: ofOne.names,
      fields: kind.shown.fields.map((field, f) => (OF_THE_JOB.has(f) ? field : ofOne.fields[f]!)),
    };
  for (const [name, f, levels] of HAVE_IN_COMMON) {
    const kind = kinds[name];
    const agree = levels.reduce((sum, level) => sum + random[f]![level]!, 0);
    const byChance = (namesakes * agree) / kind.share;
    kind.shown.names = ofRelatives(kind.shown.names, { random: random[FIRST]!, kin, byChance });
  }
  // Strangers share a block for their names, of which their addresses are made; in all else they are any two people.
  strangers.shown = {
    names: atMost(strangers.shown.names, namesakes / strangers.share),
    fields: strangers.shown.fields.map((field, f) => (BY_NAME.has(f) ? field : random[f]!)),
  };
}

/** The kinds to begin with. */
function apart(same: Kind, others: Kind, seen: readonly Seen[], prior: number): Kinds {
  const sameBits = bitsIn({ ...same, share: prior });
  const otherBits = bitsIn({ ...others, share: 1 - prior });
  const begun = ofTwo(() => ({ sum: SMOOTH, shown: times(others.shown, SMOOTH) }));
  for (const { levels, n, mayBe } of seen) {
    const other = mayBe ? (1 - chanceOf(sameBits(levels) - otherBits(levels))) * n : n;
    const kind = begun[HAVE_IN_COMMON.find(([, f, at]) => at.includes(levels[f]!))?.[0] ?? 'strangers'];
    kind.sum += other;
    count(kind.shown, levels, other);
  }
  const all = OF_TWO.reduce((sum, name) => sum + begun[name].sum, 0);
  const fields = same.shown.fields.map((field, f) => (f === COMPANY || f === TITLE ? START_MOVED.shows : field));
  return {
    stayed: { share: prior * (1 - START_MOVED.share), shown: same.shown },
    moved: { share: prior * START_MOVED.share, shown: { ...same.shown, fields } },
    ...ofTwo((name) => ({ share: ((1 - prior) * begun[name].sum) / all, shown: sharesIn(begun[name].shown) })),
  };
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
