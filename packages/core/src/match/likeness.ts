import type { Person } from '../model/person';
import { COMPARED, comparisons } from './compare';
import { bitsFor, chanceOf, weigher, type Weights } from './likelihood';
import { evidenceOf, type Evidence } from './match';
import { CERTAIN, levelsOf, mayBeOne, patternOf, sharesExactKey } from './pattern';
import { toSubjects } from './subject';
import { taughtBits } from './taught';

/** A list of fewer compared pairs taught too little to weigh people whom it does not hold. */
export const LEAST_COMPARED = 1000;
const COMPANY = COMPARED.indexOf('company');

/**
 * Says how likely two people are one, 0 to 1, by the weights that were learned from a list. They need not be in it, so how rare their names are
 * counts for nothing.
 *
 * @returns null for two of one name and a like company where the list taught too little to say
 */
export function likeness(weights: Weights): (a: Person, b: Person) => number | null {
  const weigh = weigher(weights);
  return (a, b) => {
    const levels = levelsOf(patternBetween(a, b));
    if (!mayBeOne(levels)) return 0;
    const certain = sharesExactKey(levels) ? CERTAIN : 0;
    if (weights.compared < LEAST_COMPARED) return certain || (levels[COMPANY]! >= 2 ? null : 0);
    return Math.max(chanceOf(bitsFor(weigh(levels)) + taughtBits(weights.taught, levels)), certain);
  };
}

/** What each field says about two people, by the weights that were learned from a list. */
export const evidenceBetween =
  (weights: Weights) =>
  (a: Person, b: Person): Evidence[] =>
    evidenceOf({ pattern: patternBetween(a, b) }, weights);

const patternBetween = (a: Person, b: Person): number => patternOf(comparisons(toSubjects([a, b])))(0, 1);
