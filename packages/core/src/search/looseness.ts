import { textsOf, termHolds } from './evaluate';
import type { Condition, Found, Search, Term } from '../model/search';

/** Why a row that a search returned does not fit what was meant. */
export interface Misfit {
  /** Which condition of the search. */
  condition: number;
  /** loose: its words stand there, but not as one phrase; lacks: none of its terms is in what the directory shows. */
  code: 'loose' | 'lacks';
}

/**
 * What a row does not have of the search when every phrase is meant as a phrase. A value that the directory does not show
 * (undefined) cannot be checked and passes.
 */
export function misfits({ conditions }: Search, row: Found): Misfit[] {
  return conditions.flatMap((given, condition): Misfit[] => {
    const value = row[given.field];
    if (!('terms' in given) || value === undefined) return [];
    const texts = textsOf(value);
    const has = (exact: boolean) =>
      given.terms.some((term) => texts.some((text) => termHolds(asPhrase(term, exact), text)));
    if (has(true) !== given.not) return [];
    return [{ condition, code: !given.not && has(false) ? 'loose' : 'lacks' }];
  });
}

const asPhrase = (term: Term, exact: boolean): Term => ({ ...term, exact: exact || term.exact });

/** A term without quotation marks, and how many rows of a sample come in by it. */
export interface LooseTerm {
  condition: number;
  term: number;
  text: string;
  /** Rows of the sample that no other term of the condition holds as a phrase. */
  letsIn: number;
  misfits: number;
}

/** Which unquoted terms of several words let rows of a sample in, those that let in misfits first. */
export function looseTerms(search: Search, rows: readonly { found: Found; fits: boolean }[]): LooseTerm[] {
  const out: LooseTerm[] = [];
  for (const [condition, given] of search.conditions.entries()) {
    if (!('terms' in given) || given.not) continue;
    for (const [term, one] of given.terms.entries()) {
      if (one.exact) continue;
      const alone = rows.filter(({ found }) => cameBy(given, term, found));
      out.push({
        condition,
        term,
        text: one.text,
        letsIn: alone.length,
        misfits: alone.filter(({ fits }) => !fits).length,
      });
    }
  }
  return out.filter(({ misfits }) => misfits > 0).sort((a, b) => b.misfits - a.misfits);
}

function cameBy(given: Extract<Condition, { terms: Term[] }>, at: number, row: Found): boolean {
  const texts = textsOf(row[given.field]);
  const asWhole = (term: Term) => texts.some((text) => termHolds(asPhrase(term, true), text));
  if (given.terms.some(asWhole)) return false;
  const holding = given.terms.flatMap((term, i) => (texts.some((text) => termHolds(term, text)) ? [i] : []));
  // A directory may match on more than it shows; then any loose term may have let it in, and the first is named.
  return holding.length > 0 ? holding[0] === at : given.terms.findIndex(({ exact }) => !exact) === at;
}

/** The same search with one term in quotation marks. */
export function quoted(search: Search, { condition, term }: Pick<LooseTerm, 'condition' | 'term'>): Search {
  return {
    ...search,
    conditions: search.conditions.map((given, i) =>
      i === condition && 'terms' in given
        ? { ...given, terms: given.terms.map((one, k) => (k === term ? { ...one, exact: true } : one)) }
        : given,
    ),
  };
}
