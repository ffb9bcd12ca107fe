import { jaroWinkler } from '../../text/jaro-winkler';

/** How well a title fits the brief: `near` is the brief's title that comes closest, `fit` from 0 to 1. */
export interface TitleFit {
  fit: number;
  near: string;
}

/** From here on a title fits the brief. */
export const FITS = 0.99;
/** From here on a title that does not fit wants a look. */
export const NEAR = 0.6;

const SMALL = new Set(['of', 'the', 'and', 'for', 'in', 'a']);
/** Words of rank say less of what somebody does than the others: a sales manager is no quality manager. */
const RANK = new Set(
  'manager head director lead leader senior junior chief officer executive supervisor group deputy assistant general principal'.split(
    ' ',
  ),
);
const weightOf = (word: string) => (RANK.has(word) ? 0.3 : 1);
const wordsOf = (title: string) =>
  (title.toLowerCase().match(/[\p{L}\p{N}]{2,}/gu) ?? []).filter((word) => !SMALL.has(word));

/**
 * Compares a title with the titles of a brief. A title that has all words of one of them, in any order, fits;
 * otherwise the share of its words that are found, near spellings included, says how near it is.
 *
 * @example titleFit('Group Quality Manager', ['Quality Manager']) // { fit: 1, near: 'Quality Manager' }
 */
export function titleFit(title: string, brief: readonly string[]): TitleFit {
  const words = wordsOf(title);
  let best: TitleFit = { fit: 0, near: '' };
  for (const wanted of brief) {
    const needed = wordsOf(wanted);
    if (needed.length === 0) continue;
    let sum = 0;
    let whole = 0;
    for (const need of needed) {
      whole += weightOf(need);
      sum += weightOf(need) * Math.max(0, ...words.map((word) => (word === need ? 1 : near(word, need))));
    }
    const fit = sum / whole;
    if (fit > best.fit) best = { fit, near: wanted };
  }
  return best;
}

const near = (a: string, b: string) => {
  const similarity = jaroWinkler(a, b);
  return similarity >= 0.92 ? similarity : 0;
};
