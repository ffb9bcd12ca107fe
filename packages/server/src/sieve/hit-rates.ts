import {
  joined,
  printSearch,
  rowsToGo,
  tightenings,
  wilson,
  type Arrival,
  type Search,
  type Tightening,
} from '@sieve/core';
import type { HitRate, SourceRow } from '@sieve/contract';
import type { Db } from '../db/open';
import { theJob } from '../jobs/the-job';
import { searchRow } from '../searches/store';
import { sourceRows, sourcesOfRecords } from '../sources/store';
import { reasonOf } from './reason-of';
import { screenArrivals } from './screen-arrivals';

interface Came {
  sources: SourceRow[];
  arrivals: Arrival[];
  /** Those that pass and came by it before they came by any other. */
  first: number;
  why: Record<string, number>;
}

/**
 * Of what each source brought, all of a search together: how many pass the screen, why the others do not, what the search could
 * leave out, and how many more rows of it the job needs. Who came by several counts for each; for the rows to go only the first.
 */
export function hitRates(db: Db, jobId: number): HitRate[] {
  const groups = new Map<string, Came>();
  const groupOf = new Map<number, Came>();
  for (const source of sourceRows(db, jobId).filter(({ out, about }) => !out && about === 'people')) {
    const key = source.origin.kind === 'directory' ? `search ${source.origin.searchId}` : `source ${source.id}`;
    const group = groups.get(key) ?? { sources: [], arrivals: [], first: 0, why: {} };
    group.sources.push(source);
    groups.set(key, group);
    groupOf.set(source.id, group);
  }
  const sourceOf = sourcesOfRecords(db, jobId);
  for (const { recordIds, person, passed, code, why } of screenArrivals(db, jobId)) {
    const came = [...new Set(recordIds.flatMap((id) => groupOf.get(sourceOf.get(id) ?? 0) ?? []))];
    if (passed && came[0]) came[0].first++;
    for (const group of came) {
      group.arrivals.push({ ...fieldsOf(person), fits: passed });
      if (passed) continue;
      const reason = reasonOf({ code, why });
      group.why[reason] = (group.why[reason] ?? 0) + 1;
    }
  }
  const { summary, targetValid } = theJob(db, jobId);
  const passed = [...groups.values()].reduce((sum, { first }) => sum + first, 0);
  const validOfPassed = passed === 0 ? 0 : (summary?.likelyValid ?? 0) / passed;
  const missing = targetValid - (summary?.likelyValid ?? 0);
  return [...groups.values()]
    .filter(({ arrivals }) => arrivals.length > 0)
    .map((group) => rateOf(db, group, validOfPassed, missing));
}

const fieldsOf = ({ title, company, sector, region, country }: Omit<Arrival, 'fits'>) => ({
  title,
  company,
  sector,
  region,
  country,
});

function rateOf(db: Db, { sources, arrivals, first, why }: Came, validOfPassed: number, missing: number): HitRate {
  const [{ origin, name }] = sources as [SourceRow];
  const search = origin.kind === 'directory' ? searchRow(db, origin.searchId) : undefined;
  const rows = sources.reduce((sum, source) => sum + source.rows, 0);
  const fits = arrivals.reduce((sum, arrival) => sum + Number(arrival.fits), 0);
  const { low, high } = wilson(fits, arrivals.length);
  const perRow = wilson(first, rows);
  return {
    name: search?.name ?? name,
    searchId: search?.id ?? null,
    rows,
    came: arrivals.length,
    fits,
    low,
    high,
    why,
    tighter: search ? tightenings(arrivals).map((advice) => ({ ...advice, q: without(search.search, advice) })) : [],
    toGo: rowsToGo(
      {
        low: perRow.low * validOfPassed,
        likely: (first / Math.max(1, rows)) * validOfPassed,
        high: perRow.high * validOfPassed,
      },
      missing,
    ),
  };
}

const without = (search: Search, { field, text }: Tightening): string =>
  printSearch(joined(search, { field, not: true, terms: [{ text, exact: false }] }));
