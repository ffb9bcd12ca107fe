import {
  keptThrough,
  saidOf,
  screen,
  screenCounts,
  sortDecisions,
  weighElsewhere,
  type ScreenOptions,
  type WordLists,
} from '@sieve/core';
import type { ScreenEffect } from '@sieve/contract';
import type { Db } from '../db/open';
import { standingDecisions } from '../decisions/store';
import { sieveOf } from '../jobs/store';
import { suppressionList } from '../register/suppressions';
import { acrossOf, elsewhereOf } from './elsewhere';
import { screenArrivals } from './screen-arrivals';

/** What other rules of the screen would take of those who came to it when the job was sifted last. */
export function screenEffect(
  db: Db,
  jobId: number,
  options: ScreenOptions,
  lists: WordLists,
  now: number,
): ScreenEffect {
  const across = acrossOf(db, jobId);
  if (!across) return { came: 0, pass: 0, rules: options.rules.map(() => 0) };
  const sieve = sieveOf(db, jobId);
  const at = sieve.findIndex(({ kind }) => kind === screen.kind);
  const decisions = sortDecisions(standingDecisions(db, jobId));
  function* came() {
    for (const { recordIds, person, extra, firmKey } of screenArrivals(db, jobId)) {
      const said = saidOf({ recordIds }, decisions);
      if (said?.keepTo !== null) yield { person, extra, firmKey, kept: keptThrough(said, sieve, at) };
    }
  }
  const elsewhere = weighElsewhere(elsewhereOf(db, jobId), across);
  return screenCounts(options, { suppression: suppressionList(db, now), elsewhere, lists, decisions }, came());
}
