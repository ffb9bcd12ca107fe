import { lowestAllowed, type Merged } from './accepted-error';
import { errorCurve, type LinePoint } from './error-curve';
import type { Person } from '../model/person';
import { cluster, mostLikelyFirst, type Link } from '../grouping/cluster';
import { COMPARED, type Compared, type Level } from './compare';
import { bitsOf, type Weights } from './likelihood';
import { levelsOf } from './pattern';
import { weighPairs } from './weigh-pairs';
import { expectedWrong } from './wrong-merges';

export interface MatchLines {
  /** Pairs at least this likely are merged. */
  mergeFrom: number;
  /** Most of the merges that may be wrong, 0 to 1: pairs are merged from as low as it allows, whatever `mergeFrom` says. */
  acceptedError?: number | null;
  /** Pairs at least this likely, but under the line above, are judged by a person. */
  judgeFrom: number;
}

/** What one field says about a pair. */
export interface Evidence {
  field: Compared;
  level: Level;
  bits: number;
}

export interface MatchOutcome {
  /** For each record the lowest index of its cluster. */
  roots: Int32Array;
  /** Doubtful pairs between different clusters, least certain first; of very many the first 5,000. */
  doubtful: Link[];
  /** How many there are. */
  doubtfulCount: number;
  /** For each record that was merged, the pair that brought it in. */
  reasons: Map<number, Link>;
  weights: Weights;
  compared: number;
  /** Share of the merges that are expected to be wrong, 0 to 1. */
  expectedError: number;
  /** Between these it is in nine lists of ten. */
  errorRange: { low: number; high: number };
  /** Pairs at least this likely were merged. */
  mergeFrom: number;
  /** What other lines would merge, of all pairs that are worth a look. */
  curve: LinePoint[];
  /** Pairs that a person judged, where they are enough to teach the weights, and how many others they took over a line. */
  taught: { judged: number; moved: number } | null;
}

const MOST_DOUBTFUL = 5000;

/**
 * Finds the records that are one person: blocks, comparisons, weights learned from the data, lines, clusters.
 *
 * @param same pairs of record indexes that a person has judged; they always win
 * @param different groups of record indexes of which no two are one person; they win over what is likely
 */
export function matchPeople(
  people: readonly Person[],
  lines: MatchLines,
  same: readonly (readonly [number, number])[] = [],
  different: readonly (readonly number[])[] = [],
): MatchOutcome {
  const { weights, links, compared, judged, moves, conflict } = weighPairs(people, lines.judgeFrom, same, different);
  const keyOf = (a: number, b: number) => Math.min(a, b) * people.length + Math.max(a, b);
  const saidSame = new Set(same.map(([a, b]) => keyOf(a, b)));
  const mergeAt = (mergeFrom: number): Merged => {
    const likely = mostLikelyFirst(links.filter(({ chance }) => chance >= mergeFrom));
    const roots = cluster(people.length, likely, same, different, conflict);
    const reasons = new Map<number, Link>();
    for (const link of likely) {
      if (roots[link.a] !== roots[link.b]) continue;
      for (const i of [link.a, link.b]) if (!reasons.has(i)) reasons.set(i, link);
    }
    // What a person put together is no guess, and no group that should not be.
    const saidSo = new Set(same.map(([a]) => roots[a]));
    const members = new Int32Array(people.length);
    for (const record of reasons.keys()) members[roots[record]!]!++;
    const sizes = new Map([[1, people.length - reasons.size]]);
    let pairs = 0;
    for (const [root, size] of members.entries()) {
      pairs += (size * (size - 1)) / 2;
      if (size > 0 && !saidSo.has(root)) sizes.set(size, (sizes.get(size) ?? 0) + 1);
    }
    let byPairs = 0;
    for (const { a, b, chance } of likely)
      if (roots[a] === roots[b] && !saidSame.has(keyOf(a, b))) byPairs += 1 - chance;
    const wrong = Math.min(pairs, expectedWrong(sizes, byPairs));
    return { mergeFrom, roots, reasons, pairs, wrong, expectedError: pairs === 0 ? 0 : wrong / pairs };
  };
  const { mergeFrom, roots, reasons, ...merged } =
    lines.acceptedError == null ? mergeAt(lines.mergeFrom) : lowestAllowed(links, lines.acceptedError, mergeAt);
  const sideOf = (chance: number) => Number(chance >= mergeFrom) + Number(chance >= lines.judgeFrom);

  // What was said of one record of a group holds of the whole group.
  const ruledOut = togetherIn(different.map((records) => records.map((record) => roots[record]!)));
  const doubtful = new Map<number, Link>();
  for (const link of links) {
    if (link.chance >= mergeFrom) continue;
    const [x, y] = [roots[link.a]!, roots[link.b]!];
    if (x === y || ruledOut(x, y)) continue;
    const key = keyOf(x, y);
    const known = doubtful.get(key);
    if (!known || known.chance < link.chance) doubtful.set(key, link);
  }
  const over = links.filter(({ chance }) => chance >= mergeFrom);
  const wrongAlone = over.reduce((sum, { chance }) => sum + 1 - chance, 0);
  /** A pair that was merged is wrong as often as the groups that its likes are in. */
  const inGroups = wrongAlone === 0 ? 1 : (merged.expectedError * over.length) / wrongAlone;
  return {
    roots,
    doubtful: [...doubtful.values()]
      .sort((p, q) => Math.abs(p.chance - 0.5) - Math.abs(q.chance - 0.5) || p.a - q.a || p.b - q.b)
      .slice(0, MOST_DOUBTFUL),
    doubtfulCount: doubtful.size,
    reasons,
    weights,
    compared,
    expectedError: merged.expectedError,
    errorRange: errorRange(merged.wrong, merged.pairs),
    mergeFrom,
    curve: errorCurve(links, lines.judgeFrom, (chance) => (1 - chance) * (chance >= mergeFrom ? inGroups : 1)),
    taught: weights.taught && {
      judged,
      moved: moves.filter(([before, after]) => sideOf(before) !== sideOf(after)).length,
    },
  };
}

/** By so many times what is expected was too high or too low on lists whose truth is known (bench/match-sets.ts), beside what chance does. */
const OFF = 1.5;
const NINE_OF_TEN = 1.645;

/** The share of merges that is wrong, where so many of them are expected to be: counts vary as Poisson's do, and the model errs. */
function errorRange(wrong: number, merged: number): { low: number; high: number } {
  if (merged === 0) return { low: 0, high: 0 };
  const [few, many] = [wrong / OFF, wrong * OFF];
  return {
    low: Math.max(0, few - NINE_OF_TEN * Math.sqrt(few)) / merged,
    high: Math.min(merged, many + NINE_OF_TEN * Math.sqrt(many) + NINE_OF_TEN ** 2 / 2) / merged,
  };
}

/** Whether two records stand in one of some groups. */
function togetherIn(groups: readonly (readonly number[])[]): (a: number, b: number) => boolean {
  const of = new Map<number, number[]>();
  for (const [number, records] of groups.entries())
    for (const record of records) of.set(record, [...(of.get(record) ?? []), number]);
  return (a, b) => of.get(a)?.some((number) => of.get(b)?.includes(number)) ?? false;
}

/** What each field says about a pair, by the weights that were learned from all of them. */
export function evidenceOf({ pattern }: Pick<Link, 'pattern'>, weights: Weights): Evidence[] {
  const levels = levelsOf(pattern);
  return COMPARED.map((field, f) => {
    const level = levels[f] as Level;
    return { field, level, bits: bitsOf(weights, f, level) };
  });
}
