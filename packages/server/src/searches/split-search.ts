import { split, type Search, type Split, type SplitNode } from '@sieve/core';
import type { SplitPart, SplitView } from '@sieve/contract';
import { eq } from 'drizzle-orm';
import type { AppContext } from '../app-context';
import { replaceBatches, searchRow } from './store';
import { searches } from '../db/schema';
import { capOf, type Directory } from '../outside/directory/port';
import { patience } from './patience';

/** What splitting asks a directory. */
export const counting = (directory: Directory, signal: AbortSignal) => ({
  count: (search: Search) => directory.count(search, signal),
  facet: (search: Search, field: string) => directory.facet(search, field, signal),
});

/** Splits a saved search and puts the batches in the place of those it had. */
export async function splitSearch({ db, directory }: Pick<AppContext, 'db' | 'directory'>, id: number): Promise<void> {
  const { search } = searchRow(db, id)!;
  const asked = directory();
  const found = await split(search, capOf(asked, search.about), counting(asked, patience()));
  replaceBatches(db, id, found.batches);
  db.update(searches)
    .set({ split: splitView(found) })
    .where(eq(searches.id, id))
    .run();
}

function splitView(found: Split): SplitView {
  let batch = 0;
  const part = ({ by, count, parts }: SplitNode): SplitPart => ({
    by,
    count,
    batch: parts.length === 0 ? batch++ : null,
    parts: parts.map(part),
  });
  return {
    top: part(found.top),
    count: found.top.count,
    fewest: found.fewest,
    outOfReach: found.outOfReach,
    questions: found.questions,
    missing: 0,
    twice: 0,
    byHand: false,
  };
}
