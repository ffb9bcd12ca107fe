import type { Person } from '@sieve/core';
import type { Inspection } from '@sieve/contract';
import type { Db } from '../db/open';
import { shownOutcomes } from '../sieve/outcomes';

/** Tells where a person is held already: suppressed, in this job, in another, or nowhere. By email and profile link. */
export function holdings(db: Db, jobId: number | null): (person: Person) => keyof Inspection['held'] {
  const held = new Map<string, boolean>();
  for (const { jobId: job, contacts } of shownOutcomes(db)) {
    const rows = db.outcomes.prepare(`SELECT email, profile FROM ${contacts}`).raw().iterate() as Iterable<string[]>;
    for (const keys of rows) for (const key of keys) if (key) held.set(key, job === jobId || (held.get(key) ?? false));
  }
  const suppressed = new Set((db.$client.prepare('SELECT value FROM suppressions').pluck().all() as string[]).values());
  return ({ email, profile, domain }) => {
    if ((email && suppressed.has(email)) || (domain && suppressed.has(domain))) return 'suppressed';
    const here = [email, profile].filter((key) => key !== '' && held.has(key)).map((key) => held.get(key)!);
    return here.length === 0 ? 'fresh' : here.includes(true) ? 'thisJob' : 'otherJobs';
  };
}
