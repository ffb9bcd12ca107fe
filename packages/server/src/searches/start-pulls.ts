import { eq } from 'drizzle-orm';
import type { AppContext } from '../app-context';
import { batchesOf, searchRow } from './store';
import { addSource } from '../sources/store';
import { pulls } from '../db/schema';
import { directorySource } from '../sources/directory/directory-source';

type Parts = Pick<AppContext, 'db' | 'queue' | 'events' | 'now'>;

/** Queues pulls of some batches of a search into a job; all batches with `ids` null. */
export function startPulls(
  { db, queue, events, now }: Parts,
  searchId: number,
  jobId: number,
  ids: readonly number[] | null,
  standing: boolean,
): number[] {
  const search = searchRow(db, searchId)!;
  const all = batchesOf(db, searchId);
  const runIds = all
    .filter(({ id }) => ids === null || ids.includes(id))
    .map((batch) => {
      const name = all.length > 1 ? `${search.name}, batch ${batch.position + 1}` : search.name;
      const { id: pullId } = db.transaction((tx) =>
        tx
          .insert(pulls)
          .values({
            searchId,
            batch: batch.position,
            batchId: batch.id,
            jobId,
            sourceId: addSource(tx, directorySource(jobId, name, 0, batch.kept), now()),
            runId: 0,
            search: batch.search,
            kept: batch.kept,
            perCompany: search.perCompany,
            standing,
            startedAt: now(),
            promised: batch.count,
          })
          .returning({ id: pulls.id })
          .get(),
      );
      const runId = queue.enqueue(jobId, 'pull', { pullId, searchId });
      db.update(pulls).set({ runId }).where(eq(pulls.id, pullId)).run();
      return runId;
    });
  events.emit({ type: 'search', searchId });
  return runIds;
}
