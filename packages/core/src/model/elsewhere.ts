import type { Person } from './person';

/** What other jobs know of somebody: names of those that they left with, and of those that hold them. */
export interface FoundElsewhere {
  left: readonly string[];
  held: readonly string[];
  /** Whom other jobs hold under a name like theirs. */
  alike: () => readonly { job: string; person: Person }[];
}

/** Answers by what is known of somebody when it is asked. */
export type FindElsewhere = (person: Person) => FoundElsewhere;

/** Which other jobs hold somebody, surely; or else likely, and how likely, 0 to 1: null where too little is known to say. */
export interface HeldElsewhere {
  surely: readonly string[];
  likely: { jobs: readonly string[]; chance: number | null } | null;
}

/** Where else somebody is known; who holds them is looked for when it is asked. */
export interface Elsewhere {
  left: readonly string[];
  held: () => HeldElsewhere;
}

export const NOWHERE: Elsewhere = { left: [], held: () => ({ surely: [], likely: null }) };
export const NOBODY_ELSEWHERE: FoundElsewhere = { left: [], held: [], alike: () => [] };
