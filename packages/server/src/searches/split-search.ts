import { checkBatches, type BatchCheck, type Search, type Split, type SplitNode } from '@sieve/core';
import type { SplitPart, SplitView } from '@sieve/contract';
import type { AppContext } from '../app-context';
import { capOf, type Directory } from '../outside/directory/port';
import { changeSearch } from './commands';
import { patience } from './patience';
import { theSearch, type BatchPart, type SearchState } from './store';

type Parts = Pick<AppContext, 'db' | 'directory' | 'now'>;

/** What splitting asks a directory. */
export const counting = (directory: Directory, signal: AbortSignal) => ({
  count: (search: Search) => directory.count(search, signal),
  facet: (search: Search, field: string) => directory.facet(search, field, signal),
});

/** Puts batches made by hand in place of the others, counted, with what is missing and what is there twice. */
export async function useBatches(
  { db, directory, now }: Parts,
  id: number,
  parts: readonly Omit<BatchPart, 'count'>[],
  version: number,
): Promise<void> {
  const { search } = theSearch(db, id);
  const asked = directory();
  const check = await checkBatches(
    search,
    parts.map((part) => part.search),
    counting(asked, patience()),
  );
  const batches = parts.map((part, i): BatchPart => ({ ...part, count: check.counts[i]! }));
  const split = handMade(search, batches, check, capOf(asked, search.about));
  changeSearch(db, id, { split, batches }, now(), version);
}

/** A split as a search keeps it. */
export const splitState = (found: Split): Pick<SearchState, 'split' | 'batches'> => ({
  split: splitView(found),
  batches: found.batches.map(({ search, count }): BatchPart => ({ search, count, kept: {} })),
});

function splitView(found: Split): SplitView {
  const sum = found.batches.reduce((all, { count }) => all + count, 0);
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
    // What the directory counted of the values need not sum up to what it counted of all.
    missing: Math.max(0, found.top.count - sum),
    twice: Math.max(0, sum - found.top.count),
    byHand: false,
  };
}

function handMade(
  whole: Search,
  parts: readonly BatchPart[],
  { total, missing, twice }: BatchCheck,
  cap: number,
): SplitView {
  const own = new Set(whole.conditions.map((given) => JSON.stringify(given)));
  return {
    top: {
      by: null,
      count: total,
      batch: null,
      parts: parts.map(({ search, count }, batch) => ({
        by: search.conditions.find((given) => !own.has(JSON.stringify(given))) ?? null,
        count,
        batch,
        parts: [],
      })),
    },
    count: total,
    fewest: Math.max(1, Math.ceil(total / cap)),
    outOfReach: parts.reduce((sum, { count }) => sum + Math.max(0, count - cap), 0),
    questions: parts.length + 1,
    missing,
    twice,
    byHand: true,
  };
}
