import type { Author, HarvestPatch, NewHarvest } from '@sieve/contract';
import type { AppContext } from '../app-context';
import { inTransaction } from '../db/open';
import { logChange } from '../decisions/commands';
import { AppError } from '../errors';
import { runState } from '../runs/store';
import { addSource, sourceById } from '../sources/store';
import {
  addHarvest,
  dueHarvests,
  harvestState,
  nextAtOf,
  rememberNext,
  setHarvest,
  setHarvestState,
  theHarvest,
} from './store';

type Parts = Pick<AppContext, 'db' | 'queue' | 'events' | 'now'>;

const LIVE = new Set(['queued', 'running', 'paused']);

/** Begins a harvest with the page that was looked at. */
export function startHarvest({ db, queue, events, now }: Parts, jobId: number, wanted: NewHarvest) {
  const { name, address, columns, uploadId: file, set, next, stop, seconds, everyDays } = wanted;
  return inTransaction(db, () => {
    const where = { start: address, address, file, set, next, stop, seconds, everyDays };
    const nextAt = nextAtOf(everyDays, now());
    const harvestId = addHarvest(db, { jobId, sourceId: 0, runId: 0, name, ...where, nextAt });
    const origin = { kind: 'harvest' as const, address, harvestId };
    const sourceId = addSource(db, { jobId, name, origin, about: 'people', columns, file }, 'you', now());
    const runId = queue.enqueue(jobId, { kind: 'harvest', harvestId });
    setHarvest(db, harvestId, { sourceId, runId });
    rememberNext(db, address, next);
    events.emit({ type: 'job', jobId });
    return { harvestId, sourceId, runId };
  });
}

/** Changes how a harvest goes on, from its next page; it can be taken back. */
export function changeHarvest(
  { db, now }: Pick<Parts, 'db' | 'now'>,
  id: number,
  { was = {}, ...patch }: HarvestPatch,
) {
  inTransaction(db, () => {
    const before = harvestState(db, id);
    const isOther = ([key, value]: [string, unknown]) =>
      JSON.stringify(before[key as keyof typeof before]) !== JSON.stringify(value);
    if (Object.entries(was).some(isOther)) throw new AppError('changed-meanwhile', { what: 'The harvest' });
    setHarvestState(db, id, patch, now());
    logChange(db, { subject: 'harvest', subjectId: id }, 'harvest', before, patch, now());
  });
}

/** Goes through the pages again from the first, for what is new: into a source of its own, which can be taken back by itself. */
export function harvestAgain({ db, queue, events, now }: Parts, id: number, author: Author) {
  const { jobId, sourceId: before, runId: last, name, start, round, everyDays } = theHarvest(db, id);
  if (LIVE.has(runState(db, last) ?? '')) throw new AppError('not-running', { state: 'still going' });
  if (start === '') throw new AppError('not-found', { what: 'address of this page' });
  return inTransaction(db, () => {
    const { origin, about, columns } = sourceById(db, before)!;
    const sourceId = addSource(db, { jobId, name, origin, about, columns, file: '' }, author, now());
    const runId = queue.enqueue(jobId, { kind: 'harvest', harvestId: id });
    const from = { round: round + 1, number: 1, address: start, end: null };
    setHarvest(db, id, { ...from, sourceId, runId, nextAt: nextAtOf(everyDays, now()) });
    events.emit({ type: 'job', jobId });
    return { harvestId: id, sourceId, runId };
  });
}

/** Asks the harvests that stand and are due; one that still goes waits for its next turn. */
export function startDueHarvests(parts: Parts): void {
  const { db, now } = parts;
  for (const { id, runId } of dueHarvests(db, now()))
    if (!LIVE.has(runState(db, runId) ?? '')) harvestAgain(parts, id, 'schedule');
}
