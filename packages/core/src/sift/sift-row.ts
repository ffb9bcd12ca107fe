import type { Person } from '../model/person';
import type { Column } from '../model/target';
import { tidyRow } from '../tidy/tidy-row';
import { applyEdits } from './apply-edits';
import type { Sorted } from './sort-decisions';

/** A record as sifting takes it: tidied, with what a person refused or wrote put over it. */
export interface SiftRow {
  recordId: number;
  person: Person;
  extra: Record<string, string>;
  /** How many of its fields were changed. */
  changes: number;
  /** Nothing in it says who it is. */
  nobody: boolean;
}

/** Makes a row to sift of a record; `cells`, `columns` and `phoneCountry` as for `tidyRow`. */
export function siftRow(
  recordId: number,
  cells: readonly string[],
  columns: readonly Column[],
  phoneCountry: string,
  said: Sorted,
): SiftRow {
  const { person, extra, changes, issues } = applyEdits(recordId, tidyRow(cells, columns, phoneCountry), said);
  const nobody = issues.some(({ code }) => code === 'nothing-to-identify');
  return { recordId, person, extra, changes: changes.length, nobody };
}
