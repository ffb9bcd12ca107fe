import { screenCounts, sortDecisions, type ScreenOptions, type WordLists } from '@sieve/core';
import type { ScreenEffect } from '@sieve/contract';
import type { Db } from '../db/open';
import { standingDecisions } from '../decisions/store';
import { suppressionList } from '../register/suppressions';
import { screenArrivals } from './screen-arrivals';

/** What other rules of the screen would take of those who came to it when the job was sifted last. */
export function screenEffect(
  db: Db,
  jobId: number,
  options: ScreenOptions,
  lists: WordLists,
  now: number,
): ScreenEffect {
  function* came() {
    for (const { person, extra, byHand } of screenArrivals(db, jobId))
      if (byHand !== 'aside') yield { person, extra, kept: byHand === 'kept' };
  }
  const decisions = sortDecisions(standingDecisions(db, jobId));
  return screenCounts(options, { suppression: suppressionList(db, now), lists, decisions }, came());
}
