import type { Search } from '@sieve/core';
import type { BatchView, PullView, RunState, SearchRow, SearchView } from '@sieve/contract';
import { asc, desc, eq } from 'drizzle-orm';
import type { Db } from '../db/open';
import { batches, pulls, runs, searches } from '../db/schema';

type SearchTableRow = typeof searches.$inferSelect;
type PullTableRow = typeof pulls.$inferSelect;

export const searchRow = (db: Db, id: number): SearchTableRow | undefined =>
  db.select().from(searches).where(eq(searches.id, id)).get();

export const batchesOf = (db: Db, searchId: number) =>
  db.select().from(batches).where(eq(batches.searchId, searchId)).orderBy(asc(batches.position)).all();

export const pullsOf = (db: Db, searchId: number) =>
  db.select().from(pulls).where(eq(pulls.searchId, searchId)).orderBy(desc(pulls.id)).all();

export const allSearches = (db: Db): SearchRow[] =>
  db
    .select()
    .from(searches)
    .orderBy(asc(searches.folder), desc(searches.id))
    .all()
    .map((row) => toRow(db, row));

function toRow(db: Db, { split: _, standingSince: __, ...row }: SearchTableRow): SearchRow {
  const own = pullsOf(db, row.id);
  const ended = own.filter(({ endedAt }) => endedAt !== null);
  return {
    ...row,
    batches: batchesOf(db, row.id).length,
    pulled: own.reduce((sum, { fresh }) => sum + fresh, 0),
    lastNew: ended.filter(({ standing }) => standing).reduce((sum, { fresh }, i) => (i === 0 ? fresh : sum), 0),
  };
}

function toPull(db: Db, pull: PullTableRow): PullView {
  const { id, runId, jobId, startedAt, endedAt, page, promised, came, fresh, yours, full } = pull;
  const state = runState(db, runId);
  const stopped = endedAt === null && (state === undefined || state === 'cancelled');
  return { id, runId, jobId, startedAt, endedAt, stopped, page, promised, came, fresh, yours, full };
}

/** Undefined: there is no such run. */
export const runState = (db: Db, id: number): RunState | undefined =>
  db.select({ state: runs.state }).from(runs).where(eq(runs.id, id)).get()?.state as RunState | undefined;

export function searchView(db: Db, id: number): SearchView | undefined {
  const row = searchRow(db, id);
  if (!row) return undefined;
  const own = pullsOf(db, id);
  const conditions = new Set(row.search.conditions.map((given) => JSON.stringify(given)));
  return {
    ...toRow(db, row),
    split: row.split,
    batchViews: batchesOf(db, id).map((batch): BatchView => {
      const pull = own.find(({ batchId }) => batchId === batch.id);
      return {
        id: batch.id,
        position: batch.position,
        search: batch.search,
        extra: batch.search.conditions.filter((given) => !conditions.has(JSON.stringify(given))),
        kept: batch.kept,
        count: batch.count,
        pull: pull ? toPull(db, pull) : null,
      };
    }),
    pulls: own.map((pull) => ({ ...toPull(db, pull), batch: pull.batch, standing: pull.standing })),
  };
}

/** Puts other batches in the place of a search's; pulls that were made are kept. */
export function replaceBatches(
  db: Db,
  searchId: number,
  parts: readonly { search: Search; count: number; kept?: Record<string, string> }[],
): void {
  db.delete(batches).where(eq(batches.searchId, searchId)).run();
  if (parts.length > 0)
    db.insert(batches)
      .values(parts.map((part, position) => ({ searchId, position, ...part })))
      .run();
}

/** Ids of rows that are held already: pulled into a job, or picked. */
export function heldRows(db: Db, ids: readonly string[]): Set<string> {
  const held = db.$client
    .prepare(
      `SELECT value FROM json_each(?) WHERE EXISTS (SELECT 1 FROM pulled WHERE row_id = value AND taken)
         OR EXISTS (SELECT 1 FROM picks WHERE row_id = value)`,
    )
    .pluck()
    .all(JSON.stringify(ids)) as string[];
  return new Set(held);
}
