import { SEARCH_FIELDS, type Condition, type Found, type Range, type Search, type Term } from '../model/search';
import { remembered } from '../text/remembered';

/** Does a row fit all conditions? */
export const fits = (search: Search, row: Found): boolean =>
  search.conditions.every((given) => holds(given, row[given.field]));

/** Does one condition hold for a value? */
export function holds(given: Condition, value: Found[string]): boolean {
  const some =
    'terms' in given
      ? given.terms.some((term) => textsOf(value).some((text) => termMatches(given.field, term, text)))
      : typeof value === 'number' && given.ranges.some((range) => inRange(range, value));
  return some !== given.not;
}

export const textsOf = (value: Found[string]): readonly string[] =>
  typeof value === 'string' ? (value === '' ? [] : [value]) : Array.isArray(value) ? (value as string[]) : [];

export const inRange = ({ from, to }: Range, n: number): boolean =>
  (from === null || n >= from) && (to === null || n <= to);

const CHOICES = new Set(SEARCH_FIELDS.filter(({ kind }) => kind === 'choice').map(({ key }) => key));

/** A choice is one value of a list and holds as a whole. */
const termMatches = (field: string, term: Term, text: string): boolean =>
  CHOICES.has(field) ? term.text.toLowerCase() === text.toLowerCase() : termHolds(term, text);

/** An exact term holds where its words stand next to each other in order, another where all its words occur. */
export function termHolds(term: Term, text: string): boolean {
  const words = wordsIn(text);
  const wanted = wordsIn(term.text);
  if (wanted.length === 0) return false;
  if (!term.exact) return wanted.every((word) => words.includes(word));
  return words.some((_, at) => wanted.every((word, i) => words[at + i] === word));
}

/** Words in lower case without accents; what is neither letter nor digit parts them, but for a plus: '501+'. */
export const wordsIn = remembered(
  (text): readonly string[] =>
    text
      .normalize('NFKD')
      .replace(/\p{M}/gu, '')
      .toLowerCase()
      .match(/[\p{L}\p{N}+]+/gu) ?? [],
);
