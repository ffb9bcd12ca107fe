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

/**
 * The records to be matched, column by column, each value folded once and kept once; by last name, then first name, so that those
 * who are compared mostly lie side by side.
 */
export type Subjects = {
  size: number;
  /** Which of the records that were given stands at each place. */
  records: Int32Array;
} & Record<MatchField, Interned>;

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
  const fields = Object.keys(FOLD) as MatchField[];
  const columns = fields.map((field) => [field, intern(people, field, FOLD[field])] as const);
  const { lastName, firstName } = Object.fromEntries(columns) as Record<MatchField, Interned>;
  const records = sortedByName(lastName, firstName);
  const asGiven = new Int32Array(people.length);
  for (const [, { ids, values }] of columns) {
    if (values.length === 1) continue;
    asGiven.set(ids);
    for (let place = 0; place < records.length; place++) ids[place] = asGiven[records[place]!]!;
  }
  return { size: people.length, records, ...(Object.fromEntries(columns) as Record<MatchField, Interned>) };
}

/** Record indexes by last name, then first name, then index. */
const sortedByName = (lastName: Interned, firstName: Interned): Int32Array =>
  sortedBy(
    lastName,
    sortedBy(
      firstName,
      Int32Array.from(firstName.ids, (_, i) => i),
    ),
  );

/** Records by a value, those of one value as they came: each value's place is counted, as it is few beside the records. */
function sortedBy({ ids, values, counts }: Interned, records: Int32Array): Int32Array {
  const next = new Int32Array(values.length);
  let place = 0;
  for (const id of values.map((_, id) => id).sort((x, y) => (values[x]! < values[y]! ? -1 : 1))) {
    next[id] = place;
    place += counts[id]!;
  }
  const sorted = new Int32Array(records.length);
  for (const record of records) sorted[next[ids[record]!]!++] = record;
  return sorted;
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
  const known = new Map<string, number>();
  return (value) => {
    if (value === '') return 0;
    let id = known.get(value);
    if (id === undefined) known.set(value, (id = numberOf(value)));
    return id;
  };
}
