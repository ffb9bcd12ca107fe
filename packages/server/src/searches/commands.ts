import type { SearchPatch } from '@sieve/contract';
import { logChange } from '../decisions/commands';
import { inTransaction, type Db } from '../db/open';
import { stand } from './standing';
import { searchState, setSearchState, theSearch, type SearchState } from './store';

/** Changes a search as a person wants it, and logs how it was. */
export function changeSearch(
  db: Db,
  id: number,
  change: Partial<SearchState>,
  now: number,
  read = theSearch(db, id).version,
): void {
  inTransaction(db, () => {
    const before = searchState(db, id)!;
    setSearchState(db, id, change, read);
    logChange(db, { subject: 'search', subjectId: id }, 'search', before, change, now);
  });
}

/** What a patch comes to: other conditions take the batches of the old ones with them, a schedule says when it is due. */
export function patchSearch(db: Db, id: number, { standing, ...patch }: SearchPatch, now: number): void {
  const before = theSearch(db, id);
  const other = patch.search !== undefined && JSON.stringify(patch.search) !== JSON.stringify(before.search);
  const change = {
    ...patch,
    ...(other && { split: null, batches: [] }),
    ...(standing !== undefined && stand(db, id, standing, now)),
  };
  if (Object.keys(change).length > 0) changeSearch(db, id, change, now, before.version);
}
