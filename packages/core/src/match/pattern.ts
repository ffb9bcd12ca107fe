import { COMPARED, LEVELS, type Compare, type Compared } from './compare';

const FIELDS = COMPARED.length;
const FIRST = COMPARED.indexOf('firstName');
const LAST = COMPARED.indexOf('lastName');
const EMAIL = COMPARED.indexOf('email');
const PHONE = COMPARED.indexOf('phone');
const PROFILE = COMPARED.indexOf('profile');

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
