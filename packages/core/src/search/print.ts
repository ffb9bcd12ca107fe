import { SEARCH_FIELDS, type Condition, type Range, type Search, type Term } from '../model/search';

const order = new Map(SEARCH_FIELDS.map(({ key }, i) => [key, i]));

/**
 * A search as one line of text; `parseSearch` reads it back.
 *
 * @example people where title: "quality manager" or technical; not title: assistant; years: 1..10
 */
export function printSearch({ about, conditions }: Search): string {
  const sorted = [...conditions].sort((a, b) => (order.get(a.field) ?? 99) - (order.get(b.field) ?? 99));
  return sorted.length === 0 ? about : `${about} where ${sorted.map(printCondition).join('; ')}`;
}

export const printCondition = (given: Condition): string =>
  `${given.not ? 'not ' : ''}${given.field}: ${
    'terms' in given
      ? given.terms
          .map((term) => printTerm(isChoice(given.field) ? { ...term, exact: !isPlain(term.text) } : term))
          .join(' or ')
      : given.ranges.map(printRange).join(' or ')
  }`;

export const printTerm = ({ text, exact }: Term): string =>
  exact ? `"${text.replaceAll('"', '""')}"` : plainWords(text);

const isChoice = (key: string) => SEARCH_FIELDS.some((field) => field.key === key && field.kind === 'choice');
const isPlain = (text: string) => plainWords(text) === text;

/** Words that need no quotation marks: what would be read as a sign or as `or` is left out. */
const plainWords = (text: string) =>
  text
    .split(/\s+/)
    .map((word) => word.replace(/[";,:]/g, ''))
    .filter((word) => word !== '' && word.toLowerCase() !== 'or')
    .join(' ');

export const printRange = ({ from, to }: Range): string =>
  from !== null && from === to ? String(from) : `${from ?? ''}..${to ?? ''}`;
