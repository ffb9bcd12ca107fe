import {
  appendEmail,
  doneAt,
  joined,
  printSearch,
  rowsToGo,
  secondsEach,
  startOfDay,
  tightenings,
  wilson,
  type Arrival,
  type Search,
  type Tightening,
} from '@sieve/core';
import { zoneOf, type HitRate, type Settings, type SourceRow } from '@sieve/contract';
import type { Db } from '../db/open';
import { theJob } from '../jobs/the-job';
import { spentByContact } from '../ledger/store';
import { timedAsks } from '../runs/store';
import { rowsToday } from '../searches/pull-run';
import { searchRow } from '../searches/store';
import { sourceRows, sourcesOfRecords } from '../sources/store';
import { reasonOf } from './reason-of';
import { screenArrivals } from './screen-arrivals';

interface Came {
  sources: SourceRow[];
  arrivals: Arrival[];
  /** Those that pass and came by it before they came by any other. */
  first: number;
  /** Of those, whose email was found or looked for. */
  asked: number;
  /** Of those, valid emails, and what was paid for all who came by it first. */
  valid: number;
  cents: number;
  why: Record<string, number>;
}

/**
 * Of what each source brought, all of a search together: how many pass the screen, why the others do not, what the search could
 * leave out, how many more rows of it the job needs, when they are here and what a valid email of it costs. Who came by several counts for each; for the rows to go only the first.
 */
export function hitRates(db: Db, jobId: number, { pace, timeZone }: Settings, now: number): HitRate[] {
  const groups = new Map<string, Came>();
  const groupOf = new Map<number, Came>();
  for (const source of sourceRows(db, jobId).filter(({ out, about }) => !out && about === 'people')) {
    const key = source.origin.kind === 'directory' ? `search ${source.origin.searchId}` : `source ${source.id}`;
    const group = groups.get(key) ?? { sources: [], arrivals: [], first: 0, asked: 0, valid: 0, cents: 0, why: {} };
    group.sources.push(source);
    groups.set(key, group);
    groupOf.set(source.id, group);
  }
  const sourceOf = sourcesOfRecords(db, jobId);
  const spent = spentByContact(db, jobId);
  for (const { id, verdict, recordIds, person, passed, code, why } of screenArrivals(db, jobId)) {
    const came = [...new Set(recordIds.flatMap((id) => groupOf.get(sourceOf.get(id) ?? 0) ?? []))];
    if (came[0]) {
      came[0].first += Number(passed);
      came[0].asked += Number(passed && (verdict !== '' || code === 'no-address-found'));
      came[0].valid += Number(passed && verdict === 'valid');
      came[0].cents += spent.get(id) ?? 0;
    }
    for (const group of came) {
      group.arrivals.push({ ...fieldsOf(person), fits: passed });
      if (passed) continue;
      const reason = reasonOf({ code, why });
      group.why[reason] = (group.why[reason] ?? 0) + 1;
    }
  }
  const hours = { ...pace, zone: zoneOf({ timeZone }) };
  const today = rowsToday(db, startOfDay(now, hours.zone));
  const { summary, targetValid, sieve } = theJob(db, jobId);
  const append = sieve.find(({ kind, on }) => on && kind === appendEmail.kind);
  const lookUpMs = append ? 1000 * secondsEach(timedAsks(db, append.id)) : 0;
  /** When so many rows are here, and who of them passes is looked up. */
  const lookedUp = (rows: number, passing: number) =>
    Math.round(doneAt(hours, rows, 0, now, today) + rows * passing * lookUpMs);
  const passed = [...groups.values()].reduce((sum, { first }) => sum + first, 0);
  const validOfPassed = passed === 0 ? 0 : (summary?.likelyValid ?? 0) / passed;
  const missing = targetValid - (summary?.likelyValid ?? 0);
  return [...groups.values()]
    .filter(({ arrivals }) => arrivals.length > 0)
    .map((group) => {
      const rate = rateOf(db, group, validOfPassed, missing);
      const passing = group.first / Math.max(1, rate.rows);
      const doneAt = rate.toGo && rate.searchId !== null ? lookedUp(rate.toGo.likely, passing) : null;
      return { ...rate, ...costOf(group), asked: group.asked, doneAt };
    });
}

const fieldsOf = ({ title, company, sector, region, country }: Omit<Arrival, 'fits'>) => ({
  title,
  company,
  sector,
  region,
  country,
});

/** What a valid email of it cost so far; its range is that of the share of valid ones. */
function costOf({ first, valid, cents }: Came): Pick<HitRate, 'valid' | 'spentCents' | 'eachCents'> {
  if (valid === 0 || cents <= 0) return { valid, spentCents: cents, eachCents: null };
  const share = wilson(valid, first);
  const each = (count: number) => cents / Math.max(1, count);
  const eachCents = { low: each(first * share.high), likely: each(valid), high: each(first * share.low) };
  return { valid, spentCents: cents, eachCents };
}

type Rate = Omit<HitRate, 'asked' | 'valid' | 'spentCents' | 'eachCents' | 'doneAt'>;

function rateOf(db: Db, { sources, arrivals, first, why }: Came, validOfPassed: number, missing: number): Rate {
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
