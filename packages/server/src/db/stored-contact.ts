import { personOf, personValues, type Contact, type Fate, type Judgement, type Person } from '@sieve/core';

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
  verdict: Judgement['verdict'] | '';
  reason: string;
  askedAt: number;
  /** Order of the step it stopped at; one that passed them all has the last. */
  stop: number;
  state: Fate['state'];
  code: Fate['code'];
  why: Fate['why'];
}

const KEPT: Record<Exclude<keyof StoredContact, 'person'>, true> = {
  id: true,
  recordIds: true,
  extra: true,
  from: true,
  sources: true,
  mergeChance: true,
  via: true,
  alternatives: true,
  verdict: true,
  reason: true,
  askedAt: true,
  stop: true,
  state: true,
  code: true,
  why: true,
};
const FIELDS = Object.keys(KEPT) as (keyof typeof KEPT)[];

/** As text, without the names of fields. Equal contacts give equal texts. */
export const packContact = (contact: StoredContact): string =>
  JSON.stringify([personValues(contact.person), FIELDS.map((field) => contact[field])]);

export function unpackContact(packed: string): StoredContact {
  const [values, rest] = JSON.parse(packed) as [string[], unknown[]];
  const named = Object.fromEntries(FIELDS.map((field, i) => [field, rest[i]])) as unknown as StoredContact;
  return { ...named, person: personOf(values) };
}
