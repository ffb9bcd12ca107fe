import type { Job } from '@sieve/contract';
import type { Db } from '../db/open';
import { AppError } from '../errors';
import { jobById } from './store';

/** The job of an address; throws when there is none. */
export function theJob(db: Db, id: number): Job {
  const found = jobById(db, id);
  if (!found) throw new AppError('not-found', { what: 'job' });
  return found;
}
