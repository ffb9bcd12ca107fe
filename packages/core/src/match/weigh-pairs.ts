import type { Link } from '../grouping/cluster';
import type { Person } from '../model/person';
import { seededRandom } from '../text/random';
import { candidatePairs } from './blocks';
import { comparisons } from './compare';
import { learnWeights } from './learn';
import { bitsFor, chanceOf, commonness, weigher, type PairShares, type Weights } from './likelihood';
import { CERTAIN, levelsOf, mayBeOne, patternIfOne, patternOf, sharesExactKey } from './pattern';
import { toSubjects } from './subject';
import { taughtBits, teach } from './taught';

/** What a pattern of levels weighs; `least`: how likely it is at the least, for an exact key. */
interface Scored {
  levels: number[];
  weighed: PairShares;
  base: number;
  least: number;
}

export interface WeighedPairs {
  weights: Weights;
  /** The pairs at or over the line from which they are judged. */
  links: Link[];
  /** How many pairs were compared. */
  compared: number;
  /** How many of the pairs that a person judged teach something. */
  judged: number;
  /** Where they taught: how likely pairs were before and after. */
  moves: [before: number, after: number][];
  /** Two records that cannot be one person by what is known of them. */
  conflict: (a: number, b: number) => boolean;
}

/** Bits under which no rare name can lift a pair to a line that is worth a look. */
const HOPELESS = -8;

/** Learns from a list, and from what a person judged, how likely each pair that is worth comparing is one person. */
export function weighPairs(
  people: readonly Person[],
  judgeFrom: number,
  same: readonly (readonly [number, number])[],
  different: readonly (readonly number[])[],
): WeighedPairs {
  const subjects = toSubjects(people);
  const compare = comparisons(subjects);
  const pairs = candidatePairs(subjects);
  const learned = learnWeights(pairs, subjects, compare, seededRandom(2026));
  const { records } = subjects;
  const placeOf = new Int32Array(records.length);
  for (const [place, record] of records.entries()) placeOf[record] = place;
  const patternAt = patternOf(compare);
  const patternOfRecords = (a: number, b: number) => patternAt(placeOf[a]!, placeOf[b]!);
  const weigh = weigher(learned);
  const patternIfMayBe = patternIfOne(compare);
  const commonnessOf = commonness(subjects);
  const scored = new Map<number, Scored>();
  const scoreOf = (pattern: number) => {
    let known = scored.get(pattern);
    if (!known) {
      const levels = levelsOf(pattern);
      const weighed = weigh(levels);
      const least = sharesExactKey(levels) ? CERTAIN : 0;
      known = { levels, weighed, base: bitsFor(weighed), least };
      scored.set(pattern, known);
    }
    return known;
  };
  /** What all fields of a pair say, one of which stands at a place. */
  const bitsAt = ({ weighed, levels }: Scored, place: number) => bitsFor(weighed, commonnessOf(levels, place));

  const judged = judgedPairs(same, different).flatMap(({ a, b, same }) => {
    const score = scoreOf(patternOfRecords(a, b));
    return mayBeOne(score.levels) ? [{ levels: score.levels, bits: bitsAt(score, placeOf[a]!), same }] : [];
  });
  const taught = teach(judged);
  const moves: [before: number, after: number][] = [];
  const links: Link[] = [];
  for (let k = 0; k < pairs.size; k++) {
    const [place, otherPlace] = [pairs.a(k), pairs.b(k)];
    const pattern = patternIfMayBe(place, otherPlace);
    if (pattern < 0) continue;
    const score = scoreOf(pattern);
    if (score.least === 0 && score.base < HOPELESS) continue;
    const bits = bitsAt(score, place);
    const chance = Math.max(chanceOf(bits + taughtBits(taught, score.levels)), score.least);
    if (taught) {
      const before = Math.max(chanceOf(bits), score.least);
      if (Math.max(before, chance) >= judgeFrom) moves.push([before, chance]);
    }
    if (chance < judgeFrom) continue;
    const [one, other] = [records[place]!, records[otherPlace]!];
    links.push({ a: Math.min(one, other), b: Math.max(one, other), chance, pattern });
  }
  return {
    weights: { ...learned, taught },
    links,
    compared: pairs.size,
    judged: judged.length,
    moves,
    conflict: (a, b) => scoreOf(patternOfRecords(a, b)).base < -1,
  };
}

/** The pairs that a person judged, one by one. */
function judgedPairs(same: readonly (readonly [number, number])[], different: readonly (readonly number[])[]) {
  const apart = different.filter(({ length }) => length === 2);
  return [...same.map(([a, b]) => ({ a, b, same: true })), ...apart.map(([a, b]) => ({ a: a!, b: b!, same: false }))];
}
