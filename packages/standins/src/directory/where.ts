import type { FirmProfile, PersonProfile, Vacancy } from '../world/profiles';

/** One filter as it comes over the wire. */
export interface Filter {
  attribute: string;
  op: 'any_of' | 'none_of';
  phrases?: { words: string; in_order: boolean }[];
  between?: { min: number | null; max: number | null }[];
}

export type Kind = 'people' | 'organisations' | 'vacancies';
type Value = string | readonly string[] | number | null;

/** An attribute of a profile. `also` is text that a phrase whose words may stand in any order is looked for in, too. */
interface Attribute<T> {
  of: (row: T) => Value;
  also?: (row: T) => string;
  /** One value of a list: it holds as a whole. */
  whole?: true;
  /** Its values can be tallied: all of them, or so many of the most common. */
  tallied?: true | number;
}

const MOST_TITLES = 50;

export const PEOPLE: Record<string, Attribute<PersonProfile>> = {
  name: { of: (row) => row.shownName },
  language: { of: ({ language }) => language, whole: true },
  job_title: { of: ({ person }) => person.title, also: ({ headline }) => headline, tallied: MOST_TITLES },
  rank: { of: ({ rank }) => rank, whole: true, tallied: true },
  team: { of: ({ team }) => team, whole: true, tallied: true },
  years_in_role: { of: ({ yearsInRole }) => yearsInRole },
  organisation: { of: ({ person }) => person.firm.name },
  sector: { of: ({ firm }) => firm.sector, whole: true, tallied: true },
  country: { of: ({ person }) => person.firm.country, whole: true, tallied: true },
  region: { of: ({ person }) => person.firm.region },
  town: { of: ({ person }) => person.firm.city },
  staff_band: { of: ({ firm }) => firm.staffBand, whole: true },
  vacancies: { of: ({ firm }) => firm.vacancies },
  earlier: { of: ({ earlier }) => earlier },
  school: { of: ({ school }) => school },
  certificates: { of: ({ certificates }) => certificates },
  reads: { of: ({ reads }) => reads },
  about: { of: ({ about }) => about, also: ({ headline }) => headline },
};
export const ORGANISATIONS: Record<string, Attribute<FirmProfile>> = {
  organisation: { of: ({ firm }) => firm.name },
  sector: { of: ({ sector }) => sector, whole: true, tallied: true },
  country: { of: ({ firm }) => firm.country, whole: true, tallied: true },
  region: { of: ({ firm }) => firm.region },
  town: { of: ({ firm }) => firm.city },
  staff: { of: ({ staff }) => staff },
  staff_growth: { of: ({ staffGrowth }) => staffGrowth },
  team_growth: { of: ({ teamGrowth }) => teamGrowth },
  tools: { of: ({ tools }) => tools },
  vacancies: { of: ({ vacancies }) => vacancies },
  about: { of: ({ about }) => about },
};
export const VACANCIES: Record<string, Attribute<Vacancy>> = {
  role: { of: ({ role }) => role, tallied: MOST_TITLES },
  age_days: { of: ({ ageDays }) => ageDays },
  organisation: { of: ({ firm }) => firm.firm.name },
  sector: { of: ({ firm }) => firm.sector, whole: true, tallied: true },
  country: { of: ({ firm }) => firm.firm.country, whole: true, tallied: true },
  region: { of: ({ firm }) => firm.firm.region },
  town: { of: ({ firm }) => firm.firm.city },
};

/** The rows that pass all filters; null when a filter cannot be read. */
export function passing<T>(rows: readonly T[], attributes: Record<string, Attribute<T>>, where: unknown): T[] | null {
  if (!Array.isArray(where)) return null;
  const tests: ((row: T) => boolean)[] = [];
  for (const filter of where as Filter[]) {
    const attribute = Object.hasOwn(attributes, filter.attribute) ? attributes[filter.attribute]! : undefined;
    if (!attribute || (filter.op !== 'any_of' && filter.op !== 'none_of')) return null;
    const test = filter.between ? inSpans(attribute, filter.between) : inPhrases(attribute, filter.phrases ?? []);
    tests.push((row) => test(row) === (filter.op === 'any_of'));
  }
  return rows.filter((row) => tests.every((test) => test(row)));
}

const inSpans =
  <T>({ of }: Attribute<T>, spans: NonNullable<Filter['between']>) =>
  (row: T): boolean => {
    const value = of(row);
    return (
      typeof value === 'number' &&
      spans.some(({ min, max }) => (min === null || value >= min) && (max === null || value <= max))
    );
  };

function inPhrases<T>({ of, also, whole }: Attribute<T>, phrases: NonNullable<Filter['phrases']>) {
  const values = new Set(whole ? phrases.map(({ words }) => words.toLowerCase()) : []);
  const split = phrases
    .map(({ words, in_order }) => ({ words: tokens(words), in_order }))
    .filter(({ words }) => words.length > 0);
  const loose = split.filter(({ in_order }) => !in_order);
  /** Phrases by their first word: a list of 500 names is looked through in one pass. */
  const ordered = new Map<string, string[][]>();
  for (const { words, in_order } of split)
    if (in_order) ordered.set(words[0]!, [...(ordered.get(words[0]!) ?? []), words]);
  return (row: T): boolean => {
    const value = of(row);
    const texts = typeof value === 'string' ? [value] : Array.isArray(value) ? (value as string[]) : [];
    if (whole) return texts.some((text) => values.has(text.toLowerCase()));
    const words = texts.map(tokens);
    if (words.some((text) => text.some((word, at) => ordered.get(word)?.some((phrase) => follows(text, at, phrase)))))
      return true;
    if (loose.length === 0) return false;
    const beside = also ? tokens(also(row)) : [];
    const stands = (word: string) => words.some((text) => text.includes(word)) || beside.includes(word);
    return loose.some((phrase) => phrase.words.every(stands));
  };
}

const follows = (text: readonly string[], at: number, phrase: readonly string[]) =>
  phrase.every((word, i) => text[at + i] === word);

const kept = new Map<string, string[]>();
function tokens(text: string): string[] {
  let found = kept.get(text);
  if (!found) {
    found =
      text
        .normalize('NFKD')
        .replace(/\p{M}/gu, '')
        .toLowerCase()
        .match(/[\p{L}\p{N}+]+/gu) ?? [];
    if (kept.size > 200_000) kept.clear();
    kept.set(text, found);
  }
  return found;
}
