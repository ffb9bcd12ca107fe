import { personKeys, type Column, type Person, type SuppressionKind, type Target, type TidyRow } from '@sieve/core';
import type { WhoComes } from '@sieve/contract';
import type { Db } from '../db/open';
import { heldIn, lastExportOf } from '../register/register';
import { suppressedAt } from '../register/suppressions';

/** What says who somebody is. */
const KEY_TARGETS: readonly Target[] = [
  'fullName',
  'firstName',
  'lastName',
  'email',
  'phone',
  'profile',
  'company',
  'website',
];

/** Where the person of a row stands already. */
export interface RowStanding {
  stands: 'fresh' | 'thisJob' | 'otherJobs' | 'suppressed';
  /** What of the suppression list names them. */
  suppressedBy: SuppressionKind | null;
  /** The other jobs that hold them. */
  jobs: number[];
  /** The export that they left with last; 0: none. */
  exported: number;
  keys: string[];
  person: Person;
}

/** Answers where the person of a row stands already; only what says who somebody is is tidied for it. */
export function rowStanding(
  db: Db,
  jobId: number | null,
  tidied: (cells: string[], columns: Column[]) => TidyRow,
): (cells: string[], columns: Column[]) => RowStanding {
  const suppressed = suppressedAt(db, Date.now());
  const held = heldIn(db.register);
  const exportOf = lastExportOf(db.register);
  let of: Column[] | null = null;
  let keyColumns: Column[] = [];
  return (cells, columns) => {
    if (of !== columns) {
      of = columns;
      keyColumns = columns.map((column) =>
        KEY_TARGETS.includes(column.target) ? column : { ...column, target: 'skip' as const },
      );
    }
    const { person } = tidied(cells, keyColumns);
    const keys = personKeys(person);
    const places = held(keys);
    const by = suppressed(person)?.kind ?? null;
    const here = jobId !== null && places.has(jobId);
    return {
      stands: by ? 'suppressed' : here ? 'thisJob' : places.size > 0 ? 'otherJobs' : 'fresh',
      suppressedBy: by,
      jobs: [...places].filter((place) => place !== null && place !== jobId) as number[],
      exported: exportOf(keys),
      keys,
      person,
    };
  };
}

/** Whether a row stays out, and as what; null: it comes in. */
export function staysOut(take: WhoComes, { stands, exported }: RowStanding): 'not-new' | 'exported-before' | null {
  if (take === 'new' && stands !== 'fresh') return 'not-new';
  return take === 'not-exported' && exported > 0 ? 'exported-before' : null;
}
