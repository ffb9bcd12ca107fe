import type { Search } from '@sieve/core';
import type { EarlierBatches } from '@sieve/contract';
import type { Db } from '../db/open';
import { decisionRows } from '../decisions/store';
import { AppError } from '../errors';
import { changeSearch } from './commands';
import { theSearch, type SearchState } from './store';

const MOST = 200;

/** Batches that a search had, each with the conditions they were of, the last first. */
function states(db: Db, id: number): (EarlierBatches & { state: Partial<SearchState> })[] {
  let search: Search = theSearch(db, id).search;
  return decisionRows(db, { subject: 'search', subjectId: id }, MOST).flatMap(
    ({ id: decision, at, body, undoneAt }) => {
      if (body.kind !== 'search' || undoneAt !== null) return [];
      const before = body.before as Partial<SearchState>;
      search = before.search ?? search;
      const batches = before.batches ?? [];
      if (batches.length === 0) return [];
      const state = { search, split: before.split ?? null, batches };
      return [{ decision, at, batches: batches.length, search, state }];
    },
  );
}

export const earlierBatches = (db: Db, id: number): EarlierBatches[] =>
  states(db, id).map(({ decision, at, batches, search }) => ({ decision, at, batches, search }));

/** Gives a search the batches that a decision took from it, and the conditions they were of; a decision of its own. */
export function restoreBatches(db: Db, id: number, decision: number, now: number): void {
  const found = states(db, id).find((one) => one.decision === decision);
  if (!found) throw new AppError('not-found', { what: 'earlier split' });
  changeSearch(db, id, found.state, now);
}
