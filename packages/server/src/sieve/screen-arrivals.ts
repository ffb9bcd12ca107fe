import { screen, type Person } from '@sieve/core';
import type { Db } from '../db/open';
import { sieveOf } from '../jobs/store';
import { shownOutcome } from './outcomes';
import { fromColumns, type ContactColumns, type StoredContact } from './stored-contact';

export interface ScreenArrival extends Pick<
  StoredContact,
  'id' | 'verdict' | 'recordIds' | 'extra' | 'firmKey' | 'code' | 'why'
> {
  /** As it came to the screen: without what later steps brought. */
  person: Person;
  passed: boolean;
}

/** Those who came to the screen of a job when it was sifted last, in order. */
export function* screenArrivals(db: Db, jobId: number): Generator<ScreenArrival> {
  const at = sieveOf(db, jobId).findIndex(({ kind }) => kind === screen.kind);
  const rows = db.outcomes
    .prepare(`SELECT * FROM ${shownOutcome(db, jobId).contacts} WHERE stop >= ? ORDER BY id`)
    .raw()
    .iterate(at) as Iterable<ContactColumns>;
  for (const columns of rows) {
    const { id, verdict, recordIds, person, extra, via, filledBy, firmKey, stop, code, why } = fromColumns(columns);
    for (const field of Object.keys(filledBy) as (keyof typeof filledBy)[]) person[field] = '';
    if (via !== 'given') person.email = '';
    yield { id, verdict, recordIds, extra, firmKey, code, why, person, passed: stop > at };
  }
}
