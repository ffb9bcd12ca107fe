import { withCondition, type Condition, type Search } from '../model/search';
import { MOST_TERMS, parseSearch, type SearchError } from './parse';

/** What a person does to one value of a search's conditions, or types behind them. */
export type SearchChange =
  /** Conditions as text, or a whole search: `people where …` takes the place of all. */
  | { kind: 'type'; text: string }
  /** One more value, or several, of a condition. */
  | { kind: 'add'; condition: number; text: string }
  /** Something else in the place of a value. */
  | { kind: 'write'; condition: number; at: number; text: string }
  /** Into quotation marks, or out of them. */
  | { kind: 'exact'; condition: number; at: number }
  /** From wanted to unwanted, or back. */
  | { kind: 'turn'; condition: number; at: number }
  | { kind: 'remove'; condition: number; at: number };

export type Changed = { search: Search; error: null } | { search: null; error: SearchError };

/** A search as it is after a change, or what of the text cannot be read. */
export function changeSearch(search: Search, change: SearchChange): Changed {
  if (change.kind === 'type') {
    const read = parseSearch(change.text.trim(), search.about);
    if (read.error) return read;
    const isWhole = /^\s*(people|companies|postings)\b/i.test(change.text);
    return done(isWhole ? read.search : read.search.conditions.reduce(joined, search));
  }
  const given = search.conditions[change.condition]!;
  switch (change.kind) {
    case 'add':
    case 'write': {
      const read = parseSearch(`${given.not ? 'not ' : ''}${given.field}: ${change.text.trim()}`, search.about);
      if (read.error) return read;
      const one = read.search.conditions[0]!;
      if (change.kind === 'add') return done(joined(search, one));
      return done(withValues(search, change.condition, (values) => values.toSpliced(change.at, 1, ...valuesOf(one))));
    }
    case 'exact':
      return done(
        withValues(search, change.condition, (values) =>
          values.map((value, at) => (at === change.at && 'exact' in value ? { ...value, exact: !value.exact } : value)),
        ),
      );
    case 'turn': {
      const value = valuesOf(given)[change.at]!;
      const one = withValuesOf({ ...given, not: !given.not }, [value]);
      return done(joined(without(search, change), one));
    }
    case 'remove':
      return done(without(search, change));
  }
}

const done = (search: Search): Changed => ({ search, error: null });

type Value =
  Extract<Condition, { terms: unknown }>['terms'][number] | Extract<Condition, { ranges: unknown }>['ranges'][number];

const valuesOf = (given: Condition): Value[] => ('terms' in given ? given.terms : given.ranges);
const withValuesOf = (given: Condition, values: Value[]): Condition => ({
  ...given,
  ['terms' in given ? 'terms' : 'ranges']: values,
});

/** Its condition goes with the last value of it. */
const withValues = (search: Search, condition: number, change: (values: Value[]) => Value[]): Search => ({
  ...search,
  conditions: search.conditions.flatMap((given, i) => {
    if (i !== condition) return [given];
    const values = once(change(valuesOf(given)));
    return values.length > 0 ? [withValuesOf(given, values)] : [];
  }),
});

const without = (search: Search, { condition, at }: { condition: number; at: number }) =>
  withValues(search, condition, (values) => values.toSpliced(at, 1));

/** The first of those that are the same. */
function once(values: Value[]): Value[] {
  const seen = new Set<string>();
  return values.filter((value) => {
    const key = JSON.stringify(value).toLowerCase();
    return !seen.has(key) && seen.add(key);
  });
}

/** A search with one condition more; values of a field that is there already become alternatives. */
export function joined(search: Search, more: Condition): Search {
  const at = search.conditions.findIndex(({ field, not }) => field === more.field && not === more.not);
  if (at < 0) return withCondition(search, more);
  return withValues(search, at, (values) => [...values, ...valuesOf(more)].slice(0, MOST_TERMS));
}
