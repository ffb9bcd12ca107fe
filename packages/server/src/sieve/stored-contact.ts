import {
  emptyPerson,
  PERSON_FIELDS,
  type Contact,
  type Fate,
  type Firm,
  type Judgement,
  type KnownPhone,
  type Person,
  type PersonField,
} from '@sieve/core';

/** A contact as an outcome keeps it: all that screens and exports show of it. */
export interface StoredContact {
  id: number;
  recordIds: number[];
  person: Person;
  extra: Record<string, string>;
  from: Contact['from'];
  /** Names of the sources of its records. */
  sources: string;
  mergeChance: number;
  /** What the address came by: 'given', 'pattern', the id of a finder, '' without one. */
  via: string;
  alternatives: string[];
  /** Fields that were taken from the person's profile in a directory, each with how sure it is theirs, 0 to 1. */
  found: Partial<Record<PersonField, number>>;
  /** Which service filled a field of the person that no record holds. */
  filledBy: Partial<Record<PersonField, string>>;
  /** The key of its company after companies were matched, '' where they were not. */
  firmKey: string;
  /** What is known of its company; null when that was not looked at. */
  firm: Firm | null;
  /** What is known of their phone; null when that was not looked at. */
  phone: KnownPhone | null;
  verdict: Judgement['verdict'] | '';
  reason: string;
  askedAt: number;
  /** Position of the step it stopped at; one that passed them all has STOP_PASSED. */
  stop: number;
  state: Fate['state'];
  code: Fate['code'];
  why: Fate['why'];
}

/** Behind every step of any sieve. */
export const STOP_PASSED = 1000;

/** What pages are chosen and ordered by, besides the fields of the person. */
const CHOSEN = ['stop', 'state', 'code', 'verdict', 'via'] as const;
const REST: Record<Exclude<keyof StoredContact, 'id' | 'person' | (typeof CHOSEN)[number]>, true> = {
  recordIds: true,
  extra: true,
  from: true,
  sources: true,
  mergeChance: true,
  alternatives: true,
  found: true,
  filledBy: true,
  firmKey: true,
  firm: true,
  phone: true,
  reason: true,
  askedAt: true,
  why: true,
};
export const REST_FIELDS = Object.keys(REST) as (keyof typeof REST)[];
/** The key of a contact's company, in SQL. */
export const FIRM_KEY = `json_extract(rest, '$[${REST_FIELDS.indexOf('firmKey')}]')`;

/** The columns of a contact in its table; `rest` is JSON without the names of fields. */
export const CONTACT_COLUMNS = ['id', ...PERSON_FIELDS, ...CHOSEN, 'records', 'rest'] as const;
export type ContactColumns = (string | number)[];

/** A contact as its columns. Equal contacts give equal columns. */
export function toColumns(contact: StoredContact): ContactColumns {
  const columns: ContactColumns = [contact.id];
  for (const field of PERSON_FIELDS) columns.push(contact.person[field]);
  for (const field of CHOSEN) columns.push(contact[field]);
  columns.push(contact.recordIds.length, JSON.stringify(REST_FIELDS.map((field) => contact[field])));
  return columns;
}

export function fromColumns(columns: ContactColumns): StoredContact {
  const contact: Record<string, unknown> = { id: columns[0], person: personOf(columns) };
  let at = 1 + PERSON_FIELDS.length;
  for (const field of CHOSEN) contact[field] = columns[at++];
  const rest = JSON.parse(columns.at(-1) as string) as unknown[];
  REST_FIELDS.forEach((field, i) => (contact[field] = rest[i]));
  return contact as unknown as StoredContact;
}

/** Somebody as the register knows them: a phone that was found may be a household's, and tells nobody. */
export function knownPerson(columns: ContactColumns): Person {
  const person = personOf(columns);
  if (person.phone === '' || !fromColumns(columns).filledBy.phone) return person;
  return { ...person, phone: '' };
}

/** The person of a contact alone, without reading its JSON. */
export function personOf(columns: ContactColumns): Person {
  const person = emptyPerson();
  PERSON_FIELDS.forEach((field, i) => (person[field] = columns[i + 1] as string));
  return person;
}
