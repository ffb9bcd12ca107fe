import type { Person } from './person';

/** Where else somebody is known: names of other jobs that hold them, and of other jobs that they left with. */
export interface Elsewhere {
  held: readonly string[];
  left: readonly string[];
  /** Other jobs that hold somebody who is likely the same, where none surely does. */
  likely: readonly string[];
}

/** Answers by what is known of somebody when it is asked. */
export type FindElsewhere = (person: Person) => Elsewhere;

export const NOWHERE: Elsewhere = { held: [], left: [], likely: [] };
