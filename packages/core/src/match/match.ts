import type { Person } from '../model/person';
import { seededRandom } from '../text/random';
import { candidatePairs } from './blocks';
import { cluster, type Link } from './cluster';
import { COMPARED, comparisons, LEVELS, type Compare, type Compared, type Level } from './compare';
import { bitsOf, chanceOf, learnWeights, levelsOf, patternOf, rarity, weigher, type Weights } from './likelihood';
import { toSubjects } from './subject';

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
  /** Pairs at least this likely were merged. */
  mergeFrom: number;
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
  const subjects = toSubjects(people);
  const compare = comparisons(subjects);
  const pairs = candidatePairs(subjects);
  const weights = learnWeights(pairs, subjects, compare, seededRandom(2026));
  const patternAt = patternOf(compare);
  const weigh = weigher(weights);
  const scored = new Map<number, { levels: number[]; base: number }>();
  const scoreOf = (pattern: number) => {
    let known = scored.get(pattern);
    if (!known) {
      const levels = levelsOf(pattern);
      known = { levels, base: weigh(levels) };
      scored.set(pattern, known);
    }
    return known;
  };

  const links: Link[] = [];
  for (let k = 0; k < pairs.size; k++) {
    const a = pairs.a[k]!;
    const b = pairs.b[k]!;
    if (!mayBeOne(compare, a, b)) continue;
    const { levels, base } = scoreOf(patternAt(a, b));
    const exact = sharesExactKey(levels);
    if (!exact && base < HOPELESS) continue;
    const learned = chanceOf(base + rarity(subjects, weights, levels, a));
    const likelihood = exact ? Math.max(learned, CERTAIN) : learned;
    if (likelihood < lines.judgeFrom) continue;
    links.push({ a, b, chance: likelihood });
  }
  const mergeFrom = lines.acceptedError == null ? lines.mergeFrom : lineOf(links, lines.acceptedError);
  const likely = links.filter(({ chance }) => chance >= mergeFrom);
  const conflict = (a: number, b: number) => scoreOf(patternAt(a, b)).base < -1;
  const roots = cluster(people.length, likely, same, different, conflict);

  const ruledOut = togetherIn(different);
  const doubtful = new Map<number, Link>();
  for (const link of links) {
    if (link.chance >= mergeFrom) continue;
    const [x, y] = [roots[link.a]!, roots[link.b]!];
    if (x === y || ruledOut(link.a, link.b)) continue;
    const key = Math.min(x, y) * people.length + Math.max(x, y);
    const known = doubtful.get(key);
    if (!known || known.chance < link.chance) doubtful.set(key, link);
  }
  const reasons = new Map<number, Link>();
  let wrong = 0;
  let merged = 0;
  for (const link of [...likely].sort((p, q) => q.chance - p.chance)) {
    if (roots[link.a] !== roots[link.b]) continue;
    for (const i of [link.a, link.b]) if (!reasons.has(i)) reasons.set(i, link);
    merged++;
    wrong += 1 - link.chance;
  }
  return {
    roots,
    doubtful: [...doubtful.values()]
      .sort((p, q) => Math.abs(p.chance - 0.5) - Math.abs(q.chance - 0.5) || p.a - q.a || p.b - q.b)
      .slice(0, MOST_DOUBTFUL),
    doubtfulCount: doubtful.size,
    reasons,
    weights,
    compared: pairs.size,
    expectedError: merged === 0 ? 0 : wrong / merged,
    mergeFrom,
  };
}

/** The lowest line over which no more than a share of the links is expected to be wrong; over 1 where there is none. */
function lineOf(links: readonly Link[], acceptedError: number): number {
  const chances = links.map(({ chance }) => chance).sort((p, q) => q - p);
  let line = 2;
  let wrong = 0;
  for (const [i, chance] of chances.entries()) {
    wrong += 1 - chance;
    if (chances[i + 1] === chance) continue;
    if (wrong > acceptedError * (i + 1) + 1e-9) break;
    line = chance;
  }
  return line;
}

/** Whether two records stand in one of some groups. */
function togetherIn(groups: readonly (readonly number[])[]): (a: number, b: number) => boolean {
  const of = new Map<number, number[]>();
  for (const [number, records] of groups.entries())
    for (const record of records) of.set(record, [...(of.get(record) ?? []), number]);
  return (a, b) => of.get(a)?.some((number) => of.get(b)?.includes(number)) ?? false;
}

/** What each field says about two records, by the weights that were learned from all of them. */
export function evidenceOf(a: Person, b: Person, weights: Weights): Evidence[] {
  const compare = comparisons(toSubjects([a, b]));
  return COMPARED.map((field, f) => {
    const level = compare[field](0, 1);
    return { field, level, bits: bitsOf(weights, f, level) };
  });
}

const FIRST = COMPARED.indexOf('firstName');
const LAST = COMPARED.indexOf('lastName');
const PROFILE = COMPARED.indexOf('profile');
const EMAIL = COMPARED.indexOf('email');

/** What an exact key counts, however little there is to learn from. */
const CERTAIN = 0.999;

/** One mailbox or one profile page, and names that agree: one person. */
const sharesExactKey = (levels: number[]): boolean =>
  (levels[EMAIL] === LEVELS - 1 || levels[PROFILE] === LEVELS - 1) && levels[FIRST]! >= 2 && levels[LAST]! >= 3;

/** Bits under which no rare name can lift a pair to a line that is worth a look. */
const HOPELESS = -8;

/**
 * Relatives and colleagues share mailboxes, phones and firms: first names that are known and differ rule a pair out, unless
 * a profile link says otherwise. Last names may differ where a mailbox or a phone is shared, since people marry.
 */
function mayBeOne(compare: Record<Compared, Compare>, a: number, b: number): boolean {
  const same = LEVELS - 1;
  if (compare.profile(a, b) === same) return true;
  const first = compare.firstName(a, b);
  if (first === 1) return false;
  if (compare.lastName(a, b) !== 1) return true;
  return first !== 0 && (compare.email(a, b) >= 3 || compare.phone(a, b) === same);
}
