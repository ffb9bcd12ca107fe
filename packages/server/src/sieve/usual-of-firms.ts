import type { FirmRow } from '@sieve/contract';
import type { Db } from '../db/open';
import { FIRM_KEY } from './stored-contact';

const FIELDS = ['domain', 'sector', 'headcount', 'place'] as const;
type Usual = Pick<FirmRow, (typeof FIELDS)[number]>;

/**
 * What most of a company's people say of it, by its key: where their records differ, the most common value of each field.
 *
 * @param key only this one
 */
export function usualOfFirms(db: Db, contacts: string, at: number, key: string | null): (key: string) => Usual {
  const rows = db.outcomes
    .prepare(
      `SELECT ${FIRM_KEY} AS key, domain, sector, headcount,
         trim(city || CASE WHEN city <> '' AND country <> '' THEN ', ' ELSE '' END || country) AS place, count(*) AS people
       FROM ${contacts} WHERE stop >= @at AND (@key IS NULL OR ${FIRM_KEY} = @key) GROUP BY 1, 2, 3, 4, 5`,
    )
    .all({ at, key }) as (Usual & { key: string; people: number })[];
  const counts = new Map<string, Record<keyof Usual, Map<string, number>>>();
  for (const row of rows) {
    let of = counts.get(row.key);
    if (!of)
      counts.set(row.key, (of = { domain: new Map(), sector: new Map(), headcount: new Map(), place: new Map() }));
    for (const field of FIELDS)
      if (row[field] !== '') of[field].set(row[field], (of[field].get(row[field]) ?? 0) + row.people);
  }
  return (key) => {
    const of = counts.get(key);
    const usual = (field: keyof Usual) => most(of?.[field] ?? new Map<string, number>());
    return { domain: usual('domain'), sector: usual('sector'), headcount: usual('headcount'), place: usual('place') };
  };
}

/** The most frequent value, '' for none; of equals the first. */
function most(counts: ReadonlyMap<string, number>): string {
  let [best, times] = ['', 0];
  for (const [value, n] of counts) if (n > times) [best, times] = [value, n];
  return best;
}
