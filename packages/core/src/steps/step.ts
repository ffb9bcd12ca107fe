import type * as z from 'zod';
import type { Sorted } from '../decisions/sort-decisions';
import type { MadeAt } from '../model/made';
import { wantedOf, type Facts, type Wanted } from '../facts/facts';
import type { Contact } from '../model/contact';
import type { Elsewhere } from '../model/elsewhere';
import type { Why } from '../model/fate';
import type { Person } from '../model/person';
import type { Suppression } from '../model/suppression';
import type { WordLists } from '../model/word-lists';

/**
 * One stage of a sieve: a folder that exports one plain object, and a line in the registry. Nothing else names a kind.
 *
 * @typeParam O its options
 */
export interface Step<O = unknown> {
  kind: string;
  options: z.ZodType<O>;
  /** What it moves: records on their way to be contacts, or contacts. */
  about: 'record' | 'contact';
  /** Kinds that stand before it in every sieve. */
  after: readonly string[];
  /** It can be turned off. */
  optional: boolean;
  /** A new sieve has it turned off. */
  startsOff?: true;
  /** Its contacts may wait for what an outside service says. */
  asks: boolean;
  /**
   * What it knows of all contacts together: learned patterns, counts for each company. It is called with all of them as
   * they come to this step.
   */
  prepare: (all: readonly Contact[], options: O, env: Env) => Advance;
}

/**
 * Takes one contact through a step. Contacts are given in order, each once it has come this far; a step may add values to
 * the contact it lets pass.
 *
 * @param kept a person said that it stays, whatever the step thinks
 * @returns null when it passes
 */
export type Advance = (contact: Contact, kept: boolean) => Stop | null;

export type Stop = { state: 'aside' | 'look'; code: string; why?: Why } | ({ state: 'waits' } & Wanted);

/** The stop of a contact that something has to be asked about. */
export const waiting = (wanted: Wanted): Stop => ({ state: 'waits', ...wantedOf(wanted) });

/** What steps know besides the contacts. */
export interface Env {
  facts: Facts;
  decisions: Sorted;
  suppression: Suppression;
  elsewhere: (person: Person) => Elsewhere;
  /** How addresses were made that other jobs know. */
  made: MadeAt;
  lists: WordLists;
  /** ISO 3166 code that a phone without a country code is read in, of somebody whose country is not known. */
  phoneCountry: string;
}
