import { PASSED, type Fate } from './fate';
import type { Firm } from './firm';
import type { Person, PersonField } from './person';
import type { KnownPhone } from './phone';
import type { Judgement } from './verdict';

/** Where a value that a step added came from, and what else it could be. */
export interface Added {
  /** 'pattern', 'directory', or the id of a finder or a company service. */
  via: string;
  alternatives: string[];
  /** How likely it is theirs, 0 to 1, where that was weighed. */
  sure?: number;
}

/** A person after matching: one or more records merged, and what became of them. */
export interface Contact {
  /** The lowest id of its records. */
  id: number;
  recordIds: number[];
  person: Person;
  /** Fields of the person's own. */
  extra: Record<string, string>;
  /** For each field of merged records, the one that its value came from; 0 for a value that no record holds. */
  from: Partial<Record<PersonField, number>>;
  /** How sure the least sure merge is, 1 for a single record. */
  mergeChance: number;
  /** Nothing in it says who it is. */
  nobody: boolean;
  /** Where they lived or worked before, each in one line. */
  earlierAddresses: readonly string[];
  /** The fields of `person` that a step added. */
  added: Partial<Record<PersonField, Added>>;
  /** The key of its company after companies were matched, '' where they were not. */
  firmKey: string;
  /** What is known of its company; null when that was not looked at. */
  firm: Firm | null;
  /** What is known of its email; null when that was not looked at. */
  judgement: Judgement | null;
  /** What is known of their phone; null when that was not looked at. */
  phone: KnownPhone | null;
  /** Somebody said that they are not to be called: their phone was taken out, and none is looked for. */
  notCalled: boolean;
  fate: Fate;
}

const NO_ADDRESSES: readonly string[] = [];

export const newContact = (
  recordId: number,
  person: Person,
  nobody: boolean,
  extra: Record<string, string> = {},
): Contact => ({
  id: recordId,
  recordIds: [recordId],
  person,
  extra,
  from: {},
  mergeChance: 1,
  nobody,
  earlierAddresses: person.earlierAddress === '' ? NO_ADDRESSES : [person.earlierAddress],
  added: {},
  firmKey: '',
  firm: null,
  judgement: null,
  phone: null,
  notCalled: false,
  fate: PASSED,
});
