import { likelyKeys, personKeys, type FindElsewhere } from '@sieve/core';
import type { Db } from '../db/open';
import { jobOfExport } from '../exports/store';
import { jobRow } from '../jobs/store';
import { exportsOf, heldIn } from '../register/register';

/** Answers which other jobs hold somebody now, and with which other jobs' exports they left, by the keys of the register. */
export function elsewhereOf(db: Db, jobId: number): FindElsewhere {
  const held = heldIn(db.register);
  const jobs = new Map<number, string | null>();
  /** Null for a job that is gone. */
  const nameOf = (job: number): string | null => {
    if (!jobs.has(job)) jobs.set(job, jobRow(db, job)?.name ?? null);
    return jobs.get(job)!;
  };
  const exportJobs = new Map<number, number>();
  const jobOf = (id: number): number => {
    const known = exportJobs.get(id) ?? jobOfExport(db, id) ?? jobId;
    exportJobs.set(id, known);
    return known;
  };
  const names = (ids: Iterable<number>) =>
    [...new Set(ids)].filter((job) => job !== jobId).flatMap((job) => nameOf(job) ?? []);
  return (person) => {
    const keys = personKeys(person);
    const jobsOf = (by: readonly string[]) => names([...held(by)].filter((job) => job !== null));
    const surely = jobsOf(keys);
    return {
      held: surely,
      left: names(exportsOf(db.register, keys).map(jobOf)),
      likely: surely.length > 0 ? [] : jobsOf(likelyKeys(person)),
    };
  };
}
