import type { Search } from '@sieve/core';
import type { PullView, SearchBatch, SearchRow, SearchView } from '@sieve/contract';
import { and, asc, desc, eq, isNull } from 'drizzle-orm';
import { insertedId, inTransaction, type Db } from '../db/open';
import { named } from '../db/named';
import { AppError } from '../errors';
import { isTakenBack } from '../decisions/store';
import { liveSplit, runState } from '../runs/store';
import { pulls, searchBatches, searches } from './tables';

export type SearchTableRow = typeof searches.$inferSelect;
export type PullTableRow = typeof pulls.$inferSelect;

/** A part of a split as it is saved. */
export interface BatchPart {
  search: Search;
  count: number;
  kept: Record<string, string>;
}

/** All that a person can change of a search. */
export type SearchState = Pick<
  SearchTableRow,
  'name' | 'folder' | 'jobId' | 'perCompany' | 'search' | 'standing' | 'nextAt' | 'standingSince' | 'split'
> & { batches: BatchPart[] };

export const addSearch = (
  db: Db,
  search: Pick<SearchTableRow, 'name' | 'folder' | 'jobId' | 'perCompany' | 'search'>,
  now: number,
): number =>
  insertedId(
    db
      .insert(searches)
      .values({ ...search, createdAt: now })
      .run(),
  );

export const searchRow = (db: Db, id: number): SearchTableRow | undefined =>
  db.select().from(searches).where(eq(searches.id, id)).get();

/** Throws when there is none. */
export function theSearch(db: Db, id: number): SearchTableRow {
  const found = searchRow(db, id);
  if (!found) throw new AppError('not-found', { what: 'search' });
  return found;
}

export const searchRows = (db: Db): SearchTableRow[] => db.select().from(searches).all();

export const batchesOf = (db: Db, searchId: number) =>
  db
    .select()
    .from(searchBatches)
    .where(eq(searchBatches.searchId, searchId))
    .orderBy(asc(searchBatches.position))
    .all();

export const pullsOf = (db: Db, searchId: number): PullTableRow[] =>
  db.select().from(pulls).where(eq(pulls.searchId, searchId)).orderBy(desc(pulls.id)).all();

export const pullById = (db: Db, id: number): PullTableRow => db.select().from(pulls).where(eq(pulls.id, id)).get()!;

/** The run that fetches what a source holds, while it is not at its end. */
export const pullInto = (db: Db, sourceId: number): number | null =>
  db
    .select({ runId: pulls.runId })
    .from(pulls)
    .where(and(eq(pulls.sourceId, sourceId), isNull(pulls.endedAt)))
    .get()?.runId ?? null;

export const addPull = (db: Db, pull: Omit<typeof pulls.$inferInsert, 'id'>): number =>
  insertedId(db.insert(pulls).values(pull).run());

export const setPull = (db: Db, id: number, change: Partial<PullTableRow>): void =>
  void db.update(pulls).set(change).where(eq(pulls.id, id)).run();

export function searchState(db: Db, id: number): SearchState | undefined {
  const row = searchRow(db, id);
  if (!row) return undefined;
  const { name, folder, jobId, perCompany, search, standing, nextAt, standingSince, split } = row;
  const batches = batchesOf(db, id).map(({ search: part, count, kept }) => ({ search: part, count, kept }));
  return { name, folder, jobId, perCompany, search, standing, nextAt, standingSince, split, batches };
}

/**
 * Changes a search and counts its version up. Batches that stay as they are keep their number, and with it their pulls.
 *
 * @param read the version that the change was made upon; throws when somebody has changed the search since
 */
export function setSearchState(db: Db, id: number, change: Partial<SearchState>, read?: number): void {
  inTransaction(db, () => {
    const { version } = theSearch(db, id);
    if (read !== undefined && read !== version) throw new AppError('changed-meanwhile', { what: 'This search' });
    const { batches, ...values } = change;
    db.update(searches)
      .set({ ...values, version: version + 1 })
      .where(eq(searches.id, id))
      .run();
    if (batches) replaceBatches(db, id, batches);
  });
}

function replaceBatches(db: Db, searchId: number, parts: readonly BatchPart[]): void {
  const known = new Map(batchesOf(db, searchId).map((batch) => [partKey(batch), batch.id]));
  db.delete(searchBatches).where(eq(searchBatches.searchId, searchId)).run();
  for (const [position, { search, count, kept }] of parts.entries()) {
    const key = partKey({ search, kept });
    const id = known.get(key);
    known.delete(key);
    db.insert(searchBatches)
      .values({ ...(id !== undefined && { id }), searchId, position, search, count, kept })
      .run();
  }
}

const partKey = ({ search, kept }: Pick<BatchPart, 'search' | 'kept'>) => JSON.stringify([search, kept]);

export const allSearches = (db: Db): SearchRow[] =>
  db
    .select()
    .from(searches)
    .orderBy(asc(searches.folder), desc(searches.id))
    .all()
    .map((row) => toRow(db, row));

function toRow(db: Db, row: SearchTableRow): SearchRow {
  const { id, name, folder, jobId, perCompany, search, createdAt, standing, nextAt, failed } = row;
  const own = pullsOf(db, id);
  const ended = own.filter((pull) => pull.endedAt !== null && pull.standing);
  return {
    id,
    name,
    folder,
    jobId,
    perCompany,
    search,
    createdAt,
    standing,
    nextAt,
    failed: standing ? failed : null,
    batches: batchesOf(db, id).length,
    pulled: own.reduce((sum, { fresh }) => sum + fresh, 0),
    lastNew: ended.reduce((sum, { startedAt, fresh }) => sum + (startedAt === ended[0]!.startedAt ? fresh : 0), 0),
  };
}

function toPull(db: Db, pull: PullTableRow): PullView {
  const { id, runId, jobId, startedAt, endedAt, first, page, promised, came, fresh, yours, full } = pull;
  const state = runState(db, runId);
  const stopped = endedAt === null && (state === undefined || state === 'cancelled');
  const takenBack = isTakenBack(db, pull.sourceId);
  return { id, runId, jobId, startedAt, endedAt, stopped, takenBack, first, page, promised, came, fresh, yours, full };
}

export function searchView(db: Db, id: number): SearchView | undefined {
  const row = searchRow(db, id);
  if (!row) return undefined;
  const own = pullsOf(db, id);
  const conditions = new Set(row.search.conditions.map((given) => JSON.stringify(given)));
  return {
    ...toRow(db, row),
    version: row.version,
    splitting: liveSplit(db, id),
    split: row.split,
    batchViews: batchesOf(db, id).map((batch): SearchBatch => {
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

export const searchesNamed = (db: Db, q: string, most: number) =>
  named<{ id: number; name: string }>(db.$client, 'searches', 'id, name', q, most);

/** Whether a standing search could be asked; the search itself is not changed by it. */
export const setFailed = (db: Db, id: number, failed: SearchTableRow['failed']): void =>
  void db.update(searches).set({ failed }).where(eq(searches.id, id)).run();
