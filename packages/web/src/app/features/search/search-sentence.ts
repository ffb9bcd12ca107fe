import { SEARCH_FIELDS, type Condition, type Search, type Subject } from '@sieve/core/model/search';
import type { SearchChange } from '@sieve/core/search/change';
import { printRange, printTerm } from '@sieve/core/search/print';
import type { Clause, SentenceChange, SentenceField, Token } from '../../ui/sentence/sentence-model';

/** How a condition reads: the words before its values, the same when they are kept out, words behind, and their name in numbers. */
type Words = [says: string, saysNot: string, after: string, many: string];

const WORDS: Record<string, Words> = {
  title: ['whose title says', 'whose title does not say', '', 'titles'],
  role: ['for the role', 'not for the role', '', 'roles'],
  age: ['that are', 'that are not', 'days old', 'ages'],
  level: ['at the level', 'not at the level', '', 'levels'],
  team: ['in the team', 'not in the team', '', 'teams'],
  years: ['in their role for', 'not in their role for', 'years', 'spans'],
  company: ['at', 'not at', '', 'companies'],
  sector: ['in the sector', 'not in the sector', '', 'sectors'],
  country: ['in', 'not in', '', 'countries'],
  region: ['in the region', 'not in the region', '', 'regions'],
  city: ['in the city', 'not in the city', '', 'cities'],
  headcount: ['at firms with', 'not at firms with', 'people', 'bands'],
  employees: ['with', 'not with', 'people', 'ranges'],
  growth: ['that grew by', 'that did not grow by', 'per cent', 'ranges'],
  teamgrowth: ['whose teams grew by', 'whose teams did not grow by', 'per cent', 'ranges'],
  technology: ['that use', 'that do not use', '', 'technologies'],
  hiring: ['at firms hiring for', 'not at firms hiring for', '', 'roles'],
  past: ['who were at', 'who were never at', '', 'companies'],
  school: ['who went to', 'who did not go to', '', 'schools'],
  certificate: ['who hold', 'who do not hold', '', 'certificates'],
  follows: ['who follow', 'who do not follow', '', 'names'],
  keyword: ['with the word', 'without the word', '', 'words'],
};
/** Where a subject reads otherwise. */
const OF_SUBJECT: Partial<Record<Subject, Record<string, Words>>> = {
  people: {
    sector: ['at firms in', 'not at firms in', '', 'sectors'],
  },
  companies: {
    company: ['named', 'not named', '', 'names'],
    hiring: ['hiring for', 'not hiring for', '', 'roles'],
  },
};

const order = new Map(SEARCH_FIELDS.map(({ key }, i) => [key, i]));

/** The conditions in the order in which they are said, as positions in the search. */
export const saidOrder = ({ conditions }: Search): number[] =>
  conditions
    .map((_, i) => i)
    .sort((a, b) => order.get(conditions[a]!.field)! - order.get(conditions[b]!.field)! || a - b);

/** The search with only the first conditions of the sentence. */
export const beginning = (search: Search, clauses: number): Search => ({
  ...search,
  conditions: saidOrder(search)
    .slice(0, clauses)
    .map((i) => search.conditions[i]!),
});

/** A search as a sentence. `left`: how many each beginning of it leaves, from none of its clauses to all; null while that is not known. */
export function clausesOf(search: Search, left: readonly (number | null)[]): Clause[] {
  const said = saidOrder(search).map((i) => search.conditions[i]!);
  return said.map((given, i) => {
    const { label, kind } = SEARCH_FIELDS.find(({ key }) => key === given.field)!;
    const [says, saysNot, after, many] = OF_SUBJECT[search.about]?.[given.field] ?? WORDS[given.field]!;
    const isButNot = given.not && said[i - 1]?.field === given.field;
    const [before, behind] = [left[i] ?? null, left[i + 1] ?? null];
    return {
      field: given.field,
      name: given.not ? `${label}, not` : label,
      words: isButNot ? 'but not' : given.not ? saysNot : says,
      after,
      not: given.not,
      many,
      tokens: tokensOf(given, kind === 'choice'),
      takes: before === null || behind === null ? null : before - behind,
    };
  });
}

function tokensOf(given: Condition, isChoice: boolean): Token[] {
  if ('ranges' in given)
    return given.ranges.map((range) => {
      const text = printRange(range);
      const label = text
        .replace(/^\.\.$/, 'any')
        .replace(/^\.\./, 'up to ')
        .replace(/\.\.$/, ' and up')
        .replace('..', ' to ');
      return { label, text, exact: null };
    });
  return given.terms.map((term) => ({
    label: term.exact && !isChoice ? `“${term.text}”` : term.text,
    text: printTerm(isChoice ? { ...term, exact: /[",;:]/.test(term.text) } : term),
    exact: isChoice ? null : term.exact,
  }));
}

/** What a change of the sentence is for the search. */
export function inSearch(search: Search, change: SentenceChange): SearchChange {
  if (change.kind === 'type') return change;
  const condition = saidOrder(search)[change.clause]!;
  if (change.kind === 'add') return { kind: 'add', condition, text: change.text };
  return change.kind === 'write'
    ? { kind: 'write', condition, at: change.token, text: change.text }
    : { kind: change.kind, condition, at: change.token };
}

/** A search in which one condition has one of its terms only, and keeps in what it kept out. */
export interface TermAlone {
  search: Search;
  condition: Condition;
}

/** Null for values that are no words. */
export function termAlone(search: Search, clause: number, token: number): TermAlone | null {
  const at = saidOrder(search)[clause]!;
  const given = search.conditions[at]!;
  const term = 'terms' in given ? given.terms[token] : undefined;
  if (!term || SEARCH_FIELDS.find(({ key }) => key === given.field)?.kind !== 'text') return null;
  const condition: Condition = { field: given.field, not: false, terms: [term] };
  return { search: { ...search, conditions: search.conditions.with(at, condition) }, condition };
}

/** What a search of a subject can speak of. */
export const sentenceFields = (about: Subject): SentenceField[] =>
  SEARCH_FIELDS.filter(({ of }) => of.includes(about)).map(({ key, label, kind, values }) => ({
    key,
    label,
    kind,
    ...(values && { values }),
  }));
