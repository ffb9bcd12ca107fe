import type { Db } from '../db/open';
import { allJobs } from '../jobs/store';
import type { Queue } from './queue';

/** Sifts every job anew that was sifted before: something changed that all of them rest on. */
export function siftAll(db: Db, queue: Queue): void {
  for (const { id, version } of allJobs(db)) if (version > 0) queue.enqueue(id, { kind: 'sift' });
}
