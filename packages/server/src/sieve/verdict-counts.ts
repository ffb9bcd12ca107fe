import { freshnessOf } from '@sieve/core';
import type { VerdictCounts } from '@sieve/contract';
import type { Db } from '../db/open';
import { theJob } from '../jobs/the-job';
import { shownOutcome } from './outcomes';
import { REST_FIELDS } from './stored-contact';

const MOST = 12;
const DOMAIN = "substr(email, instr(email, '@') + 1)";
const restOf = (field: (typeof REST_FIELDS)[number]) => `json_extract(rest, '$[${REST_FIELDS.indexOf(field)}]')`;
const SOURCE = restOf('sources');
const HOUR_MS = 3_600_000;

/** How many addresses of a job have which verdict, by domain and by source: those with the most addresses; and when the verdicts get too old. */
export function verdictCounts(db: Db, jobId: number): VerdictCounts {
  const { contacts } = shownOutcome(db, jobId);
  const by = (value: string) =>
    db.outcomes
      .prepare(
        `SELECT ${value} AS name, count(*) AS all_of, sum(verdict = 'valid') AS valid, sum(verdict = 'risky') AS risky,
           sum(verdict = 'invalid') AS invalid, sum(verdict = 'unknown') AS unknown
         FROM ${contacts} WHERE email <> '' AND verdict <> '' GROUP BY name ORDER BY all_of DESC, name LIMIT ${MOST}`,
      )
      .all() as (VerdictCounts['domains'][number] & { all_of: number })[];
  const counts = (value: string) =>
    by(value).map(({ name, valid, risky, invalid, unknown }) => ({ name, valid, risky, invalid, unknown }));
  const { agesMs } = freshnessOf(theJob(db, jobId).sieve);
  const ages = db.outcomes
    .prepare(
      `SELECT ${restOf('askedAt')} / ${HOUR_MS} AS hour, count(*) AS count FROM ${contacts}
       WHERE email <> '' AND verdict <> '' AND ${restOf('askedAt')} > 0 GROUP BY hour ORDER BY hour`,
    )
    .all() as { hour: number; count: number }[];
  const freshUntil = ages.map(({ hour, count }) => ({ at: (hour + 1) * HOUR_MS + agesMs, count }));
  return { domains: counts(DOMAIN), sources: counts(SOURCE), freshUntil };
}
