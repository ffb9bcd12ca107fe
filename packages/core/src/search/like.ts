import { type Condition, type Found, type Subject } from '../model/search';
import { MOST_TERMS } from './parse';

/** A condition that some of the examples have in common. */
export interface Likeness {
  condition: Condition;
  /** How many of the examples have it. */
  shared: number;
}

const TEXTS: Record<Subject, readonly string[]> = {
  companies: ['sector', 'country', 'region', 'technology', 'keyword'],
  people: ['title', 'level', 'team', 'sector', 'country', 'headcount', 'certificate'],
  postings: ['role', 'sector', 'country'],
};
const NUMBERS: Record<Subject, readonly string[]> = {
  companies: ['employees', 'growth'],
  people: ['years'],
  postings: [],
};

/**
 * Conditions that find more like some good examples: values that at least half of them share, and ranges about their
 * numbers, a half wider on either side. The most shared come first.
 */
export function likeThese(about: Subject, rows: readonly Found[]): Likeness[] {
  const out: Likeness[] = [];
  const least = Math.max(1, Math.ceil(rows.length / 2));
  for (const field of TEXTS[about]) {
    const counts = new Map<string, number>();
    for (const row of rows)
      for (const value of new Set(
        [row[field]].flat().filter((one): one is string => typeof one === 'string' && one !== ''),
      ))
        counts.set(value, (counts.get(value) ?? 0) + 1);
    for (const [text, shared] of counts)
      if (shared >= least) out.push({ condition: { field, not: false, terms: [{ text, exact: true }] }, shared });
  }
  for (const field of NUMBERS[about]) {
    const numbers = rows.map((row) => row[field]).filter((n): n is number => typeof n === 'number');
    if (numbers.length < least) continue;
    const [low, high] = [Math.min(...numbers), Math.max(...numbers)];
    const reach = Math.max(1, Math.round(Math.max(high - low, Math.abs(high)) / 2));
    out.push({
      condition: { field, not: false, ranges: [{ from: low - reach, to: high + reach }] },
      shared: numbers.length,
    });
  }
  return out.sort((a, b) => b.shared - a.shared);
}

/** The names of companies as conditions of at most 500 names each. */
export function companyConditions(names: readonly string[]): Condition[] {
  const unique = [...new Map(names.filter((name) => name.trim()).map((name) => [name.toLowerCase(), name])).values()];
  const out: Condition[] = [];
  for (let from = 0; from < unique.length; from += MOST_TERMS)
    out.push({
      field: 'company',
      not: false,
      terms: unique.slice(from, from + MOST_TERMS).map((text) => ({ text, exact: true })),
    });
  return out;
}
