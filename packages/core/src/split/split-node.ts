import type { Condition, Search } from '../model/search';

/** Asks a directory how many rows a search has; each call is one question. */
export interface Counting {
  count: (search: Search) => Promise<number>;
  /** How many rows each value of a field has, in one question; null where the directory does not say. */
  facet: (search: Search, field: string) => Promise<ReadonlyMap<string, number> | null>;
}

/** The same, counting what it is asked. */
export interface Asking extends Counting {
  asked: () => number;
}

/** A part of a split search: the search with the conditions that only split. */
export interface SplitNode {
  /** What was added to the part above; null at the top. */
  by: Condition | null;
  count: number;
  search: Search;
  /** Empty: a batch. */
  parts: SplitNode[];
}
