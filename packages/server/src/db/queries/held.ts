import type { Person } from '@sieve/core';
import type { Inspection } from '@sieve/contract';
import type { Db } from '../open';

/** Tells where a person is held already: suppressed, in this job, in another, or nowhere. By email and profile link. */
export function holdings(db: Db, jobId: number | null): (person: Person) => keyof Inspection['held'] {
  const client = db.$client;
  const rows = client
    .prepare(
      `SELECT j.id AS job, c.email AS email, json_extract(c.person, '$.profile') AS profile
       FROM jobs j JOIN contacts c ON c.outcome = j.outcome`,
    )
    .iterate() as Iterable<{ job: number; email: string; profile: string }>;
  const held = new Map<string, boolean>();
  for (const { job, email, profile } of rows) {
    for (const key of [email, profile]) if (key) held.set(key, job === jobId || (held.get(key) ?? false));
  }
  const suppressed = new Set((client.prepare('SELECT value FROM suppressions').pluck().all() as string[]).values());
  return ({ email, profile, domain }) => {
    if ((email && suppressed.has(email)) || (domain && suppressed.has(domain))) return 'suppressed';
    const here = [email, profile].filter((key) => key !== '' && held.has(key)).map((key) => held.get(key)!);
    return here.length === 0 ? 'fresh' : here.includes(true) ? 'thisJob' : 'otherJobs';
  };
}
