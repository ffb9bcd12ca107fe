import { fold } from '../text/fold';
import type { Person } from '../model/person';

/** What matching looks at. */
export type MatchField =
  | 'firstName'
  | 'lastName'
  | 'email'
  | 'phone'
  | 'profile'
  | 'company'
  | 'domain'
  | 'street'
  | 'postcode'
  | 'city'
  | 'title'
  | 'suffix';

/** The values of one field over all records: `ids[i]` points into `values`, 0 is blank. */
export interface Interned {
  ids: Int32Array;
  values: string[];
  /** How many records hold each value. */
  counts: Int32Array;
}

/** The records to be matched, column by column, each value folded once and kept once. */
export type Subjects = { size: number } & Record<MatchField, Interned>;

const COMPANY_NOISE = /\b(the|co|company|group|holdings?|uk|ireland|limited|ltd)\b/g;

const STREET_WORDS: Record<string, string> = {
  street: 'st',
  road: 'rd',
  avenue: 'ave',
  lane: 'ln',
  drive: 'dr',
  court: 'ct',
  place: 'pl',
  square: 'sq',
  boulevard: 'blvd',
};

/** 'Dairy Lane 4', '4 Dairy Ln.' and 'dairy ln 4' read alike: short words, number last. */
function foldStreet(street: string): string {
  const words = street.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
  const short = words.map((word) => fold(STREET_WORDS[word] ?? word));
  return [...short.filter((word) => !/^\d/.test(word)), ...short.filter((word) => /^\d/.test(word))].join(' ');
}

const GENERATIONS: Record<string, string> = {
  jr: 'jr',
  sr: 'sr',
  ii: 'ii',
  '2nd': 'ii',
  iii: 'iii',
  '3rd': 'iii',
  iv: 'iv',
};

/** Which of a family somebody is, of all that stands behind a name; '' where it does not say. */
const generation = (suffix: string): string =>
  suffix
    .toLowerCase()
    .split(/[^a-z0-9]+/)
    .map((part) => (Object.hasOwn(GENERATIONS, part) ? GENERATIONS[part]! : ''))
    .find((part) => part !== '') ?? '';

/** How a value is made equal to those that mean the same; null: it is compared as it is. */
const FOLD: Record<MatchField, ((value: string) => string) | null> = {
  firstName: fold,
  lastName: fold,
  email: null,
  phone: (value) => value.replace(/;ext=.*$/, ''),
  profile: null,
  company: (value) => fold(value.toLowerCase().replace(/&/g, ' and ').replace(COMPANY_NOISE, ' ')) || fold(value),
  domain: null,
  street: foldStreet,
  postcode: fold,
  city: fold,
  title: (value) => value.toLowerCase(),
  suffix: generation,
};

/** A value as it is compared. */
export const foldedValue = (field: MatchField, value: string): string =>
  value === '' ? '' : (FOLD[field]?.(value) ?? value);

/** Lays tidied people out in columns. */
export function toSubjects(people: readonly Person[]): Subjects {
  const out: Partial<Subjects> = { size: people.length };
  for (const field of Object.keys(FOLD) as MatchField[]) {
    out[field] = intern(people, field, FOLD[field]);
  }
  return out as Subjects;
}

/** Keeps each distinct value once. */
function intern(people: readonly Person[], field: MatchField, foldValue: ((value: string) => string) | null): Interned {
  const ids = new Int32Array(people.length);
  const values = [''];
  const idOf = numbering((value) => values.push(value) - 1);
  const known = foldValue ? numbering((value) => idOf(foldValue(value))) : idOf;
  for (let i = 0; i < people.length; i++) ids[i] = known(people[i]![field]);
  const counts = new Int32Array(values.length);
  for (const id of ids) counts[id]!++;
  return { ids, values, counts };
}

/** A number for each distinct value, 0 for ''. */
export function numbering(numberOf: (value: string) => number): (value: string) => number {
  const known = new Map([['', 0]]);
  return (value) => {
    let id = known.get(value);
    if (id === undefined) known.set(value, (id = numberOf(value)));
    return id;
  };
}
