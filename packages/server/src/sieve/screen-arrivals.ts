import { positionOf, saidOf, screen, sortDecisions, type Person } from '@sieve/core';
import type { Db } from '../db/open';
import { standingDecisions } from '../decisions/store';
import { sieveOf } from '../jobs/store';
import { shownOutcome } from './outcomes';
import { fromColumns, type ContactColumns, type StoredContact } from './stored-contact';

export interface ScreenArrival extends Pick<StoredContact, 'recordIds' | 'extra' | 'code' | 'why'> {
  /** As it came to the screen: without what later steps brought. */
  person: Person;
  passed: boolean;
  /** Set aside by hand; kept by hand, at least as far as the screen. */
  byHand: 'aside' | 'kept' | null;
}

/** Those who came to the screen of a job when it was sifted last, in order. */
export function* screenArrivals(db: Db, jobId: number): Generator<ScreenArrival> {
  const sieve = sieveOf(db, jobId);
  const decisions = sortDecisions(standingDecisions(db, jobId));
  const at = sieve.findIndex(({ kind }) => kind === screen.kind);
  const rows = db.outcomes
    .prepare(`SELECT * FROM ${shownOutcome(db, jobId).contacts} WHERE stop >= ? ORDER BY id`)
    .raw()
    .iterate(at) as Iterable<ContactColumns>;
  for (const columns of rows) {
    const { recordIds, person, extra, via, found, stop, code, why } = fromColumns(columns);
    const said = saidOf({ recordIds }, decisions);
    for (const field of Object.keys(found) as (keyof typeof found)[]) person[field] = '';
    if (via !== 'given') person.email = '';
    const byHand = !said ? null : said.keepTo === null ? 'aside' : at <= positionOf(sieve, said.keepTo) ? 'kept' : null;
    yield { recordIds, extra, code, why, person, passed: stop > at, byHand };
  }
}
