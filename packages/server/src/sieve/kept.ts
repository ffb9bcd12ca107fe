import type { Merged } from '@sieve/core';
import type { SourcedCompany, SourcedRow } from './tidied-rows';
import type { ContactColumns } from './stored-contact';

/** A thread keeps what it last computed of a job; not of jobs so large that memory would matter. */
export const MOST_KEPT_ROWS = 500_000;

/** What a thread keeps from one sifting to the next, each with what it was made of. Most decisions touch little of it. */
export interface Kept {
  /** Tidied rows. Records are never changed, so they hold as long as the key does. */
  tidied: { key: string; rows: SourcedRow[]; companies: SourcedCompany[] } | null;
  /** The same rows with what was said of single records. */
  edited: { of: SourcedRow[]; key: string; rows: SourcedRow[] } | null;
  merged: { of: readonly SourcedRow[]; key: string; merged: Merged } | null;
  /** The contacts last made shown, as columns by id, to save reading them. Another thread may have shown more since. */
  shown: { key: string; contacts: Map<number, ContactColumns> } | null;
}

export const nothingKept = (): Kept => ({ tidied: null, edited: null, merged: null, shown: null });
