import type { AnswerOf, ProfilesQuestion, Search, Subject } from '@sieve/core';
import type { DirectoryRow } from '@sieve/contract';

/**
 * What the application asks of a people-and-companies directory. To connect another one, write a function like
 * `directoryClient` that returns this, and choose it by a field of the settings.
 *
 * - `count` and `facet` cost one question each and may be asked often: a split asks some dozens.
 * - `page` shows one page of the result in the directory's own order, from 1 up to `pages[about]`. The order may shift
 *   between two pages; a pull walks the pages again when it came short.
 * - A row's `id` is the same whatever search found it. `found` holds what is known of it under the keys of SEARCH_FIELDS;
 *   leave out what the directory does not show.
 * - `find` asks for what a link is; none where the directory does not know it.
 * - Everything rejects with `ServiceDown` when the directory cannot be asked; a client signs in again, waits for its turn
 *   and repeats what failed before it gives up. Everything may be repeated.
 */
export interface Directory {
  name: string;
  pageSize: number;
  /** Pages that one search shows. */
  pages: Record<Subject, number>;
  count: (search: Search, signal: AbortSignal) => Promise<number>;
  /** How many rows each value of a field has; null where the directory does not tell. */
  facet: (search: Search, field: string, signal: AbortSignal) => Promise<Map<string, number> | null>;
  page: (search: Search, page: number, signal: AbortSignal) => Promise<DirectoryPage>;
  /** The people of a firm by its website, or the person of a profile link, and the firm; the first ones where there are many. */
  find: (link: string, signal: AbortSignal) => Promise<DirectoryRow[]>;
  /** The people under some names, the first page of them, and how many there are. */
  named: (question: ProfilesQuestion, signal: AbortSignal) => Promise<AnswerOf<'profiles'>>;
}

export interface DirectoryPage {
  total: number;
  pages: number;
  rows: DirectoryRow[];
}

export const capOf = ({ pages, pageSize }: Directory, about: Subject): number => pages[about] * pageSize;
