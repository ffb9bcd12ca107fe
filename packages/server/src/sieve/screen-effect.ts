import {
  positionOf,
  saidOf,
  screen,
  screenCounts,
  sortDecisions,
  type ScreenOptions,
  type WordLists,
} from '@sieve/core';
import type { ScreenEffect } from '@sieve/contract';
import type { Db } from '../db/open';
import { standingDecisions } from '../decisions/store';
import { sieveOf } from '../jobs/store';
import { suppressionList } from '../register/suppressions';
import { shownOutcome } from './outcomes';
import { fromColumns, type ContactColumns } from './stored-contact';

/** What other rules of the screen would take of those who came to it when the job was sifted last. */
export function screenEffect(
  db: Db,
  jobId: number,
  options: ScreenOptions,
  lists: WordLists,
  now: number,
): ScreenEffect {
  const sieve = sieveOf(db, jobId);
  const decisions = sortDecisions(standingDecisions(db, jobId));
  const at = sieve.findIndex(({ kind }) => kind === screen.kind);
  const rows = db.outcomes
    .prepare(`SELECT * FROM ${shownOutcome(db, jobId).contacts} WHERE stop >= ? ORDER BY id`)
    .raw()
    .iterate(at) as Iterable<ContactColumns>;
  function* came() {
    for (const columns of rows) {
      const { recordIds, person, extra, via, found } = fromColumns(columns);
      const said = saidOf({ recordIds }, decisions);
      if (said?.keepTo === null) continue;
      // What later steps brought was not there at the screen.
      for (const field of Object.keys(found) as (keyof typeof found)[]) person[field] = '';
      if (via !== 'given') person.email = '';
      yield { person, extra, kept: said !== undefined && at <= positionOf(sieve, said.keepTo) };
    }
  }
  return screenCounts(options, { suppression: suppressionList(db, now), lists, decisions }, came());
}
