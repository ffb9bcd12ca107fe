import { fold } from '../text/fold';
import type { Person } from '../model/person';

/** What matching looks at. */
export type MatchField =
  'firstName' | 'lastName' | 'email' | 'phone' | 'profile' | 'company' | 'domain' | 'city' | 'title';

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

const FOLD: Record<MatchField, (value: string) => string> = {
  firstName: fold,
  lastName: fold,
  email: (value) => value,
  phone: (value) => value.replace(/;ext=.*$/, ''),
  profile: (value) => value,
  company: (value) => fold(value.toLowerCase().replace(/&/g, ' and ').replace(COMPANY_NOISE, ' ')) || fold(value),
  domain: (value) => value,
  city: fold,
  title: (value) => value.toLowerCase(),
};

/** Lays tidied people out in columns. */
export function toSubjects(people: readonly Person[]): Subjects {
  const out: Partial<Subjects> = { size: people.length };
  for (const field of Object.keys(FOLD) as MatchField[]) {
    out[field] = intern(people.length, (i) => people[i]![field], FOLD[field]);
  }
  return out as Subjects;
}

/** Keeps each distinct value once. */
function intern(size: number, valueOf: (i: number) => string, foldValue: (value: string) => string): Interned {
  const ids = new Int32Array(size);
  const raw = new Map<string, number>([['', 0]]);
  const folded = new Map<string, number>([['', 0]]);
  const values = [''];
  for (let i = 0; i < size; i++) {
    const value = valueOf(i);
    let id = raw.get(value);
    if (id === undefined) {
      const key = foldValue(value);
      id = folded.get(key);
      if (id === undefined) {
        id = values.length;
        values.push(key);
        folded.set(key, id);
      }
      raw.set(value, id);
    }
    ids[i] = id;
  }
  const counts = new Int32Array(values.length);
  for (let i = 0; i < size; i++) counts[ids[i]!]!++;
  return { ids, values, counts };
}
