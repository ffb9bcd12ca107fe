import { fullName, heldRulesOf, match, PERSON_FIELDS, stepIn, survive, type Column, type Person } from '@sieve/core';
import type { HeldCounts, HeldDetails } from '@sieve/contract';
import type { Db } from '../db/open';
import { jobRow, sieveOf } from '../jobs/store';
import { keyHash } from '../register/hash';
import { contactsKnownBy } from '../register/register';
import { exportTime } from '../exports/store';
import { storedContact } from '../sieve/rows';
import type { RowStanding } from './row-standing';

const MOST_JOBS = 5;
const MOST_MERGES = 3;
/** People whose merge is looked at, to find some that changes anything. */
const MOST_LOOKED = 300;

/** Counts where the people of a file stand already, and keeps what there is to say of them. */
export function heldCount(
  db: Db,
  jobId: number | null,
  tidied: (cells: string[], columns: Column[]) => { person: Person },
) {
  const counts: HeldCounts = { fresh: 0, thisJob: 0, otherJobs: 0, suppressed: 0, exported: 0, twice: 0 };
  const jobs = new Map<number, number>();
  const suppressedBy: HeldDetails['suppressedBy'] = {};
  const merges: HeldDetails['merges'] = [];
  /** By the strongest key of each. */
  const seen = new Set<bigint>();
  let lastExport = 0;
  let looked = 0;
  return {
    add(where: RowStanding, cells: string[], columns: Column[]) {
      counts[where.stands]++;
      for (const job of where.jobs) jobs.set(job, (jobs.get(job) ?? 0) + 1);
      const by = where.suppressedBy;
      if (by) suppressedBy[by] = (suppressedBy[by] ?? 0) + 1;
      if (where.exported > 0) counts.exported++;
      lastExport = Math.max(lastExport, where.exported);
      const key = where.keys[0] === undefined ? null : keyHash(where.keys[0]);
      if (key !== null && seen.has(key)) counts.twice++;
      if (key !== null) seen.add(key);
      if (where.stands === 'thisJob' && merges.length < MOST_MERGES && looked++ < MOST_LOOKED) {
        const merge = mergeOf(db, jobId!, where.keys, tidied(cells, columns).person, columns);
        if (merge && merge.fields.length > 0) merges.push(merge);
      }
    },
    counts,
    details: (): HeldDetails => ({
      jobs: [...jobs]
        .sort((a, b) => b[1] - a[1])
        .slice(0, MOST_JOBS)
        .map(([id, rows]) => ({ id, rows, name: jobRow(db, id)?.name ?? '' })),
      lastExportAt: lastExport === 0 ? null : exportTime(db, lastExport),
      suppressedBy,
      merges,
    }),
  };
}

/** Somebody of the job as they are held, as they come, and as matching will leave them. */
function mergeOf(
  db: Db,
  jobId: number,
  keys: readonly string[],
  comes: Person,
  columns: Column[],
): HeldDetails['merges'][number] | null {
  const contact = contactsKnownBy(db.register, keys).find((one) => one.jobId === jobId);
  const held = contact && storedContact(db, jobId, contact.contact)?.person;
  if (!held) return null;
  const group = [
    { recordId: 1, person: held },
    { recordId: 2, person: comes, rules: heldRulesOf(columns) },
  ];
  const { survivor, survivorOf } = stepIn(sieveOf(db, jobId), match).options;
  const { person: then } = survive(group, survivor, survivorOf);
  const fields = PERSON_FIELDS.filter(
    (field) => (comes[field] !== '' && comes[field] !== held[field]) || then[field] !== held[field],
  );
  return {
    name: fullName(held) || held.email,
    fields: fields.map((field) => ({ field, held: held[field], comes: comes[field], then: then[field] })),
  };
}
