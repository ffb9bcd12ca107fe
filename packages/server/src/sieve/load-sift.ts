import { asksElsewhere, freshnessOf, stepIn, tidy, type SiftInput, type WordLists } from '@sieve/core';
import type { Db } from '../db/open';
import { standingDecisions } from '../decisions/store';
import { jobRow } from '../jobs/store';
import { factsAt, type TableFacts } from '../outside/facts';
import { madeElsewhere } from '../register/made';
import { suppressionList } from '../register/suppressions';
import { sourcesIn } from '../sources/store';
import { elsewhereOf, elsewhereVersion } from './elsewhere';
import type { Kept } from './kept';
import { tidiedRows, type OnTidied, type SourcedCompany, type SourcedRow } from './tidied-rows';

export interface LoadedSift extends SiftInput {
  rows: SourcedRow[];
  companyRows: SourcedCompany[];
  facts: TableFacts;
  /** What other jobs held when it was loaded, null where no rule asks. */
  elsewhereVersion: string | null;
  /** Names of the sources by id. */
  sources: Map<number, string>;
}

/**
 * Everything that the outcome of a job is computed from, the records tidied.
 *
 * @param now facts are read as fresh as they are then
 */
export async function loadSift(
  db: Db,
  jobId: number,
  { lists, now, kept, onTidied }: { lists: WordLists; now: number; kept: Kept; onTidied: OnTidied },
): Promise<LoadedSift> {
  const { sieve } = jobRow(db, jobId)!;
  const decisions = standingDecisions(db, jobId);
  const sources = sourcesIn(db, jobId);
  const { phoneCountry } = stepIn(sieve, tidy).options;
  const { rows, companies } = await tidiedRows(db, { sources, phoneCountry, lists, decisions }, kept, onTidied);
  return {
    rows,
    companyRows: companies,
    sieve,
    decisions,
    facts: factsAt(db, now, freshnessOf(sieve)),
    suppression: suppressionList(db, now),
    elsewhere: elsewhereOf(db, jobId),
    made: madeElsewhere(db.register, jobId),
    elsewhereVersion: asksElsewhere(sieve) ? elsewhereVersion(db, jobId) : null,
    lists,
    sources: new Map(sources.map(({ id, name }) => [id, name])),
  };
}
