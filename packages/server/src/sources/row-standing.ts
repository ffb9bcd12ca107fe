import { personKeys, type Column, type Target, type TidyRow } from '@sieve/core';
import type { HeldCounts } from '@sieve/contract';
import type { Db } from '../db/open';
import { isEmpty, standingOf } from '../register/register';
import { isSuppressed, suppressionList } from '../register/suppressions';

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

/** Answers where the person of a row stands already; only what says who somebody is is tidied for it. */
export function rowStanding(
  db: Db,
  jobId: number | null,
  tidied: (cells: string[], columns: Column[]) => TidyRow,
): (cells: string[], columns: Column[]) => keyof HeldCounts {
  const suppression = suppressionList(db);
  const nobodySuppressed = suppression.emails.size + suppression.domains.size === 0;
  const nobodyHeld = isEmpty(db.register);
  const standing = standingOf(db.register, jobId);
  let of: Column[] | null = null;
  let keyColumns: Column[] = [];
  return (cells, columns) => {
    if (nobodyHeld && nobodySuppressed) return 'fresh';
    if (of !== columns) {
      of = columns;
      keyColumns = columns.map((column) =>
        KEY_TARGETS.includes(column.target) ? column : { ...column, target: 'skip' as const },
      );
    }
    const { person } = tidied(cells, keyColumns);
    return isSuppressed(suppression, person) ? 'suppressed' : standing(personKeys(person));
  };
}
