import type { Standing } from '@sieve/contract';
import type { AppContext } from '../app-context';
import type { Db } from '../db/open';
import { AppError, toAppError } from '../errors';
import { capOf } from '../outside/directory/port';
import { doneSplitToPull, liveSplit, runState } from '../runs/store';
import { patience } from './patience';
import { startPulls } from './start-pulls';
import {
  batchesOf,
  pullsOf,
  searchRow,
  searchRows,
  setFailed,
  setSearchState,
  theSearch,
  type SearchTableRow,
} from './store';

type Parts = Pick<AppContext, 'db' | 'queue' | 'events' | 'now' | 'directory'>;

const DAY_MS = 86_400_000;
/** Nobody sits before a schedule: it asks for as long as it takes. */
const SCHEDULED_MS = 6 * 3_600_000;

/** What changes in a search that stands from now on, or no longer does. */
export function stand(db: Db, id: number, standing: Standing | null, now: number) {
  if (standing?.kind === 'after' && waitsFor(db, standing.searchId, id)) throw new AppError('standing-circle');
  return { standing, standingSince: now, nextAt: nextOf(standing, now) };
}

const nextOf = (standing: Standing | null, now: number): number | null =>
  standing?.kind === 'days' ? now + standing.everyDays * DAY_MS : standing?.kind === 'once' ? standing.at : null;

/** True when the first search is the second or waits for it, directly or by way of others. */
function waitsFor(db: Db, id: number, other: number): boolean {
  if (id === other) return true;
  const standing = searchRow(db, id)?.standing;
  return standing?.kind === 'after' && waitsFor(db, standing.searchId, other);
}

/** When the last pull of a search ended, 0 without pulls, null while one still goes on. */
export function endOfPulls(db: Db, searchId: number): number | null {
  let end = 0;
  for (const { endedAt, runId } of pullsOf(db, searchId)) {
    const state = runState(db, runId);
    if (state === 'queued' || state === 'running' || state === 'paused') return null;
    end = Math.max(end, endedAt ?? 0);
  }
  return end;
}

/**
 * Pulls a search again, for what is new. Where a batch has outgrown what the directory shows it is split anew before, by a run;
 * `pullSplitSearches` goes on when it is done.
 *
 * @returns the runs that do it
 */
export async function askAgain(parts: Parts, id: number, signal: AbortSignal): Promise<number[]> {
  const { db, directory, queue } = parts;
  const { jobId, search, version } = theSearch(db, id);
  const batches = batchesOf(db, id);
  const cap = capOf(directory(), search.about);
  const counts = await Promise.all(batches.map((batch) => directory().count(batch.search, signal)));
  const mayGrow = batches.every(({ kept }) => Object.keys(kept).length === 0);
  if (batches.length === 0 || (mayGrow && counts.some((count) => count > cap)))
    return [liveSplit(db, id) ?? queue.enqueue(jobId!, { kind: 'split', searchId: id, version, thenPull: true })];
  return startPulls(parts, id, jobId!, null, 'schedule');
}

/**
 * Asks the standing searches that are due; what was due several times while the server was off is asked once. One that
 * cannot be asked stays due and keeps no other from its turn; it is thrown at the end why.
 */
export async function startDueSearches(parts: Parts): Promise<number> {
  const { db, now, events } = parts;
  const due = searchRows(db).filter(isDue(db, now()));
  let failed: Error | undefined;
  for (const { id, standing, failed: since } of due) {
    try {
      await askAgain(parts, id, patience(SCHEDULED_MS));
    } catch (error) {
      failed ??= error as Error;
      const { code, details } = toAppError(error);
      if (since === null) {
        setFailed(db, id, { error: code, details, at: now() });
        events.emit({ type: 'search', searchId: id });
      }
      continue;
    }
    if (since !== null) setFailed(db, id, null);
    const then = again(standing!);
    setSearchState(db, id, { standing: then, standingSince: now(), nextAt: nextOf(then, now()) });
  }
  if (failed) throw failed;
  return due.length;
}

/** Pulls the searches that were split for it, each once. */
export function pullSplitSearches(parts: Parts): void {
  const { db } = parts;
  for (const { id, jobId } of searchRows(db)) {
    const split = jobId === null ? undefined : doneSplitToPull(db, id);
    if (split && pullsOf(db, id).every(({ startedAt }) => startedAt < split.endedAt!))
      startPulls(parts, id, jobId!, null, 'schedule');
  }
}

const isDue =
  (db: Db, now: number) =>
  ({ standing, nextAt, standingSince, jobId }: SearchTableRow): boolean => {
    if (standing === null || jobId === null) return false;
    if (standing.kind !== 'after') return nextAt !== null && nextAt <= now;
    const end = endOfPulls(db, standing.searchId);
    return end !== null && end > standingSince;
  };

/** How a search stands after it was asked. */
function again(standing: Standing): Standing | null {
  if (standing.kind === 'after') return standing;
  if (standing.kind === 'once' || standing.left === 1) return null;
  return { ...standing, left: standing.left === null ? null : standing.left - 1 };
}
