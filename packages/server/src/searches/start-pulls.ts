import type { Author } from '@sieve/contract';
import type { AppContext } from '../app-context';
import { inTransaction } from '../db/open';
import { aboutOf, directoryColumns } from '../sources/directory/directory-source';
import { addSource } from '../sources/store';
import { addPull, batchesOf, setPull, theSearch } from './store';

type Parts = Pick<AppContext, 'db' | 'queue' | 'events' | 'now'>;

/**
 * Queues pulls of some batches of a search into a job; all batches with `ids` null.
 *
 * @param first rows of each batch, from the first on; 0: all
 */
export function startPulls(
  { db, queue, events, now }: Parts,
  searchId: number,
  jobId: number,
  ids: readonly number[] | null,
  author: Author,
  first = 0,
): number[] {
  const { name, search, perCompany } = theSearch(db, searchId);
  const about = aboutOf(search.about);
  const all = batchesOf(db, searchId);
  const chosen = all.filter(({ id }) => ids === null || ids.includes(id));
  const startedAt = now();
  const begin = (batch: (typeof all)[number]) => {
    const { kept } = batch;
    const source = {
      jobId,
      name: all.length > 1 ? `${name}, batch ${batch.position + 1}` : name,
      origin: { kind: 'directory' as const, searchId },
      about,
      columns: directoryColumns(about, kept),
      file: '',
    };
    const pullId = addPull(db, {
      searchId,
      batch: batch.position,
      batchId: batch.id,
      jobId,
      sourceId: addSource(db, source, author, now()),
      runId: 0,
      search: batch.search,
      kept,
      perCompany,
      standing: author === 'schedule',
      startedAt,
      first,
      promised: first > 0 ? Math.min(first, batch.count) : batch.count,
    });
    const runId = queue.enqueue(jobId, { kind: 'pull', pullId, searchId });
    setPull(db, pullId, { runId });
    return runId;
  };
  events.emit({ type: 'search', searchId });
  return inTransaction(db, () => chosen.map(begin));
}
